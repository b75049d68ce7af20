"""Kinds of pool to begin with, and what taking another one would change."""

from uuid import UUID

from kumpan.core.maintenance.pool_presets import preset, what_changes
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.queries import parts_of


async def changes(scope: Scope, pool_id: UUID, key: str) -> tuple[Message, ...]:
    """What taking a kind would change here. Raises NotFound, InvalidInput for an unknown kind."""
    parts = parts_of(await pool_state(scope, pool_id))
    return tuple(what_changes(preset(key), parts.settings, parts.equipment))

"""The season ribbon of one pool."""

from uuid import UUID

from kumpan.core.care.ribbon import Ribbon, ribbon
from kumpan.services.ledger import Scope, pool_state


async def season_of(scope: Scope, pool_id: UUID) -> Ribbon:
    """The year as one strip, with what is due ahead."""
    return ribbon(await pool_state(scope, pool_id), scope.now)

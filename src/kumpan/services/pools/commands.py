"""Set up a pool, and check what is changed of it."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID
from zoneinfo import available_timezones

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import (
    BasinMeasured,
    Body,
    EquipmentSet,
    SettingsMade,
)
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import Message, Verbatim
from kumpan.core.ranges.pool_rules import check_rules
from kumpan.services.journal.ledger import Scope, Stamp, forget_pools, record


@dataclass(frozen=True, kw_only=True)
class NewPool:
    """What a pool is set up with."""

    id: UUID
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    entry_ids: tuple[UUID, UUID, UUID]


async def set_up(scope: Scope, new: NewPool, at: datetime, person_id: UUID | None) -> None:
    """Create a pool with its first three entries; the same again is answered, not doubled."""
    check_settings(new.settings)
    if await scope.tx.journal.pool(scope.workspace_id, new.id) is None:
        await scope.tx.journal.add_pool(scope.workspace_id, new.id, scope.now)
        forget_pools(scope)
    bodies: tuple[Body, ...] = (new.settings, new.basin, new.equipment)
    for entry_id, body in zip(new.entry_ids, bodies, strict=True):
        await record(scope, new.id, Stamp(entry_id, at, person_id), body)


def check_settings(settings: SettingsMade) -> None:
    """Raises InvalidInput for an empty name, an unknown zone, school or choice, or ranges that cross."""
    if not settings.name.strip():
        raise InvalidInput(Message("Give the pool a name, so that it can be told from others."), "name")
    if settings.time_zone not in available_timezones():
        raise InvalidInput(
            Message(
                '"{time_zone}" is not a time zone; choose one like America/Chicago.',
                time_zone=Verbatim(settings.time_zone),
            ),
            "time_zone",
        )
    if settings.care_preset and settings.care_preset not in set(Preset):
        raise InvalidInput(
            Message("care_preset must be one of: {known}.", known=Verbatim(", ".join(Preset))), "care_preset"
        )
    check_rules(settings)

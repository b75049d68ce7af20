"""Pools: set one up, its head, its board."""

from dataclasses import dataclass, replace
from datetime import datetime
from functools import lru_cache
from uuid import UUID
from zoneinfo import available_timezones

from kumpan.core.demand.conditions import Place
from kumpan.core.dosing.additions import Product
from kumpan.core.errors import InvalidInput
from kumpan.core.findings import Finding
from kumpan.core.journal import (
    BasinMeasured,
    Body,
    EquipmentSet,
    PoolState,
    SettingsMade,
)
from kumpan.core.planning.expected import measured_readings
from kumpan.core.planning.next_thing import next_thing
from kumpan.core.planning.plan import Plan, plan
from kumpan.core.planning.schools import Band, School, bands, school
from kumpan.core.planning.swim import swim_answer
from kumpan.core.planning.targets import aims
from kumpan.core.planning.too_old import too_old, worded
from kumpan.core.pool.equipment import Traits
from kumpan.core.water import Measure, Readings
from kumpan.services.expectations import water_now
from kumpan.services.ledger import Scope, Stamp, pool_state, record
from kumpan.services.offer import shelf_for
from kumpan.services.places import under_the_sky
from kumpan.services.views import PoolHead


@dataclass(frozen=True)
class PoolParts:
    """What every pool has once it is set up."""

    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    school: School
    bands: dict[Measure, Band]

    @property
    def place(self) -> Place:
        return under_the_sky(self.settings, self.basin, self.equipment.traits)


def parts_of(state: PoolState) -> PoolParts:
    """The parts of a pool that is set up. Raises InvalidInput for a journal without them."""
    if state.settings is None or state.basin is None or state.equipment is None:
        raise InvalidInput("This pool is not fully set up: name, volume and equipment are needed.")
    rows = school(state.settings.school)
    stabiliser = measured_readings(state).cyanuric_acid
    return PoolParts(
        state.settings, state.basin, state.equipment, rows, bands(rows, state.equipment.traits, stabiliser)
    )


@dataclass(frozen=True)
class NewPool:
    id: UUID
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    entry_ids: tuple[UUID, UUID, UUID]


async def set_up(scope: Scope, new: NewPool, at: datetime, person_id: UUID | None) -> None:
    """Create a pool with its first three entries; the same again is answered, not doubled."""
    check_settings(new.settings)
    if not await scope.tx.journal.has_pool(scope.workspace_id, new.id):
        await scope.tx.journal.add_pool(scope.workspace_id, new.id, scope.now)
    bodies: tuple[Body, ...] = (new.settings, new.basin, new.equipment)
    for entry_id, body in zip(new.entry_ids, bodies, strict=True):
        await record(scope, new.id, Stamp(entry_id, at, person_id), body)


def check_settings(settings: SettingsMade) -> None:
    """Raises InvalidInput for an empty name, an unknown zone or school."""
    if not settings.name.strip():
        raise InvalidInput("Give the pool a name, so that it can be told from others.", "name")
    if settings.time_zone not in available_timezones():
        raise InvalidInput(
            f'"{settings.time_zone}" is not a time zone; choose one like America/Chicago.', "time_zone"
        )
    school(settings.school)


async def heads(scope: Scope) -> list[PoolHead]:
    """The head of every pool, in the order they were made."""
    ids = await scope.tx.journal.pool_ids(scope.workspace_id)
    return [await head(scope, pool_id) for pool_id in ids]


async def head(scope: Scope, pool_id: UUID) -> PoolHead:
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    offered = await offered_plan(scope, state, parts, metric=False)
    limit = parts.settings.swim_limit_mg_l or parts.school.swim_limit_mg_l
    return PoolHead(
        pool_id,
        parts.settings,
        parts.basin,
        parts.equipment,
        swim_answer(state, scope.now, parts.bands[Measure.FREE_CHLORINE], limit),
        next_thing(state, offered, scope.now),
        _notices(parts.settings),
        state.last_test.at if state.last_test else None,
        state.last_look,
        state.looks[-1].at if state.looks else None,
    )


def _notices(settings: SettingsMade) -> tuple[Finding, ...]:
    if not settings.public:
        return ()
    return (
        Finding(
            "public_pool",
            "A public pool falls under the health code and usually needs a certified operator. They decide.",
        ),
    )


async def offered_plan(scope: Scope, state: PoolState, parts: PoolParts, *, metric: bool) -> Plan | None:
    """The plan for the water as it should be now; None before the first test."""
    if state.last_test is None:
        return None
    shelf, _ = await shelf_for(scope)
    found = _plan_for(
        water_now(state, parts.place, scope.now),
        parts.basin.volume_l,
        parts.equipment.traits,
        parts.settings.school,
        parts.equipment.fill_water,
        tuple(shelf),
        metric,
    )
    return replace(found, unmet=worded(found.unmet, too_old(state, scope.now)))


@lru_cache(maxsize=256)
def _plan_for(
    readings: Readings,
    volume_l: float,
    traits: Traits,
    school_key: str,
    fill: Readings,
    shelf: tuple[Product, ...],
    metric: bool,
) -> Plan:
    """The plan is a pure function of these, and head, board and sheet all ask for the same one."""
    aimed = aims(school(school_key), traits, readings, {})
    return plan(readings, volume_l, traits, aimed, shelf, metric=metric, fill=fill)

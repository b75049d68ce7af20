"""Care of a pool: what is due, procedures and their consequences, intervals, events."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date, datetime, timedelta
from math import inf
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import NotFound
from kumpan.core.hazards import cautions_for
from kumpan.core.journal import (
    PoolState,
)
from kumpan.core.maintenance.due import CareInputs, DueItem, Standing, due_list, pressing
from kumpan.core.maintenance.index_history import index_history
from kumpan.core.maintenance.learned import offers
from kumpan.core.maintenance.procedures import (
    PROCEDURES,
    Asks,
    Procedure,
    own_key,
    procedures_for,
    steps_for,
)
from kumpan.core.maintenance.recurrence import local_day, season_months
from kumpan.core.maintenance.tasks import TASKS, Preset, preset_for
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.core.season.saved import closed_for_the_winter, season_due
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.journal.log import said
from kumpan.services.maintenance.views import (
    AskView,
    CalendarDay,
    CareView,
    ProcedureChoice,
    ProcedureView,
    StepView,
    TodayView,
)
from kumpan.services.pools.places import place_of
from kumpan.services.pools.queries import PoolParts, parts_of
from kumpan.services.treatments.at_hand import store

CALENDAR_DAYS = 366


_index = remembered(most=24)(index_history)  # asked with the tests alone; nothing else moves it


def _usual_preset(parts: PoolParts) -> Preset:
    """What fits this pool; one of unknown volume is not taken for a small one."""
    volume_l = inf if parts.basin.volume_is_unknown else parts.basin.volume_l
    return preset_for(parts.settings.profile, parts.equipment.traits, volume_l)


async def care_inputs(scope: Scope, state: PoolState, parts: PoolParts) -> CareInputs:
    """One pool as the schedule sees it, with the labels of the products at hand."""
    settings, traits = parts.settings, parts.equipment.traits
    usual = _usual_preset(parts)
    months = frozenset(settings.season_months) or season_months(place_of(settings)[0])
    return CareInputs(
        state=state,
        traits=traits,
        volume_l=parts.basin.volume_l,
        preset=Preset(settings.care_preset) if settings.care_preset else usual,
        zone=ZoneInfo(settings.time_zone),
        season=frozenset(range(1, 13)) if traits.indoor else months,
        index=_index(state.only("tests")),
        winter_closed=closed_for_the_winter(state, traits),
        labels={
            product.id: product.label_dose
            for product in (await store(scope)).products
            if product.label_dose is not None
        },
    )


def due_items(inputs: CareInputs, now: datetime, ahead_days: int = 0) -> tuple[DueItem, ...]:
    """Everything that has a date: care, tests, conditions, and items of opening and closing lists."""
    season = season_due(inputs.state, inputs.traits, zone=inputs.zone, now=now, ahead_days=ahead_days)
    return tuple(sorted((*due_list(inputs, now, ahead_days=ahead_days), *season), key=pressing))


async def today(scope: Scope, pool_id: UUID) -> TodayView:
    """What is due now and soon, most pressing first; and how many more lie ahead."""
    state = await pool_state(scope, pool_id)
    inputs = await care_inputs(scope, state, parts_of(state))
    items = due_items(inputs, scope.now)
    shown = tuple(item for item in items if item.standing is not Standing.LATER)
    later = [item for item in items if item.standing is Standing.LATER]
    return TodayView(
        local_day(scope.now, inputs.zone), shown, len(later), min((i.due_on for i in later), default=None)
    )


async def care(scope: Scope, pool_id: UUID) -> CareView:
    """Every task with its date and interval, what the log suggests, and the procedures of this pool."""
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    inputs = await care_inputs(scope, state, parts)
    items = due_items(inputs, scope.now)
    usual = {item.task: item.days for item in items if item.days is not None}
    off = {entry.body.task: entry.body.off for entry in state.intervals}
    return CareView(
        items=items,
        offers=offers(state, parts.bands, usual),
        procedures=tuple(ProcedureChoice(row.key, row.title) for row in procedures_for(inputs.traits)),
        off=tuple(
            ProcedureChoice(
                key, TASKS[key].title if key in TASKS else said(key.replace("_", " ").capitalize())
            )
            for key, is_off in off.items()
            if is_off
        ),
        preset=inputs.preset,
        usual_preset=_usual_preset(parts),
        season_months=tuple(sorted(inputs.season)),
        plant=state.plant,
    )


async def calendar_days(scope: Scope, pool_id: UUID, days: int) -> tuple[CalendarDay, ...]:
    """What falls on each day ahead, as if each were done on its day."""
    state = await pool_state(scope, pool_id)
    inputs = await care_inputs(scope, state, parts_of(state))
    found: dict[date, list[DueItem]] = {}
    for item in due_items(inputs, scope.now, min(days, CALENDAR_DAYS)):
        first = max(item.put_off_until or item.due_on, local_day(scope.now, inputs.zone))
        for day in dict.fromkeys((first, *item.ahead)):
            found.setdefault(day, []).append(replace(item, ahead=()))
    until = local_day(scope.now, inputs.zone) + timedelta(days=days)
    return tuple(CalendarDay(day, tuple(found[day])) for day in sorted(found) if day <= until)


async def procedure_view(scope: Scope, pool_id: UUID, key: str, *, units: Units) -> ProcedureView:
    """A procedure as it is done at this pool. Raises NotFound."""
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    found = procedure_of(key, parts)
    inputs = await care_inputs(scope, state, parts)
    steps = tuple(
        StepView(
            text=step.text,
            hazard=step.hazard,
            cautions=cautions_for(step.hazard),
            timer_from_s=step.timer_s[0] if step.timer_s else None,
            timer_to_s=step.timer_s[1] if step.timer_s else None,
            asks=tuple(_ask_view(ask, units) for ask in step.asks),
        )
        for step in steps_for(found, inputs.traits, small=inputs.preset is Preset.SMALL)
    )
    asks_flow = found.wastes_water and state.plant.pump_flow_l_min is None
    flow = (_ask_view(Asks.FLOW_L_MIN, units),) if asks_flow else ()
    return ProcedureView(
        key=found.key,
        title=found.title,
        materials=found.materials,
        steps=steps,
        asks_at_end=flow,
        wastes_water=found.wastes_water,
    )


def procedure_of(key: str, parts: PoolParts) -> Procedure:
    """A procedure by its key. Raises NotFound where this pool has none of that name."""
    key = own_key(key, parts.equipment.traits)
    if key not in PROCEDURES or PROCEDURES[key] not in procedures_for(parts.equipment.traits):
        raise NotFound(Message("There is no such procedure for this pool; choose one from its care."))
    return PROCEDURES[key]


# What is asked for: its label, a hint for US and units, and the choices where it is one of several.
LABELS: Mapping[Asks, tuple[Message, str, str, tuple[str, ...]]] = {
    Asks.PRESSURE_BEFORE_KPA: (Message("Pressure before"), "psi", "bar", ()),
    Asks.PRESSURE_AFTER_KPA: (Message("Pressure after"), "psi", "bar", ()),
    Asks.GAUGE_OFF_KPA: (Message("Gauge with the pump off"), "psi", "bar", ()),
    Asks.WASH_S: (Message("Washed for"), "seconds", "seconds", ()),
    Asks.RINSE_S: (Message("Rinsed for"), "seconds", "seconds", ()),
    Asks.FLOW_L_MIN: (Message("Pump flow"), "gpm", "L/min", ()),
    Asks.SCALE: (Message("Scale"), "", "", ("none", "some", "much")),
    Asks.ACID_WASHES: (Message("Acid bath"), "", "", ("none", "one", "two")),
    Asks.LEVEL: (Message("Level now"), "", "", ("low", "normal", "high")),
}


def _ask_view(ask: Asks, units: Units) -> AskView:
    label, us, si, choices = LABELS[ask]
    return AskView(ask.value, label, si if units is Units.METRIC else us, choices)

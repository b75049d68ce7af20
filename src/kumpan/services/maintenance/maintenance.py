"""Care of a pool: what is due, procedures and their consequences, intervals, events."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date, datetime, timedelta
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput, NotFound, UnreadableQuantity
from kumpan.core.hazards import cautions_for
from kumpan.core.journal import (
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    EventNoted,
    ListItemDone,
    Outcome,
    PlantSet,
    PoolState,
    PressureRead,
    WaterChange,
    WaterChanged,
)
from kumpan.core.maintenance.due import CareInputs, DueItem, Standing, due_list, pressing
from kumpan.core.maintenance.index_history import index_history
from kumpan.core.maintenance.learned import offers
from kumpan.core.maintenance.procedures import (
    PROCEDURES,
    Asks,
    Procedure,
    procedures_for,
    steps_for,
    water_lost_l,
)
from kumpan.core.maintenance.recurrence import local_day, season_months
from kumpan.core.maintenance.tasks import TASKS, Preset, preset_for
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.quantities.typed import Dimension, read_number, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Day, PoolWater
from kumpan.core.season.saved import read_task, season_due
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, Stamp, pool_state, record
from kumpan.services.journal.log import said
from kumpan.services.pools.places import place_of
from kumpan.services.pools.pools import PoolParts, parts_of
from kumpan.services.views import (
    AskView,
    CalendarDay,
    CareView,
    FinishedView,
    ProcedureChoice,
    ProcedureView,
    StepView,
    TodayView,
)
from kumpan.wording.render import render

MOST_PUT_OFF = timedelta(days=366)
CALENDAR_DAYS = 366
SECONDS_MOST = 3600.0


_index = remembered(most=256)(index_history)  # asked with the tests alone; nothing else moves it


def care_inputs(state: PoolState, parts: PoolParts) -> CareInputs:
    """One pool as the schedule sees it."""
    settings, traits = parts.settings, parts.equipment.traits
    usual = preset_for(settings.profile, traits, parts.basin.volume_l)
    months = frozenset(settings.season_months) or season_months(place_of(settings)[0])
    return CareInputs(
        state=state,
        traits=traits,
        volume_l=parts.basin.volume_l,
        preset=Preset(settings.care_preset) if settings.care_preset else usual,
        zone=ZoneInfo(settings.time_zone),
        season=frozenset(range(1, 13)) if traits.indoor else months,
        index=_index(state.only("tests")),
    )


def _due(inputs: CareInputs, now: datetime, ahead_days: int = 0) -> tuple[DueItem, ...]:
    """Everything that has a date: care, tests, conditions, and items of opening and closing lists."""
    season = season_due(inputs.state, inputs.traits, zone=inputs.zone, now=now, ahead_days=ahead_days)
    return tuple(sorted((*due_list(inputs, now, ahead_days=ahead_days), *season), key=pressing))


async def today(scope: Scope, pool_id: UUID) -> TodayView:
    """What is due now and soon, most pressing first; and how many more lie ahead."""
    state = await pool_state(scope, pool_id)
    inputs = care_inputs(state, parts_of(state))
    items = _due(inputs, scope.now)
    shown = tuple(item for item in items if item.standing is not Standing.LATER)
    later = [item for item in items if item.standing is Standing.LATER]
    return TodayView(
        local_day(scope.now, inputs.zone), shown, len(later), min((i.due_on for i in later), default=None)
    )


async def care(scope: Scope, pool_id: UUID) -> CareView:
    """Every task with its date and interval, what the log suggests, and the procedures of this pool."""
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    inputs = care_inputs(state, parts)
    items = _due(inputs, scope.now)
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
        usual_preset=preset_for(parts.settings.profile, inputs.traits, inputs.volume_l),
        season_months=tuple(sorted(inputs.season)),
        plant=state.plant,
    )


async def calendar_days(scope: Scope, pool_id: UUID, days: int) -> tuple[CalendarDay, ...]:
    """What falls on each day ahead, as if each were done on its day."""
    state = await pool_state(scope, pool_id)
    inputs = care_inputs(state, parts_of(state))
    found: dict[date, list[DueItem]] = {}
    for item in _due(inputs, scope.now, min(days, CALENDAR_DAYS)):
        first = max(item.put_off_until or item.due_on, local_day(scope.now, inputs.zone))
        for day in dict.fromkeys((first, *item.ahead)):
            found.setdefault(day, []).append(replace(item, ahead=()))
    until = local_day(scope.now, inputs.zone) + timedelta(days=days)
    return tuple(CalendarDay(day, tuple(found[day])) for day in sorted(found) if day <= until)


async def procedure_view(scope: Scope, pool_id: UUID, key: str, *, units: Units) -> ProcedureView:
    """A procedure as it is done at this pool. Raises NotFound."""
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    found = _procedure(key, parts)
    inputs = care_inputs(state, parts)
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


def _procedure(key: str, parts: PoolParts) -> Procedure:
    if key not in PROCEDURES or PROCEDURES[key] not in procedures_for(parts.equipment.traits):
        raise NotFound(Message("There is no such procedure for this pool; choose one from its care."))
    return PROCEDURES[key]


# What is asked for: its label, a hint for US and units, and the choices where it is one of several.
_LABELS: Mapping[Asks, tuple[Message, str, str, tuple[str, ...]]] = {
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
    label, us, si, choices = _LABELS[ask]
    return AskView(ask.value, label, si if units is Units.METRIC else us, choices)


async def finish(
    scope: Scope,
    pool_id: UUID,
    stamp: Stamp,
    key: str,
    typed: Mapping[str, str],
    note: str,
    *,
    units: Units,
) -> FinishedView:
    """Write what a procedure led to: care done, dates moved, water lost. The same id again changes nothing.

    Raises NotFound, InvalidInput for a value that is not asked here, UnreadableQuantity.
    """
    state = await pool_state(scope, pool_id)
    parts = parts_of(state)
    found = _procedure(key, parts)
    values = tuple(_value(name, text, units) for name, text in typed.items() if text.strip())
    by_name = {value.name: value.value for value in values}
    tasks = found.tasks or (found.key,)
    for n, task in enumerate(tasks):
        id_ = stamp.id if n == 0 else uuid5(stamp.id, task)
        body = CareDone(task, values if n == 0 else (), note.strip() if n == 0 else "")
        await record(scope, pool_id, replace(stamp, id=id_), body)
    lost = await _lose_water(scope, pool_id, stamp=stamp, found=found, state=state, values=by_name)
    days = {
        item.task: item.due_on
        for item in due_list(care_inputs(await pool_state(scope, pool_id), parts), scope.now)
    }
    titles = tuple(
        Message("{task}: next {day}", task=TASKS[task].title, day=Day(days[task]))
        for task in tasks
        if task in TASKS and task in days
    )
    water = (
        NOTHING
        if lost is None
        else Message("{lost} went to waste; the water is reckoned as diluted.", lost=PoolWater(lost))
    )
    return FinishedView(stamp.id, titles, water)


async def _lose_water(
    scope: Scope,
    pool_id: UUID,
    stamp: Stamp,
    found: Procedure,
    state: PoolState,
    values: Mapping[str, float],
) -> float | None:
    """A backwash takes water with it: flow times time, made up from the hose."""
    flow = values.get(Asks.FLOW_L_MIN, state.plant.pump_flow_l_min or 0.0)
    seconds = [values.get(Asks.WASH_S, 0.0), values.get(Asks.RINSE_S, 0.0)]
    if not found.wastes_water or flow <= 0 or sum(seconds) <= 0:
        return None
    liters = water_lost_l(flow, *seconds)
    body = WaterChanged(kind=WaterChange.BACKWASH, volume_l=liters, note=render(found.title))
    await record(scope, pool_id, replace(stamp, id=uuid5(stamp.id, "water")), body)
    return liters


def _value(name: str, text: str, units: Units) -> CareValue:
    try:
        ask = Asks(name)
    except ValueError:
        known = ", ".join(Asks)
        raise InvalidInput(
            Message(
                '"{name}" is not asked for here; use one of: {known}.',
                name=Verbatim(name),
                known=Verbatim(known),
            ),
            name,
        ) from None
    choices = _LABELS[ask][3]
    try:
        return CareValue(name, _number(ask, text.strip(), choices, units))
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, name) from trouble


def _number(ask: Asks, text: str, choices: tuple[str, ...], units: Units) -> float:
    if choices:
        if text not in choices:
            raise UnreadableQuantity(
                Message(
                    '"{text}" is not one of: {known}.',
                    text=Verbatim(text),
                    known=Verbatim(", ".join(choices)),
                )
            )
        return float(choices.index(text))
    if ask.value.endswith("_kpa"):
        value = read_quantity(text, Dimension.PRESSURE, "bar" if units is Units.METRIC else "psi").value
        most = 700.0
    elif ask is Asks.FLOW_L_MIN:
        value = read_quantity(text, Dimension.FLOW, "l/min" if units is Units.METRIC else "gpm").value
        most = 5000.0
    else:
        value, most = read_number(text.removesuffix("s").strip()), SECONDS_MOST
    if not 0 <= value <= most:
        raise UnreadableQuantity(
            Message('"{text}" is more than can be; check the number and its unit.', text=Verbatim(text))
        )
    return value


async def put_off(
    scope: Scope, pool_id: UUID, stamp: Stamp, task: str, until: date | None, reason: str
) -> None:
    """Put a task off to a day, or leave it out this time with a reason. Raises InvalidInput."""
    state = await pool_state(scope, pool_id)
    inputs = care_inputs(state, parts_of(state))
    _must_be_listed(task, inputs, scope.now)
    today_ = local_day(scope.now, inputs.zone)
    if until is None and not reason.strip():
        raise InvalidInput(Message("Say why it is left out this time; the log keeps it."), "reason")
    if until is not None and not today_ < until <= today_ + MOST_PUT_OFF:
        raise InvalidInput(Message("Choose a day after today, at most a year ahead."), "until")
    of_a_list = read_task(task)
    if of_a_list is not None and until is None:
        await record(scope, pool_id, stamp, ListItemDone(*of_a_list, Outcome.SKIPPED, reason.strip()))
        return
    await record(scope, pool_id, stamp, CarePutOff(task, until, reason.strip()))


async def set_interval(
    scope: Scope, pool_id: UUID, stamp: Stamp, task: str, days: float | None, *, off: bool
) -> None:
    """The user's own interval, the preset's again, or off the list. Raises InvalidInput."""
    state = await pool_state(scope, pool_id)
    inputs = care_inputs(state, parts_of(state))
    known = {entry.body.task for entry in state.intervals}
    if task not in known:
        _must_be_listed(task, inputs, scope.now)
    await record(scope, pool_id, stamp, CareInterval(task, days, off))


async def done(scope: Scope, pool_id: UUID, stamp: Stamp, task: str, note: str) -> None:
    """A task that was done without its procedure, or by somebody else. Raises InvalidInput."""
    state = await pool_state(scope, pool_id)
    _must_be_listed(task, care_inputs(state, parts_of(state)), scope.now)
    of_a_list = read_task(task)
    if of_a_list is not None:
        await record(scope, pool_id, stamp, ListItemDone(*of_a_list, Outcome.DONE, note.strip()))
        return
    await record(scope, pool_id, stamp, CareDone(task, (), note.strip()))


def _must_be_listed(task: str, inputs: CareInputs, now: datetime) -> None:
    if task not in {item.task for item in _due(inputs, now)}:
        raise InvalidInput(
            Message('"{task}" is not on this pool\'s list; reload it.', task=Verbatim(task)), "task"
        )


async def note_event(scope: Scope, pool_id: UUID, stamp: Stamp, event: EventNoted) -> None:
    """Note something that happened."""
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, event)


async def note_pressure(scope: Scope, pool_id: UUID, stamp: Stamp, text: str, *, units: Units) -> None:
    """The gauge as read. Raises UnreadableQuantity."""
    await pool_state(scope, pool_id)
    value = _value(Asks.PRESSURE_BEFORE_KPA, text, units)
    await record(scope, pool_id, stamp, PressureRead(value.value))


async def set_plant(scope: Scope, pool_id: UUID, stamp: Stamp, plant: PlantSet) -> None:
    """Say what pump, filter and cell are like."""
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, plant)

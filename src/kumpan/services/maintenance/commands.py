"""What is told of care: done, put off, measured, set."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta
from types import MappingProxyType
from uuid import UUID, uuid5

from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.journal import (
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    EventNoted,
    ListItemDone,
    MachineSet,
    Outcome,
    OwnTask,
    PartReplaced,
    PlantSet,
    PoolState,
    PressureRead,
    WaterChange,
    WaterChanged,
)
from kumpan.core.maintenance.done_elsewhere import LIST_ITEMS
from kumpan.core.maintenance.due import CareInputs, chemical_of_regime, due_list
from kumpan.core.maintenance.own_tasks import checked, own_key
from kumpan.core.maintenance.procedures import PROCEDURES, Asks, Procedure
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.maintenance.tasks import TASKS, Preset
from kumpan.core.maintenance.water_lost import WaterLost, water_lost
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.quantities.typed import Dimension, read_number, read_quantity
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Day, PoolWater
from kumpan.core.season.saved import read_task
from kumpan.services.journal.ledger import Scope, Stamp, pool_state, record, water_of
from kumpan.services.maintenance.queries import LABELS, care_inputs, due_items, procedure_of
from kumpan.services.maintenance.views import FinishedView
from kumpan.services.pools.queries import parts_of
from kumpan.wording.render import render

MOST_PUT_OFF = timedelta(days=366)
NOTHING_NOTED: Mapping[str, float] = MappingProxyType({})


SECONDS_MOST = 3600.0


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
    found = procedure_of(key, parts)
    values = tuple(_value(name, text, units) for name, text in typed.items() if text.strip())
    by_name = {value.name: value.value for value in values}
    tasks = found.tasks or (found.key,)
    for n, task in enumerate(tasks):
        id_ = stamp.id if n == 0 else uuid5(stamp.id, task)
        body = CareDone(task, values if n == 0 else (), note.strip() if n == 0 else "")
        await record(scope, pool_id, replace(stamp, id=id_), body)
    lost = await lose_water(scope, stamp, found, state, values=by_name)
    days = {
        item.task: item.due_on
        for item in due_list(await care_inputs(scope, await pool_state(scope, pool_id), parts), scope.now)
    }
    titles = tuple(
        Message("{task}: next {day}", task=TASKS[task].title, day=Day(days[task]))
        for task in tasks
        if task in TASKS and task in days
    )
    return FinishedView(stamp.id, titles, _water_text(lost))


async def lose_water(
    scope: Scope,
    stamp: Stamp,
    procedure: Procedure,
    state: PoolState,
    *,
    values: Mapping[str, float] = NOTHING_NOTED,
) -> WaterLost | None:
    """A backwash takes water with it, made up from the hose: as noted, else as estimated."""
    parts = parts_of(state)
    inputs = await care_inputs(scope, state, parts)
    lost = water_lost(
        procedure,
        inputs.traits,
        state.plant,
        pool_l=None if parts.basin.volume_is_unknown else parts.basin.volume_l,
        small=inputs.preset is Preset.SMALL,
        values=values,
    )
    if lost is not None:
        body = WaterChanged(kind=WaterChange.BACKWASH, volume_l=lost.volume_l, note=render(procedure.title))
        await record(scope, state.pool_id, replace(stamp, id=water_of(stamp.id)), body)
    return lost


async def lose_water_by(scope: Scope, stamp: Stamp, state: PoolState, tasks: Sequence[str]) -> None:
    """What care that was only ticked sends to waste, as estimated: on the list, a sheet, an opening."""
    for task in tasks:
        procedure = PROCEDURES.get(TASKS[task].procedure or "") if task in TASKS else None
        if procedure is not None:
            await lose_water(scope, stamp, procedure, state)


def _water_text(lost: WaterLost | None) -> Message:
    if lost is None:
        return NOTHING
    water = PoolWater(lost.volume_l)
    if lost.estimated_by is NOTHING:
        return Message("{lost} went to waste; the water is computed as diluted.", lost=water)
    return Message(
        "About {lost} went to waste, estimated by {by}; the water is computed as diluted. Note the pump's "
        "flow under Equipment and the time of the wash for a better figure.",
        lost=water,
        by=lost.estimated_by,
    )


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
    choices = LABELS[ask][3]
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
    inputs = await care_inputs(scope, state, parts_of(state))
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
    inputs = await care_inputs(scope, state, parts_of(state))
    known = {entry.body.task for entry in state.intervals}
    if task not in known and chemical_of_regime(task) is None:
        _must_be_listed(task, inputs, scope.now)
    await record(scope, pool_id, stamp, CareInterval(task, days, off))


async def set_machine(scope: Scope, pool_id: UUID, stamp: Stamp, machine: MachineSet) -> None:
    """A machine of the pool, as it is from now on."""
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, machine)


async def replace_part(scope: Scope, pool_id: UUID, stamp: Stamp, part: PartReplaced) -> None:
    """A part that was replaced. Raises InvalidInput for a machine that is not there."""
    state = await pool_state(scope, pool_id)
    if part.machine_id is not None and part.machine_id not in {e.body.machine_id for e in state.machines}:
        raise InvalidInput(Message("There is no such machine at this pool; reload the page."), "machine_id")
    await record(scope, pool_id, stamp, part)


async def set_own_task(scope: Scope, pools: Sequence[UUID], stamp: Stamp, task: OwnTask) -> str:
    """Add a task of one's own to the care of each of these pools, or change it there; its key.

    Raises InvalidInput, NotFound for a pool that is not here.
    """
    named = checked(replace(task, task=own_key(task.title), title=task.title.strip()))
    for n, pool_id in enumerate(dict.fromkeys(pools)):
        await pool_state(scope, pool_id)
        await record(
            scope, pool_id, replace(stamp, id=stamp.id if n == 0 else uuid5(stamp.id, str(n))), named
        )
    return named.task


async def done(scope: Scope, pool_id: UUID, stamp: Stamp, task: str, note: str) -> None:
    """A task that was done without its procedure, or by somebody else; what it sends to waste is estimated.

    Raises InvalidInput.
    """
    state = await pool_state(scope, pool_id)
    if await scope.tx.journal.entry(stamp.id) is None:  # what is sent again may stand on no list any more
        _must_be_listed(task, await care_inputs(scope, state, parts_of(state)), scope.now)
    of_a_list = read_task(task)
    if of_a_list is not None:
        await record(scope, pool_id, stamp, ListItemDone(*of_a_list, Outcome.DONE, note.strip()))
        await lose_water_by(scope, stamp, state, LIST_ITEMS.get(of_a_list[1], ()))
        return
    await record(scope, pool_id, stamp, CareDone(task, (), note.strip()))
    await lose_water_by(scope, stamp, state, (task,))


def _must_be_listed(task: str, inputs: CareInputs, now: datetime) -> None:
    if task not in {item.task for item in due_items(inputs, now)}:
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
    try:
        value = _value(Asks.PRESSURE_BEFORE_KPA, text, units)
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, "pressure") from trouble
    await record(scope, pool_id, stamp, PressureRead(value.value))


async def set_plant(scope: Scope, pool_id: UUID, stamp: Stamp, plant: PlantSet) -> None:
    """Say what pump, filter and cell are like."""
    await pool_state(scope, pool_id)
    await record(scope, pool_id, stamp, plant)

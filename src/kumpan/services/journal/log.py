"""The log: every entry in words, with who and when; what was corrected or taken back stays visible."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Any
from uuid import UUID

from kumpan.core.algae.severity import SEVERITIES
from kumpan.core.journal import (
    AdditionMade,
    BasinMeasured,
    Body,
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    CellSet,
    Clarity,
    ClimateSet,
    DeviceChanged,
    DeviceDay,
    DeviceLinked,
    Entry,
    EquipmentSet,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    Level,
    ListItemDone,
    MachineSet,
    NotedEvent,
    NotUnderstood,
    Outcome,
    OwnTask,
    PartReplaced,
    PhotoTaken,
    PlantSet,
    PreferencesSet,
    PressureRead,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    RescueEnded,
    RescueOutcome,
    RescueSet,
    RoundSet,
    SeasonListSaved,
    SettingsMade,
    StepDone,
    StopMoved,
    StrengthTested,
    SwimmersCounted,
    TechnicianAway,
    TestTaken,
    TreatmentStarted,
    TruckCounted,
    VisitBegun,
    VisitDone,
    VisualCheck,
    Voided,
    WaterChange,
    WaterChanged,
    Which,
    WorkOnce,
    can_change,
    in_order,
    kind_of,
)
from kumpan.core.maintenance.circulation import hours_a_day
from kumpan.core.maintenance.due import chemical_of_regime
from kumpan.core.maintenance.fault_tree import ENDS
from kumpan.core.maintenance.machines import title_of
from kumpan.core.maintenance.own_tasks import words_of_own
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.messages import NOTHING, Cased, Message, Value, Verbatim, joined
from kumpan.core.pool.equipment import CHLORINATIONS, FILTERS, SURFACES
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import (
    CellOutput,
    DateForm,
    Day,
    Flow,
    Number,
    PoolWater,
    Pressure,
    Rain,
    Temperature,
)
from kumpan.core.ranges.profiles import profile
from kumpan.core.season.materials import PREFIX as MATERIAL
from kumpan.services.journal import log_equipment, log_workspace
from kumpan.services.journal.ledger import Scope, pool_entries, pool_rows
from kumpan.services.journal.log_workspace import Told
from kumpan.services.journal.views import LogLine
from kumpan.services.products.queries import amount_text


async def log(scope: Scope, pool_id: UUID) -> list[LogLine]:
    """The pool's entries, newest first, superseded ones included."""
    entries = await pool_entries(scope, pool_id)
    by_id = {entry.id: entry for entry in entries}
    replaced = {entry.supersedes: entry for entry in entries if entry.supersedes is not None}
    whose = {row.id: row.workspace_id for row in await pool_rows(scope, pool_id)}
    others = await scope.tx.shares.workspace_names(set(whose.values()) - {scope.workspace_id})
    people = await scope.tx.shares.people_names({e.person_id for e in entries if e.person_id is not None})
    lines = [_line(entry, replaced.get(entry.id), by_id) for entry in in_order(entries)]
    return [_signed(line, people, others.get(whose[line.id], "")) for line in lines[::-1]]


def _signed(line: LogLine, people: Mapping[UUID, str], others: str) -> LogLine:
    """With who wrote it; what another workspace wrote is theirs to correct."""
    by = people.get(line.person_id, "") if line.person_id is not None else ""
    return replace(line, by=by, workspace=others, can_change=line.can_change and not others)


def _line(entry: Entry, replaced_by: Entry | None, by_id: dict[UUID, Entry]) -> LogLine:
    title, detail = describe(entry.body)
    if isinstance(entry.body, Voided) and entry.supersedes in by_id:
        title = Message("Taken back: {entry}", entry=Cased(describe(by_id[entry.supersedes].body)[0]))
    return LogLine(
        id=entry.id,
        kind=kind_of(entry.body),
        at=entry.at,
        recorded_at=entry.recorded_at,
        person_id=entry.person_id,
        title=title,
        detail=detail,
        supersedes=entry.supersedes,
        replaced_by=replaced_by.id if replaced_by else None,
        taken_back=replaced_by is not None and isinstance(replaced_by.body, Voided),
        can_change=replaced_by is None and can_change(entry.body),
        fields=_typed(entry.body),
    )


def _typed(body: Body) -> dict[Measure, str]:
    """A test's fields as they were typed, so that a correction starts from them."""
    return {v.measure: v.typed or f"{v.value:g}" for v in body.values} if isinstance(body, TestTaken) else {}


def describe(body: Body) -> Told:
    """Title and detail of a body."""
    return _WORDS[type(body)](body)


def value_message(measure: Measure, value: float) -> Message:
    """A measure with its value, as it stands in a sentence."""
    if measure is Measure.TEMPERATURE:
        return Message("{value}", value=Temperature(value))
    return Message("{measure} {value}", measure=name_in_sentence(measure), value=Number(value))


def parts(items: Iterable[Value], note: str = "") -> Message:
    """Parts of a line one after the other, a person's note at its end."""
    row = joined(items)
    if not note:
        return Message("{parts}", parts=row) if row.items else NOTHING
    return Message("{parts}. {note}", parts=row, note=Verbatim(note))


def said(text: str) -> Message:
    """A person's own words."""
    return Message("{text}", text=Verbatim(text)) if text else NOTHING


def _test(body: TestTaken) -> Told:
    return Message("Test"), parts((value_message(v.measure, v.value) for v in body.values), body.note)


CLARITIES = {
    Clarity.CLEAR: Message("clear"),
    Clarity.HAZY: Message("hazy"),
    Clarity.CLOUDY: Message("cloudy"),
    Clarity.DRAIN_HIDDEN: Message("drain hidden"),
    Clarity.GREEN: Message("green"),
}
LEVELS = {
    Level.LOW: Message("level low"),
    Level.NORMAL: Message("level normal"),
    Level.HIGH: Message("level high"),
}


def _visual_check(body: VisualCheck) -> Told:
    seen: list[Value] = [CLARITIES[body.clarity], LEVELS[body.level], *(Verbatim(odd) for odd in body.odd)]
    return Message("Look"), parts(seen, body.note)


def _addition(body: AdditionMade) -> Told:
    product = Product("", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml)
    return Message("Added {product}", product=Verbatim(body.label)), amount_text(product, body.mass_g)


WATER_CHANGES = {
    WaterChange.BACKWASH: Message("Backwash"),
    WaterChange.REFILL: Message("Refill"),
    WaterChange.RAIN: Message("Rain ran over"),
    WaterChange.DRAIN: Message("Drained and refilled"),
}


def _water(body: WaterChanged) -> Told:
    return WATER_CHANGES[body.kind], parts([PoolWater(body.volume_l)], body.note)


def _cell(body: CellSet) -> Told:
    return Message("Cell set"), Message(
        "{percent} %, {hours} h a day, {output} at 100 %",
        percent=Number(body.percent),
        hours=Number(body.hours_per_day),
        output=CellOutput(body.output_g_per_h),
    )


def _swimmers(body: SwimmersCounted) -> Told:
    return Message("Swimmers"), Message("{hours} swimmer-hours", hours=Number(body.bather_hours))


def _treatment(body: TreatmentStarted) -> Told:
    added = [
        Message("{product} {amount}", product=step.title, amount=step.rounded_text or NOTHING)
        for step in body.steps
        if step.kind == "add"
    ]
    return Message("Plan started"), Message("{added}", added=joined(added, "; ")) if added else NOTHING


_STEPS = {Outcome.DONE: Message("Step done"), Outcome.SKIPPED: Message("Step skipped")}


def _step(body: StepDone) -> Told:
    which = Message("step {number} of the plan", number=Number(body.step_number + 1))
    return _STEPS[body.outcome], parts([which], body.note)


def _basin(body: BasinMeasured) -> Told:
    volume = PoolWater(body.volume_l)
    if body.parts:
        return Message("Volume"), Message("{volume}, from its dimensions", volume=volume)
    return Message("Volume"), Message("{volume}, as typed", volume=volume)


def _equipment(body: EquipmentSet) -> Told:
    traits = body.traits
    words: list[Value] = [
        SURFACES[traits.surface],
        CHLORINATIONS[traits.chlorination],
        FILTERS[traits.filter],
    ]
    if traits.indoor:
        words.append(Message("indoor"))
    return Message("Equipment"), parts(words)


def _settings(body: SettingsMade) -> Told:
    return Message("Settings"), Message(
        "{name}, {place}, {profile} ranges",
        name=Verbatim(body.name),
        place=Verbatim(body.place),
        profile=Cased(profile(body.profile).name),
    )


def _preferences(body: PreferencesSet) -> Told:
    return Message("Measures and money"), parts(Verbatim(box.name) for box in body.containers)


def _visit(body: VisitDone) -> Told:
    trade = Message("for a licensed trade: {trade}", trade=Verbatim(body.trade)) if body.trade else NOTHING
    come_back = Message("come back") if body.needs_return else NOTHING
    internal = (
        Message("internal: {note}", note=Verbatim(body.internal_note)) if body.internal_note else NOTHING
    )
    row = joined([come_back, trade, said(body.note), internal], "; ")
    return Message("Visit done"), Message("{parts}", parts=row) if row.items else NOTHING


EVENTS = {
    NotedEvent.STORM: Message("Storm"),
    NotedEvent.HEAVY_USE: Message("Heavy use"),
    NotedEvent.HOT_SPELL: Message("Hot spell"),
    NotedEvent.LEAVES: Message("Leaves"),
    NotedEvent.PLASTERED: Message("Newly plastered"),
    NotedEvent.FILLED: Message("Filled with fresh water"),
    NotedEvent.FLOOD: Message("Flood"),
    NotedEvent.POWER_CUT: Message("Power cut"),
    NotedEvent.COVER_ON: Message("Cover on"),
    NotedEvent.COVER_OFF: Message("Cover off"),
    NotedEvent.NOTE: Message("Note"),
}


def _event(body: EventNoted) -> Told:
    return EVENTS[body.kind], said(body.note)


def _pressure(body: PressureRead) -> Told:
    return Message("Filter pressure"), Message("{pressure}", pressure=Pressure(body.pressure_kpa))


def _plant(body: PlantSet) -> Told:
    flow = NOTHING if body.pump_flow_l_min is None else Flow(body.pump_flow_l_min)
    hours = hours_a_day(body.windows)
    a_day = Message("{hours} h a day", hours=Number(hours)) if body.windows else NOTHING
    return Message("Pump, filter and cell"), parts([flow, a_day])


def _care(body: CareDone) -> Told:
    return Message("Done: {task}", task=Cased(task_title(body.task))), parts(
        (_care_value(value) for value in body.values), body.note
    )


def _care_value(value: CareValue) -> Message:
    name = value.name.removesuffix("_kpa").removesuffix("_l_min").removesuffix("_s").replace("_", " ")
    amount: Value = Number(value.value)
    if value.name.endswith("_kpa"):
        amount = Pressure(value.value)
    elif value.name.endswith("_l_min"):
        amount = Flow(value.value)
    elif value.name.endswith("_s"):
        amount = Message("{seconds} s", seconds=Number(value.value))
    return Message("{name} {amount}", name=Verbatim(name), amount=amount)


def _put_off(body: CarePutOff) -> Told:
    task = Cased(task_title(body.task))
    if body.until is None:
        return Message("Left out: {task}", task=task), said(body.reason)
    return Message("Put off: {task}", task=task), parts(
        [Message("to {day}", day=Day(body.until))], body.reason
    )


def _interval(body: CareInterval) -> Told:
    if body.off:
        how = Message("off the list")
    elif body.days is None:
        how = Message("as usual")
    else:
        how = Message("every day") if body.days == 1 else Message("every {days} days", days=Number(body.days))
    return Message("Interval set"), parts([Cased(task_title(body.task)), how])


def _interview(body: InterviewHeld) -> Told:
    return Message("Fault looked for"), ENDS[body.outcome].title if body.outcome in ENDS else said(
        body.outcome
    )


def _feed(body: FeedOpened) -> Told:  # noqa: ARG001
    return Message("Calendar feed opened"), NOTHING


def _device(body: DeviceLinked) -> Told:
    return (Message("Device linked") if body.address else Message("Device unlinked")), said(body.device)


def _device_day(body: DeviceDay) -> Told:
    row: list[Value] = []
    if body.salinity_mg_l is not None:
        row.append(Message("salt by the unit {salt}", salt=Number(body.salinity_mg_l, digits=0)))
    if body.water_c is not None:
        row.append(Message("water {temperature}", temperature=Temperature(body.water_c)))
    if body.pressure_kpa is not None:
        row.append(Pressure(body.pressure_kpa))
    if body.rain_mm:
        row.append(Message("rain {rain}", rain=Rain(body.rain_mm)))
    return Message("The {device}'s day", device=Verbatim(body.device)), parts(row)


def _device_change(body: DeviceChanged) -> Told:
    return Message("The {device}: {what}", device=Verbatim(body.device), what=Verbatim(body.what)), Message(
        "{before} to {after}", before=Verbatim(body.before), after=Verbatim(body.after)
    )


def _rescue(body: RescueSet) -> Told:
    how = Message("shock by stabilizer") if body.by_ratio else Message("shock to 10")
    return Message("Rescue set: {severity}", severity=Cased(SEVERITIES[body.severity].name)), how


_RESCUE_ENDS = {
    RescueOutcome.CLEAR: Message("Rescue ended: clear"),
    RescueOutcome.DRAINED: Message("Rescue ended: drained"),
    RescueOutcome.STOPPED: Message("Rescue ended: stopped"),
}


def _rescue_end(body: RescueEnded) -> Told:
    return _RESCUE_ENDS[body.outcome], said(body.note)


_PLANNED = {Which.OPENING: Message("Opening planned"), Which.CLOSING: Message("Closing planned")}
_DROPPED = {Which.OPENING: Message("Opening taken off"), Which.CLOSING: Message("Closing taken off")}


def _season_list(body: SeasonListSaved) -> Told:
    title = (_DROPPED if body.dropped else _PLANNED)[body.which]
    return title, Message("for {day}", day=Day(body.day, DateForm.DAY_AND_YEAR))


_ITEMS = {Outcome.DONE: "{item}: done", Outcome.SKIPPED: "{item}: skipped"}


def _list_item(body: ListItemDone) -> Told:
    if body.item.startswith(MATERIAL):
        thing = Verbatim(body.item.removeprefix(MATERIAL))
        return Message("At hand: {thing}", thing=thing), parts(
            [Message("for the opening or closing list")], body.note
        )
    what = Verbatim(body.item.replace("_", " ").capitalize())
    return Message(_ITEMS[body.outcome], item=what), parts(
        [Message("of the opening or closing list")], body.note
    )


def _climate(body: ClimateSet) -> Told:
    low, high = Temperature(min(body.monthly_c)), Temperature(max(body.monthly_c))
    return Message("Water's climate set"), Message("{low} to {high}", low=low, high=high)


def task_title(key: str) -> Message:
    """What a task, a procedure or an item of a list is called."""
    if key in TASKS:
        return TASKS[key].title
    chemical = chemical_of_regime(key)
    if chemical is not None:
        return Message("{name}, the week's share", name=Verbatim(CATALOGUE[chemical].name))
    machine = title_of(key)
    if machine is not None:
        return machine
    return PROCEDURES[key].title if key in PROCEDURES else said(words_of_own(key))


def _void(body: Voided) -> Told:
    return Message("Taken back"), said(body.reason)


def _not_understood(body: NotUnderstood) -> Told:
    kind = Verbatim(body.kind.replace("_", " "))
    return Message("Not understood by this version: {kind}", kind=kind), said(body.why)


_WORDS: dict[type, Callable[[Any], Told]] = {
    TestTaken: _test,
    VisualCheck: _visual_check,
    AdditionMade: _addition,
    WaterChanged: _water,
    CellSet: _cell,
    SwimmersCounted: _swimmers,
    TreatmentStarted: _treatment,
    StepDone: _step,
    BasinMeasured: _basin,
    EquipmentSet: _equipment,
    SettingsMade: _settings,
    ProductBought: log_workspace.purchase,
    ProductPlaced: log_workspace.placed,
    ProductCounted: log_workspace.counted,
    StrengthTested: log_workspace.strength,
    PreferencesSet: _preferences,
    RoundSet: log_workspace.round_set,
    TechnicianAway: log_workspace.away,
    WorkOnce: log_workspace.once,
    StopMoved: log_workspace.stop_moved,
    TruckCounted: log_workspace.truck,
    VisitBegun: log_workspace.visit_begun,
    VisitDone: _visit,
    EventNoted: _event,
    PressureRead: _pressure,
    PlantSet: _plant,
    CareDone: _care,
    CarePutOff: _put_off,
    CareInterval: _interval,
    OwnTask: log_equipment.own_task,
    MachineSet: log_equipment.machine,
    PartReplaced: log_equipment.part,
    PhotoTaken: log_equipment.photo,
    InterviewHeld: _interview,
    FeedOpened: _feed,
    DeviceLinked: _device,
    DeviceDay: _device_day,
    DeviceChanged: _device_change,
    RescueSet: _rescue,
    RescueEnded: _rescue_end,
    SeasonListSaved: _season_list,
    ListItemDone: _list_item,
    ClimateSet: _climate,
    Voided: _void,
    NotUnderstood: _not_understood,
}

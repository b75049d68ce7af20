"""The log: every entry in words, with who and when; what was corrected or taken back stays visible."""

from collections.abc import Callable
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
    ClimateSet,
    DeviceChanged,
    DeviceDay,
    DeviceLinked,
    Entry,
    EquipmentSet,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    ListItemDone,
    NotUnderstood,
    PlantSet,
    PreferencesSet,
    PressureRead,
    ProductBought,
    RescueEnded,
    RescueSet,
    RoundSet,
    SeasonListSaved,
    SettingsMade,
    StepDone,
    StrengthTested,
    SwimmersCounted,
    TestTaken,
    TreatmentStarted,
    TruckCounted,
    VisitDone,
    VisualCheck,
    Voided,
    WaterChange,
    WaterChanged,
    can_change,
    in_order,
    kind_of,
)
from kumpan.core.maintenance.circulation import hours_a_day
from kumpan.core.maintenance.fault_tree import ENDS
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import (
    G_PER_LB,
    fahrenheit_from_celsius,
    flow_text,
    pressure_text,
    water_text,
)
from kumpan.core.season.materials import PREFIX as MATERIAL
from kumpan.services.journal.ledger import Scope, pool_entries
from kumpan.services.products.inventory import amount_text
from kumpan.services.views import LogLine


async def log(scope: Scope, pool_id: UUID, *, metric: bool) -> list[LogLine]:
    """The pool's entries, newest first, superseded ones included."""
    entries = await pool_entries(scope, pool_id)
    by_id = {entry.id: entry for entry in entries}
    replaced = {entry.supersedes: entry for entry in entries if entry.supersedes is not None}
    lines = [_line(entry, replaced.get(entry.id), by_id, metric) for entry in in_order(entries)]
    return lines[::-1]


def _line(entry: Entry, replaced_by: Entry | None, by_id: dict[UUID, Entry], metric: bool) -> LogLine:
    title, detail = describe(entry.body, metric)
    if isinstance(entry.body, Voided) and entry.supersedes in by_id:
        title = f"Taken back: {describe(by_id[entry.supersedes].body, metric)[0].lower()}"
    return LogLine(
        entry.id,
        kind_of(entry.body),
        entry.at,
        entry.recorded_at,
        entry.person_id,
        title,
        detail,
        entry.supersedes,
        replaced_by.id if replaced_by else None,
        replaced_by is not None and isinstance(replaced_by.body, Voided),
        replaced_by is None and can_change(entry.body),
        _typed(entry.body),
    )


def _typed(body: Body) -> dict[Measure, str]:
    """A test's fields as they were typed, so that a correction starts from them."""
    return {v.measure: v.typed or f"{v.value:g}" for v in body.values} if isinstance(body, TestTaken) else {}


def describe(body: Body, metric: bool) -> tuple[str, str]:
    """Title and detail of a body, in words."""
    return _WORDS[type(body)](body, metric)


def _test(body: TestTaken, metric: bool) -> tuple[str, str]:
    return "Test", ", ".join(value_text(v.measure, v.value, metric) for v in body.values) + _note(body.note)


def value_text(measure: Measure, value: float, metric: bool) -> str:
    """A measure with its value, as it stands in a sentence."""
    if measure is Measure.TEMPERATURE:
        return f"{value:.0f} °C" if metric else f"{fahrenheit_from_celsius(value):.0f} °F"
    return f"{name_in_sentence(measure)} {value:g}"


def _visual_check(body: VisualCheck, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    seen = [body.clarity.value.replace("_", " "), f"level {body.level.value}", *body.odd]
    return "Look", ", ".join(seen) + _note(body.note)


def _addition(body: AdditionMade, metric: bool) -> tuple[str, str]:
    product = Product("", body.chemical, body.strength_percent, density_g_per_ml=body.density_g_per_ml)
    return f"Added {body.label}", amount_text(product, body.mass_g, metric)


def _water(body: WaterChanged, metric: bool) -> tuple[str, str]:
    how = {
        WaterChange.BACKWASH: "Backwash",
        WaterChange.REFILL: "Refill",
        WaterChange.RAIN: "Rain ran over",
        WaterChange.DRAIN: "Drained and refilled",
    }[body.kind]
    return how, water_text(body.volume_l, metric) + _note(body.note)


def _cell(body: CellSet, metric: bool) -> tuple[str, str]:
    output = f"{body.output_g_per_h:g} g/h" if metric else f"{body.output_g_per_h * 24 / G_PER_LB:.2f} lb/day"
    return "Cell set", f"{body.percent:g} %, {body.hours_per_day:g} h a day, {output} at 100 %"


def _swimmers(body: SwimmersCounted, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Swimmers", f"{body.bather_hours:g} swimmer-hours"


def _treatment(body: TreatmentStarted, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    added = [f"{step.title} {step.rounded_text}" for step in body.steps if step.kind == "add"]
    return "Sheet started", "; ".join(added)


def _step(body: StepDone, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return f"Step {body.outcome.value}", f"step {body.step_number + 1} of the sheet" + _note(body.note)


def _basin(body: BasinMeasured, metric: bool) -> tuple[str, str]:
    volume = water_text(body.volume_l, metric)
    how = "from its dimensions" if body.parts else "as typed"
    return "Volume", f"{volume}, {how}"


def _equipment(body: EquipmentSet, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    traits = body.traits
    words = [
        traits.surface.value,
        traits.chlorination.value.replace("_", " "),
        f"{traits.filter.value} filter",
    ]
    return "Equipment", ", ".join(words + (["indoor"] if traits.indoor else []))


def _settings(body: SettingsMade, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Settings", f"{body.name}, {body.place}, {body.profile.replace('_', ' ')} ranges"


def _purchase(body: ProductBought, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Bought", f"{body.packages:g} packages"


def _strength(body: StrengthTested, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Strength tested", f"{body.strength_percent:g} %"


def _routine(body: PreferencesSet, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Measures and money", ", ".join(box.name for box in body.containers)


def _round(body: RoundSet, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Round set", f"{len(body.stops)} stops"


def _truck(body: TruckCounted, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Truck counted", f"{body.mass_g:.0f} g"


def _visit(body: VisitDone, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    parts = [
        "come back" if body.needs_return else "",
        f"for a licensed trade: {body.trade}" if body.trade else "",
    ]
    return "Visit done", "; ".join(part for part in (*parts, body.note) if part)


def _event(body: EventNoted, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return body.kind.value.replace("_", " ").capitalize(), body.note


def _pressure(body: PressureRead, metric: bool) -> tuple[str, str]:
    return "Filter pressure", pressure_text(body.pressure_kpa, metric)


def _plant(body: PlantSet, metric: bool) -> tuple[str, str]:
    flow = "" if body.pump_flow_l_min is None else flow_text(body.pump_flow_l_min, metric)
    hours = f"{hours_a_day(body.windows):g} h a day" if body.windows else ""
    return "Pump, filter and cell", ", ".join(part for part in (flow, hours) if part)


def _care(body: CareDone, metric: bool) -> tuple[str, str]:
    values = [_care_value(value, metric) for value in body.values]
    return f"Done: {_task(body.task)}", ", ".join(values) + _note(body.note)


def _care_value(value: CareValue, metric: bool) -> str:
    name = value.name.removesuffix("_kpa").removesuffix("_l_min").removesuffix("_s").replace("_", " ")
    if value.name.endswith("_kpa"):
        return f"{name} {pressure_text(value.value, metric)}"
    if value.name.endswith("_l_min"):
        return f"{name} {flow_text(value.value, metric)}"
    return f"{name} {value.value:g}" + (" s" if value.name.endswith("_s") else "")


def _put_off(body: CarePutOff, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    if body.until is None:
        return f"Left out: {_task(body.task)}", body.reason
    return f"Put off: {_task(body.task)}", f"to {body.until.day} {body.until:%B}" + _note(body.reason)


def _interval(body: CareInterval, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    how = "off the list" if body.off else "as usual" if body.days is None else f"every {body.days:g} days"
    return "Interval set", f"{_task(body.task)}, {how}"


def _interview(body: InterviewHeld, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Fault looked for", ENDS[body.outcome].title if body.outcome in ENDS else body.outcome


def _feed(body: FeedOpened, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Calendar feed opened", ""


def _device(body: DeviceLinked, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return ("Device linked" if body.address else "Device unlinked"), body.device


def _device_day(body: DeviceDay, metric: bool) -> tuple[str, str]:
    parts = [
        "" if body.salinity_mg_l is None else f"salt by the unit {body.salinity_mg_l:.0f}",
        "" if body.water_c is None else f"water {value_text(Measure.TEMPERATURE, body.water_c, metric)}",
        "" if body.pressure_kpa is None else pressure_text(body.pressure_kpa, metric),
        "" if not body.rain_mm else f"rain {body.rain_mm:.0f} mm",
    ]
    return f"The {body.device}'s day", ", ".join(part for part in parts if part)


def _device_change(body: DeviceChanged, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return f"The {body.device}: {body.what}", f"{body.before} to {body.after}"


def _rescue(body: RescueSet, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    strategy = "by stabiliser" if body.by_ratio else "to 10"
    return f"Rescue set: {SEVERITIES[body.severity].name.lower()}", f"shock {strategy}"


def _rescue_end(body: RescueEnded, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return f"Rescue ended: {body.outcome.value}", body.note


def _season_list(body: SeasonListSaved, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    title = body.which.value.capitalize()
    return f"{title} {'taken off' if body.dropped else 'planned'}", f"for {body.day.day} {body.day:%B %Y}"


def _list_item(body: ListItemDone, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    if body.item.startswith(MATERIAL):
        return f"At hand: {body.item.removeprefix(MATERIAL)}", "for the opening or closing list" + _note(
            body.note
        )
    what = body.item.replace("_", " ").capitalize()
    return f"{what}: {body.outcome.value}", "of the opening or closing list" + _note(body.note)


def _climate(body: ClimateSet, metric: bool) -> tuple[str, str]:
    low, high = min(body.monthly_c), max(body.monthly_c)
    span = [value_text(Measure.TEMPERATURE, value, metric) for value in (low, high)]
    return "Water's climate set", " to ".join(span)


def _task(key: str) -> str:
    if key in TASKS:
        return TASKS[key].title.lower()
    return PROCEDURES[key].title.lower() if key in PROCEDURES else key.replace("_", " ")


def _void(body: Voided, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return "Taken back", body.reason


def _not_understood(body: NotUnderstood, metric: bool) -> tuple[str, str]:  # noqa: ARG001
    return f"Not understood by this version: {body.kind.replace('_', ' ')}", body.why


def _note(note: str) -> str:
    return f". {note}" if note else ""


_WORDS: dict[type, Callable[[Any, bool], tuple[str, str]]] = {
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
    ProductBought: _purchase,
    StrengthTested: _strength,
    PreferencesSet: _routine,
    RoundSet: _round,
    TruckCounted: _truck,
    VisitDone: _visit,
    EventNoted: _event,
    PressureRead: _pressure,
    PlantSet: _plant,
    CareDone: _care,
    CarePutOff: _put_off,
    CareInterval: _interval,
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

"""The journal: all that happens to a pool, as entries; and the pool as it stands, folded from them.

An entry is never changed. A correction is a new entry that names the one it replaces; a void takes
one back. Both stay in the list, so the old value stays visible; `effective` is what counts.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from enum import StrEnum
from uuid import UUID

from kumpan.core.habits import Chosen, Container, OwnRange
from kumpan.core.pool.equipment import Traits
from kumpan.core.pool.plan_drawing import Fixture
from kumpan.core.pool.shapes import Part
from kumpan.core.run_sheet import Step
from kumpan.core.testing.methods import Measured
from kumpan.core.water import Measure, Readings


class Clarity(StrEnum):
    CLEAR = "clear"
    HAZY = "hazy"
    CLOUDY = "cloudy"
    DRAIN_HIDDEN = "drain_hidden"
    GREEN = "green"


class Level(StrEnum):
    LOW = "low"
    NORMAL = "normal"
    HIGH = "high"


class Outcome(StrEnum):
    DONE = "done"
    SKIPPED = "skipped"


@dataclass(frozen=True)
class SettingsMade:
    """Name, place and habits of a pool. `swim_limit_mg_l` None means the school's.

    `latitude_deg`, `longitude_deg` (north and east positive) place it under the sun; None means the
    time zone's chief city. `own_ranges` go before the school's rows; `choices` answer the questions on
    which practitioners differ, the defaults where one is not named. `kit_order` is the order in which this pool's
    kit is read, empty for that of the usual box; `care_preset` whose intervals it is cared for by, empty for what
    fits it; `season_months` the months in season, empty for those of its latitude.
    """

    name: str
    place: str
    time_zone: str
    school: str
    public: bool = False
    swim_limit_mg_l: float | None = None
    kit: str = "drops"
    latitude_deg: float | None = None
    longitude_deg: float | None = None
    own_ranges: tuple[OwnRange, ...] = ()
    choices: tuple[Chosen, ...] = ()
    kit_order: tuple[Measure, ...] = ()
    care_preset: str = ""
    season_months: tuple[int, ...] = ()


@dataclass(frozen=True)
class BasinMeasured:
    """The basin: its volume and, unless the volume was typed, the parts it follows from."""

    volume_l: float
    parts: tuple[Part, ...] = ()
    fixtures: tuple[Fixture, ...] = ()


@dataclass(frozen=True)
class EquipmentSet:
    traits: Traits
    fill_water: Readings = field(default_factory=Readings)


@dataclass(frozen=True)
class TestTaken:
    """A test: values with their doubt; combined chlorine measured by itself stands beside free."""

    __test__ = False  # not a test class for pytest

    values: tuple[Measured, ...]
    kit: str
    note: str = ""


@dataclass(frozen=True)
class LookTaken:
    clarity: Clarity
    level: Level
    odd: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class AdditionMade:
    """What was poured. `sheet_id` and `step_number` tie it to the sheet's step that asked for it."""

    chemical: str
    strength_percent: float
    label: str
    mass_g: float
    volume_ml: float | None = None
    density_g_per_ml: float | None = None
    product_id: str | None = None
    sheet_id: UUID | None = None
    step_number: int | None = None


class WaterChange(StrEnum):
    """Why water left or came. Litres are what left and was made up, or what ran over."""

    BACKWASH = "backwash"
    REFILL = "refill"
    RAIN = "rain"
    DRAIN = "drain"


@dataclass(frozen=True)
class WaterChanged:
    """So many litres of pool water replaced: by fill water, or by rain that ran over.

    `sheet_id` and `step_number` tie it to the sheet's step that asked for it.
    """

    kind: WaterChange
    volume_l: float
    note: str = ""
    sheet_id: UUID | None = None
    step_number: int | None = None


@dataclass(frozen=True)
class CellSet:
    """The salt cell from now on: grams of chlorine an hour at 100 %, its setting, and its hours a day."""

    output_g_per_h: float
    percent: float
    hours_per_day: float


@dataclass(frozen=True)
class SwimmersCounted:
    """Swimmers times hours, of one afternoon."""

    bather_hours: float


@dataclass(frozen=True)
class SheetStarted:
    """A run sheet as it was started: the whole plan, never changed afterwards. `plan` is its kind."""

    steps: tuple[Step, ...]
    school: str
    before: Readings
    predicted: Readings
    plan: str = "balance"


@dataclass(frozen=True)
class StepTicked:
    """A step without an amount, done or skipped; an add step that was skipped stands here too."""

    sheet_id: UUID
    step_number: int
    outcome: Outcome
    note: str = ""


@dataclass(frozen=True)
class ProductBought:
    """Packages of a product that came onto the shelf. Stock is bought minus poured."""

    product_id: str
    packages: float
    price: float | None = None


@dataclass(frozen=True)
class StrengthTested:
    """A product's strength as tested on a day; from then on it ages from this."""

    product_id: str
    strength_percent: float


@dataclass(frozen=True)
class HabitsSet:
    """What holds for the whole workspace: containers, money, how warm the store is, what water costs.

    `currency` is a sign or a code; `water_price` is per cubic metre; the rates are litres an hour.
    """

    containers: tuple[Container, ...] = ()
    currency: str = "$"
    storage_c: float = 24.0
    water_price: float | None = None
    drain_l_per_h: float = 7000.0
    fill_l_per_h: float = 1500.0


@dataclass(frozen=True)
class RoundSet:
    """The stops of one technician's round on a weekday (0 is Monday), in order; it holds every week."""

    weekday: int
    stops: tuple[UUID, ...]


@dataclass(frozen=True)
class TruckCounted:
    """What the technician's truck holds of a product, g, as counted; what the same hand pours then comes off."""

    product_id: str
    mass_g: float


@dataclass(frozen=True)
class VisitDone:
    """A stop that is finished. `needs_return` and `trade` make it an exception: come back, or a licensed trade."""

    note: str = ""
    needs_return: bool = False
    trade: str = ""


class NotedEvent(StrEnum):
    """What happens to a pool from outside and asks for a test."""

    STORM = "storm"
    HEAVY_USE = "heavy_use"
    HOT_SPELL = "hot_spell"
    LEAVES = "leaves"


@dataclass(frozen=True)
class EventNoted:
    kind: NotedEvent
    note: str = ""


@dataclass(frozen=True)
class PressureRead:
    """The filter's gauge while the pump runs, kPa over the air's."""

    pressure_kpa: float


class CellKind(StrEnum):
    PLAIN = "plain"
    SELF_CLEANING = "self_cleaning"


@dataclass(frozen=True)
class PumpWindow:
    """When the timer runs the pump, minutes of the local day; an end before its start goes over midnight."""

    start_min: int
    end_min: int


@dataclass(frozen=True)
class PlantSet:
    """Pump, filter and cell as they are from now on; None where nobody knows.

    `clean_pressure_kpa` is the start pressure after a cleaning; `price_per_kwh` in the workspace's currency.
    """

    pump_flow_l_min: float | None = None
    pump_kw: float | None = None
    price_per_kwh: float | None = None
    windows: tuple[PumpWindow, ...] = ()
    clean_pressure_kpa: float | None = None
    filter_area_m2: float | None = None
    media_since: datetime | None = None
    cell_kind: CellKind = CellKind.SELF_CLEANING
    cell_since: datetime | None = None
    cell_rated_h: float | None = None
    solar: bool = False


@dataclass(frozen=True)
class CareValue:
    """One value taken in during a piece of care: its name from the procedure, in inner units."""

    name: str
    value: float


@dataclass(frozen=True)
class CareDone:
    """A piece of care that was done: its task, what was read on the way, by whom is the entry's."""

    task: str
    values: tuple[CareValue, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class CarePutOff:
    """A task put off to a day, or (`until` None) left out this time with the reason."""

    task: str
    until: date | None
    reason: str = ""


@dataclass(frozen=True)
class CareInterval:
    """The user's own interval of a task, days; None takes the preset's again; `off` takes it off the list."""

    task: str
    days: float | None = None
    off: bool = False


@dataclass(frozen=True)
class InterviewHeld:
    """A fault that was looked for: the tree, the answers in order, and what it came to."""

    tree: str
    answers: tuple[str, ...]
    outcome: str


@dataclass(frozen=True)
class FeedOpened:
    """A calendar feed under a secret name; taken back, the name opens nothing any more."""

    secret: str


@dataclass(frozen=True)
class DeviceReading:
    """What a controller or weather station says at a moment; None where it says nothing.

    `rain_mm` is the day's so far; `lamps` the names of those that are lit.
    """

    output_percent: float | None = None
    salinity_mg_l: float | None = None
    water_c: float | None = None
    flow: bool | None = None
    pressure_kpa: float | None = None
    rain_mm: float | None = None
    air_c: float | None = None
    uv_index: float | None = None
    lamps: tuple[str, ...] = ()


@dataclass(frozen=True)
class DeviceLinked:
    """A device that is polled from now on. An `address` of "stand-in" is the simulated one; empty unlinks it."""

    device: str
    address: str


@dataclass(frozen=True)
class DeviceDay:
    """A device's day in one entry: how many readings, and what they came to."""

    device: str
    day: date
    readings: int
    output_percent: float | None = None
    salinity_mg_l: float | None = None
    water_c: float | None = None
    pressure_kpa: float | None = None
    rain_mm: float | None = None
    air_low_c: float | None = None
    air_high_c: float | None = None
    uv_index: float | None = None


@dataclass(frozen=True)
class DeviceChanged:
    """A change of lamp, flow or output as the device told it."""

    device: str
    what: str
    before: str
    after: str


@dataclass(frozen=True)
class Voided:
    """Takes the superseded entry back."""

    reason: str = ""


Body = (
    SettingsMade
    | BasinMeasured
    | EquipmentSet
    | TestTaken
    | LookTaken
    | AdditionMade
    | SheetStarted
    | StepTicked
    | ProductBought
    | WaterChanged
    | CellSet
    | SwimmersCounted
    | StrengthTested
    | HabitsSet
    | RoundSet
    | TruckCounted
    | VisitDone
    | EventNoted
    | PressureRead
    | PlantSet
    | CareDone
    | CarePutOff
    | CareInterval
    | InterviewHeld
    | FeedOpened
    | DeviceLinked
    | DeviceDay
    | DeviceChanged
    | Voided
)
KINDS: dict[type, str] = {
    SettingsMade: "settings",
    BasinMeasured: "basin",
    EquipmentSet: "equipment",
    TestTaken: "test",
    LookTaken: "look",
    AdditionMade: "addition",
    SheetStarted: "sheet",
    StepTicked: "step",
    ProductBought: "purchase",
    WaterChanged: "water",
    CellSet: "cell",
    SwimmersCounted: "swimmers",
    StrengthTested: "strength",
    HabitsSet: "habits",
    RoundSet: "round",
    TruckCounted: "truck",
    VisitDone: "visit",
    EventNoted: "event",
    PressureRead: "pressure",
    PlantSet: "plant",
    CareDone: "care",
    CarePutOff: "put_off",
    CareInterval: "interval",
    InterviewHeld: "interview",
    FeedOpened: "feed",
    DeviceLinked: "device",
    DeviceDay: "device_day",
    DeviceChanged: "device_change",
    Voided: "void",
}


@dataclass(frozen=True)
class Entry:
    """One line of the journal: what happened `at` a time, told by someone, recorded at another time.

    Times carry a zone. `pool_id` is None for what belongs to the shelf. `supersedes` names the entry
    that this one corrects or voids.
    """

    id: UUID
    pool_id: UUID | None
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    body: Body
    supersedes: UUID | None = None

    @property
    def kind(self) -> str:
        return KINDS[type(self.body)]


@dataclass(frozen=True)
class Reading:
    """One measured value with its time, for a lane and its trail."""

    value: Measured
    at: datetime


@dataclass(frozen=True)
class PoolState:
    """The pool as it stands at a time: everything here follows from the effective entries."""

    settings: SettingsMade | None
    basin: BasinMeasured | None
    equipment: EquipmentSet | None
    tests: tuple[Entry, ...]
    looks: tuple[Entry, ...]
    additions: tuple[Entry, ...]
    sheets: tuple[Entry, ...]
    ticks: tuple[Entry, ...]
    water_changes: tuple[Entry, ...] = ()
    cell_settings: tuple[Entry, ...] = ()
    swims: tuple[Entry, ...] = ()
    visits: tuple[Entry, ...] = ()
    events: tuple[Entry, ...] = ()
    pressures: tuple[Entry, ...] = ()
    plants: tuple[Entry, ...] = ()
    care: tuple[Entry, ...] = ()
    put_off: tuple[Entry, ...] = ()
    intervals: tuple[Entry, ...] = ()
    interviews: tuple[Entry, ...] = ()
    feeds: tuple[Entry, ...] = ()
    devices: tuple[Entry, ...] = ()
    device_days: tuple[Entry, ...] = ()
    device_changes: tuple[Entry, ...] = ()

    @property
    def plant(self) -> PlantSet:
        """Pump, filter and cell as they stand."""
        body = self.plants[-1].body if self.plants else None
        return body if isinstance(body, PlantSet) else PlantSet()

    @property
    def last_test(self) -> Entry | None:
        return self.tests[-1] if self.tests else None

    @property
    def last_look(self) -> LookTaken | None:
        body = self.looks[-1].body if self.looks else None
        return body if isinstance(body, LookTaken) else None


def in_order(entries: Iterable[Entry]) -> list[Entry]:
    """By the time it happened, then the time it was recorded; entry order does not matter."""
    return sorted(entries, key=lambda entry: (entry.at, entry.recorded_at, str(entry.id)))


def effective(entries: Iterable[Entry], until: datetime | None = None) -> list[Entry]:
    """What counts: superseded entries and voids are gone, and so is what happened after `until`."""
    listed = list(entries)
    replaced = {entry.supersedes for entry in listed if entry.supersedes is not None}
    return in_order(
        entry
        for entry in listed
        if entry.id not in replaced
        and not isinstance(entry.body, Voided)
        and (until is None or entry.at <= until)
    )


def fold(entries: Iterable[Entry], until: datetime | None = None) -> PoolState:
    """The pool as it stands at `until`; the latest settings, basin and equipment count."""
    found: dict[type, list[Entry]] = {}
    for entry in effective(entries, until):
        found.setdefault(type(entry.body), []).append(entry)

    def of(kind: type) -> tuple[Entry, ...]:
        return tuple(found.get(kind, ()))

    settings = [entry.body for entry in of(SettingsMade) if isinstance(entry.body, SettingsMade)]
    basins = [entry.body for entry in of(BasinMeasured) if isinstance(entry.body, BasinMeasured)]
    equipment = [entry.body for entry in of(EquipmentSet) if isinstance(entry.body, EquipmentSet)]
    return PoolState(
        settings=settings[-1] if settings else None,
        basin=basins[-1] if basins else None,
        equipment=equipment[-1] if equipment else None,
        tests=of(TestTaken),
        looks=of(LookTaken),
        additions=of(AdditionMade),
        sheets=of(SheetStarted),
        ticks=of(StepTicked),
        water_changes=of(WaterChanged),
        cell_settings=of(CellSet),
        swims=of(SwimmersCounted),
        visits=of(VisitDone),
        events=of(EventNoted),
        pressures=of(PressureRead),
        plants=of(PlantSet),
        care=of(CareDone),
        put_off=of(CarePutOff),
        intervals=of(CareInterval),
        interviews=of(InterviewHeld),
        feeds=of(FeedOpened),
        devices=of(DeviceLinked),
        device_days=of(DeviceDay),
        device_changes=of(DeviceChanged),
    )


def history(state: PoolState, measure: Measure) -> list[Reading]:
    """All values of a measure, oldest first. Combined chlorine is total minus free of one test."""
    found: list[Reading] = []
    for test in state.tests:
        if isinstance(test.body, TestTaken):
            value = value_in(test.body.values, measure)
            if value is not None:
                found.append(Reading(value, test.at))
    return found


def value_in(values: Sequence[Measured], measure: Measure) -> Measured | None:
    """A measure's value in one test; total and combined chlorine follow from each other and free."""
    by_measure = {value.measure: value for value in values}
    if measure in by_measure:
        return by_measure[measure]
    free = by_measure.get(Measure.FREE_CHLORINE)
    total = by_measure.get(Measure.TOTAL_CHLORINE)
    combined = by_measure.get(Measure.COMBINED_CHLORINE)
    if measure is Measure.COMBINED_CHLORINE and free and total:
        high = max(0.0, total.high - free.low)
        return Measured(
            measure,
            max(0.0, total.value - free.value),
            max(0.0, min(high, total.low - free.high)),
            high,
            total.method,
        )
    if measure is Measure.TOTAL_CHLORINE and free and combined:
        return Measured(
            measure,
            free.value + combined.value,
            free.low + combined.low,
            free.high + combined.high,
            combined.method,
        )
    return None


def last_reading(state: PoolState, measure: Measure) -> Reading | None:
    """The latest value of a measure; None when it was never tested."""
    for test in reversed(state.tests):
        value = value_in(test.body.values, measure) if isinstance(test.body, TestTaken) else None
        if value is not None:
            return Reading(value, test.at)
    return None


def open_sheet(state: PoolState) -> Entry | None:
    """The sheet that was started last, while it has steps that are neither ticked nor skipped."""
    if not state.sheets:
        return None
    sheet = state.sheets[-1]
    done = ticked_steps(state, sheet.id)
    if isinstance(sheet.body, SheetStarted) and any(n not in done for n in tickable(sheet.body)):
        return sheet
    return None


def tickable(sheet: SheetStarted) -> list[int]:
    """The numbers of the steps that a person ticks: all but the waits."""
    return [number for number, step in enumerate(sheet.steps) if step.kind != "wait"]


def ticked_steps(state: PoolState, sheet_id: UUID) -> dict[int, Entry]:
    """Step number -> the entry that ticked it, for one sheet."""
    found: dict[int, Entry] = {}
    for entry in (*state.additions, *state.ticks, *state.water_changes):
        body = entry.body
        if (
            isinstance(body, AdditionMade | StepTicked | WaterChanged)
            and body.sheet_id == sheet_id
            and body.step_number is not None
        ):
            found[body.step_number] = entry
    return found

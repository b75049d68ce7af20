"""What the use cases hand out: frozen values, in inner units, ready to be shown."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from kumpan.core.assessment.next_thing import NextThing
from kumpan.core.assessment.swim import SwimAnswer
from kumpan.core.dosing.product_choice import Strategy
from kumpan.core.dosing.solution import Unmet
from kumpan.core.findings import Finding
from kumpan.core.hazards import Hazard
from kumpan.core.journal import BasinMeasured, EquipmentSet, Outcome, PlantSet, SettingsMade, VisualCheck
from kumpan.core.maintenance.due import DueItem
from kumpan.core.maintenance.learned import Offer
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import Message
from kumpan.core.pool.plan_drawing import PlanDrawing
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.records.step import Step
from kumpan.core.testing.methods import Measured
from kumpan.core.testing.test_line import LineProblem
from kumpan.core.treatment.special.second_opinion import Advice, Unread
from kumpan.wording.gauges import Gauge, Marker


@dataclass(frozen=True, kw_only=True)
class PoolHeader:
    """The sign of the pool: name, swim answer, the one next thing; `treating` while a rescue goes on."""

    id: UUID
    settings: SettingsMade
    basin: BasinMeasured
    equipment: EquipmentSet
    swim: SwimAnswer
    next: NextThing
    notices: tuple[Finding, ...]
    last_test_at: datetime | None
    last_visual_check: VisualCheck | None
    last_visual_check_at: datetime | None
    treating: bool


@dataclass(frozen=True)
class PouredSince:
    """An addition since the test."""

    label: str
    at: datetime


@dataclass(frozen=True, kw_only=True)
class Board:
    """The lane board: lanes in order, the school that judges, when the water was tested, what went in
    since.
    """

    gauges: tuple[Gauge, ...]
    profile_name: Message
    tested_at: datetime | None
    kit: str | None
    temperature_c: float | None
    poured_since: tuple[PouredSince, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class WhatIf:
    """The sheet for the user's own aims (by value), and where every lane's float would come to stand."""

    aims: Mapping[Measure, float]
    planned: Mapping[Measure, Marker]
    treatment: "TreatmentPlan"


@dataclass(frozen=True)
class TreatmentStep:
    """A step of a sheet with its clock time and, once ticked, by whom and with how much."""

    number: int
    step: Step
    at: datetime
    done_as: "StepRecord | None" = None


@dataclass(frozen=True, kw_only=True)
class StepRecord:
    """What became of a step, when and by whom."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    outcome: Outcome
    mass_g: float | None = None
    volume_ml: float | None = None
    amount_text: Message | None = None


@dataclass(frozen=True, kw_only=True)
class TreatmentPlan:
    """A run sheet: offered (no id yet) or started. `unmet` and `notes` say what it leaves and why."""

    id: UUID | None
    started_at: datetime | None
    finished: bool
    steps: tuple[TreatmentStep, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]
    profile_name: Message
    standard_inventory: bool
    drawing: PlanDrawing | None


@dataclass(frozen=True, kw_only=True)
class LogLine:
    """One entry as the log lists it. `replaced_by` set means it no longer counts, but stays visible."""

    id: UUID
    kind: str
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    title: Message
    detail: Message
    supersedes: UUID | None
    replaced_by: UUID | None
    taken_back: bool
    can_change: bool
    fields: Mapping[Measure, str]


@dataclass(frozen=True)
class TestFormView:
    """A read slip: values by measure, what could not be read, and what to question."""

    values: tuple[Measured, ...]
    problems: tuple[LineProblem, ...]
    questions: tuple[Finding, ...]


@dataclass(frozen=True)
class LastValue:
    """What a measure read last, as it would be typed again, and when."""

    text: str
    at: datetime


@dataclass(frozen=True, kw_only=True)
class InventoryLine:
    """A product with its stock (bought minus poured) in g, mL for liquids; None when never bought.

    `strength_now_percent` is aged; `price` is one package's; `used_text`, `used_cost` the last year's;
    `days_left` at the pace of the last four weeks.
    """

    id: str
    label: str
    chemical: str
    form: str
    strength_percent: float
    strength_now_percent: float
    package_g: float | None
    package_ml: float | None
    package_text: Message
    price: float | None
    bought_at: datetime | None
    stock_g: float | None
    stock_ml: float | None
    stock_text: Message
    used_text: Message
    used_cost: float | None
    days_left: int | None


@dataclass(frozen=True, kw_only=True)
class BuyLine:
    """What to buy and why; `packages_text` empty where no package is known, `cost` None without a price."""

    product_id: str
    label: str
    short_text: Message
    packages_text: Message
    cost: float | None
    why: Message


@dataclass(frozen=True)
class StrategyProduct:
    """A product of a strategy with its amount in words."""

    label: str
    amount_text: Message


@dataclass(frozen=True, kw_only=True)
class StrategyView:
    """One way through the plan beside the others; costs in the workspace's currency, None when a price
    lacks.
    """

    strategy: Strategy
    use: str | None
    name: Message
    products: tuple[StrategyProduct, ...]
    used_cost: float | None
    buy_cost: float | None
    missing: tuple[BuyLine, ...]
    additions: int
    days: int
    minutes_to_swim: int | None
    in_four_weeks: Mapping[Measure, float]


@dataclass(frozen=True)
class StrategiesView:
    """The ways side by side, what holds the pool between visits, and the loss (mg/L a day) they were
    reckoned with.
    """

    strategies: tuple[StrategyView, ...]
    between: tuple[Finding, ...]
    loss_mg_l_day: float | None
    currency: str


@dataclass(frozen=True, kw_only=True)
class DayAhead:
    """Free chlorine (mg/L, low to high is the 90 percent band) and pH on one evening."""

    at: datetime
    low: float
    likely: float
    high: float
    under_range: bool
    ph: float | None


@dataclass(frozen=True, kw_only=True)
class OutlookView:
    """What is ahead: in sentences, the most pressing first, and as a strip of evenings."""

    sentences: tuple[Finding, ...]
    days: tuple[DayAhead, ...]
    runs_low_at: datetime | None
    loss_mg_l_day: float | None
    volume_hint_l: float | None


@dataclass(frozen=True)
class HistoryPoint:
    """A tested value with its doubt."""

    at: datetime
    value: float
    low: float
    high: float


@dataclass(frozen=True)
class HistoryMark:
    """Something that was done to the water, in words."""

    at: datetime
    kind: str
    text: Message


@dataclass(frozen=True)
class AheadPoint:
    """A measure at a later time: low to high is the 90 percent band."""

    at: datetime
    low: float
    likely: float
    high: float


@dataclass(frozen=True, kw_only=True)
class HistoryView:
    """One measure over time: its range, its tests, what was done, and the forecast band."""

    measure: Measure
    name: Message
    low: float | None
    high: float | None
    points: tuple[HistoryPoint, ...]
    marks: tuple[HistoryMark, ...]
    ahead: tuple[AheadPoint, ...]


@dataclass(frozen=True, kw_only=True)
class ComparedMeasure:
    """One measure now, after somebody's advice, and after our own plan; None where it cannot be reckoned."""

    measure: Measure
    name: Message
    now: float | None
    theirs: float | None
    ours: float | None
    low: float | None
    high: float | None


@dataclass(frozen=True)
class OpinionView:
    """A second opinion: what was read, what was not, the comparison, and what to know first."""

    advice: tuple[Advice, ...]
    unread: tuple[Unread, ...]
    rows: tuple[ComparedMeasure, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True, kw_only=True)
class VisitView:
    """A stop as it was finished."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    note: str
    needs_return: bool
    trade: str


@dataclass(frozen=True)
class StopNeed:
    """A test that is due at a stop, and why."""

    measure: Measure
    why: Message


@dataclass(frozen=True, kw_only=True)
class StopView:
    """One stop: what is due, what today's sheet pours, what the next visit will find, what drifts."""

    head: PoolHeader
    tests: tuple[StopNeed, ...]
    care: tuple[Message, ...]
    doses: tuple[Message, ...]
    next_visit: tuple[Finding, ...]
    holds: bool | None
    drift: tuple[Finding, ...]
    done: VisitView | None
    last_visit: VisitView | None


@dataclass(frozen=True, kw_only=True)
class LoadLineView:
    """One product of the load list in words; `short_text` empty where the truck has enough."""

    product_id: str
    label: str
    need_text: Message
    on_truck_text: Message
    short_text: Message


@dataclass(frozen=True)
class TrayView:
    """One tray of the truck with its caution and what goes into it."""

    title: Message
    caution: Message
    lines: tuple[LoadLineView, ...]


@dataclass(frozen=True, kw_only=True)
class RoundView:
    """A weekday's round: stops in order, the other pools, the load by tray, and a shorter way if there is
    one.

    `nearest_next` is empty where the order is that already; lengths as the crow flies, km.
    """

    weekday: int
    day_name: Message
    is_today: bool
    stops: tuple[StopView, ...]
    others: tuple[StopView, ...]
    load: tuple[TrayView, ...]
    nearest_next: tuple[UUID, ...]
    length_km: float
    nearest_km: float
    days: tuple[int, ...]


@dataclass(frozen=True)
class TodayView:
    """What is due now and soon at a pool, most pressing first; how many lie later, and the next of those."""

    day: date
    items: tuple[DueItem, ...]
    later: int
    next_later: date | None


@dataclass(frozen=True)
class ProcedureChoice:
    """A procedure to choose."""

    key: str
    title: Message


@dataclass(frozen=True, kw_only=True)
class CareView:
    """Every task with its date; suggestions; procedures; what was taken off; whose intervals hold, and the
    plant.
    """

    items: tuple[DueItem, ...]
    offers: tuple[Offer, ...]
    procedures: tuple[ProcedureChoice, ...]
    off: tuple[ProcedureChoice, ...]
    preset: Preset
    usual_preset: Preset
    season_months: tuple[int, ...]
    plant: PlantSet


@dataclass(frozen=True)
class CalendarDay:
    """What falls on one day."""

    day: date
    items: tuple[DueItem, ...]


@dataclass(frozen=True)
class AskView:
    """A value that a step takes in: its label, the unit that a bare number is read in, or its choices."""

    name: str
    label: Message
    unit: str
    choices: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class StepView:
    """One step of a procedure; a timer from and to, in seconds."""

    text: Message
    hazard: Hazard
    cautions: tuple[Message, ...]
    timer_from_s: int | None
    timer_to_s: int | None
    asks: tuple[AskView, ...]


@dataclass(frozen=True, kw_only=True)
class ProcedureView:
    """A procedure step by step, with what is needed and asked."""

    key: str
    title: Message
    materials: tuple[Message, ...]
    steps: tuple[StepView, ...]
    asks_at_end: tuple[AskView, ...]
    wastes_water: bool


@dataclass(frozen=True)
class FinishedView:
    """What finishing led to: the next dates, and a word on the water that went."""

    entry_id: UUID
    next_dates: tuple[Message, ...]
    water_text: Message

"""What is seen of a treatment: the sheet, its strategies, advice and what-ifs."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.dosing.product_choice import Strategy
from kumpan.core.findings import Finding
from kumpan.core.journal import Outcome
from kumpan.core.messages import Message
from kumpan.core.pool.plan_drawing import PlanDrawing
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.records.step import Step
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.special.second_opinion import Advice, Unread
from kumpan.services.products.views import BuyLine
from kumpan.wording.gauges import Marker


@dataclass(frozen=True)
class WhatIf:
    """The sheet for the user's own aims (by value), and where every lane's float would come to stand."""

    aims: Mapping[Measure, float]
    planned: Mapping[Measure, Marker]
    treatment: "TreatmentPlan"


@dataclass(frozen=True, kw_only=True)
class TreatmentStep:
    """A step of a sheet with its clock time and, once ticked, by whom and with how much.

    `first_mention`: the first with this product, whose cautions stand in full.
    """

    number: int
    step: Step
    at: datetime
    done_as: "StepRecord | None" = None
    first_mention: bool = True


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


@dataclass(frozen=True)
class ShockChoice:
    """A product that stands at a pool to shock it with, and why it may not go in there."""

    id: str
    label: str
    why_not: Message | None


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
class NotOffered:
    """A product of the shelf that a plan does not use here, and why."""

    label: str
    why: Message


@dataclass(frozen=True, kw_only=True)
class StrategiesView:
    """The ways side by side, what of the shelf does not serve here, what holds the pool between visits, and
    the loss (mg/L a day) they were reckoned with.
    """

    strategies: tuple[StrategyView, ...]
    not_offered: tuple[NotOffered, ...]
    between: tuple[Finding, ...]
    loss_mg_l_day: float | None
    loss_text: Message
    currency: str


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
class Analysis:
    """What the readings say together; null where a reading is missing (named in `missing`).

    Indices without unit; carbonate alkalinity in mg/L as CaCO3; hypochlorous acid in mg/L as Cl2, its
    fraction of free chlorine; ionic strength in mol/L.
    """

    saturation_index: float | None
    saturation_index_classic: float | None
    carbonate_alkalinity: float | None
    combined_chlorine: float | None
    hypochlorous_acid: float | None
    hypochlorous_fraction: float | None
    ionic_strength: float | None
    assumed: Mapping[str, float]
    missing: tuple[str, ...]
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class AfterView:
    """The water after the doses, and what it is like."""

    readings: Readings
    analysis: Analysis


@dataclass(frozen=True)
class Moved:
    """What a regime does besides to one measure, mg/L in a month and in a season of half a year."""

    measure: Measure
    in_a_month: float
    in_a_season: float


@dataclass(frozen=True, kw_only=True)
class RegimeView:
    """One product as the weekly regime: what goes in, the week's amount with its range, what it does besides.

    `task` puts it on the schedule, every so many days. `unsuited` says why it is none here; `chart` is
    the trade's rule beside it.
    """

    product_id: str
    name: str
    task: str
    every_days: int
    on_schedule: bool
    at_hand: bool
    words: Message
    week_text: Message
    range_text: Message
    week_cost: float | None
    moves: tuple[Moved, ...]
    unsuited: Message
    notes: tuple[Finding, ...]
    chart: Message


@dataclass(frozen=True, kw_only=True)
class WeeklyView:
    """What goes a day (mg/L, low, likely, high), by how many tests and on what basis, held at which level;
    the products that make it good, and the cell's setting where there is one.
    """

    low: float
    likely: float
    high: float
    tests: int
    basis: Message
    level: float
    once: Finding | None
    cell: Message | None
    regimes: tuple[RegimeView, ...]
    currency: str

"""Answers of treatment plans."""

from datetime import datetime
from uuid import UUID

from kumpan.core.dosing.product_choice import Strategy
from kumpan.core.journal.treatment_entries import Outcome
from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import BuyLine, Finding, Float, PlanDrawing, Readings, Step, Unmet


class StepRecord(Response):
    entry_id: UUID
    at: datetime
    person_id: UUID | None
    outcome: Outcome
    mass_g: float | None
    volume_ml: float | None
    amount_text: Text | None


class TreatmentStep(Response):
    """A step of a sheet with its clock time and, once ticked, by whom and with how much; `first_telling`: its
    cautions stand in full.
    """

    number: int
    step: Step
    at: datetime
    ticked: StepRecord | None = read_from("done_as")
    first_telling: bool = read_from("first_mention")


class TreatmentPlan(Response):
    """A run sheet: offered (no id yet) or started. `unmet` and `notes` say what it leaves and why."""

    id: UUID | None
    started_at: datetime | None
    finished: bool
    steps: tuple[TreatmentStep, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]
    school_name: Text = read_from("profile_name")
    standard_shelf: bool = read_from("standard_inventory")
    drawing: PlanDrawing | None


class ShockChoice(Response):
    """A product that stands at a pool to shock it with; `why_not` where it may not go in there."""

    id: str
    label: Text
    why_not: Text | None


class WhatIf(Response):
    """The sheet for the user's own aims (by value), and where every lane's float would come to stand."""

    aims: dict[Measure, float]
    planned: dict[Measure, Float]
    sheet: TreatmentPlan = read_from("treatment")


class StrategyProduct(Response):
    label: Text
    amount_text: Text


class StrategyView(Response):
    """One way through the plan beside the others; costs in the workspace's currency, None when a price
    lacks.
    """

    way: Strategy = read_from("strategy")
    use: Text | None
    name: Text
    products: tuple[StrategyProduct, ...]
    used_cost: float | None
    buy_cost: float | None
    missing: tuple[BuyLine, ...]
    additions: int
    days: int
    minutes_to_swim: int | None
    in_four_weeks: dict[Measure, float]


class NotOffered(Response):
    label: Text
    why: Text


class StrategiesView(Response):
    """The ways side by side, what of the shelf does not serve here, what holds the pool between visits, and
    the loss (mg/L a day) they were reckoned with, also in words.
    """

    ways: tuple[StrategyView, ...] = read_from("strategies")
    not_offered: tuple[NotOffered, ...]
    between: tuple[Finding, ...]
    loss_mg_l_day: float | None
    loss_text: Text
    currency: Text


class Product(Response):
    """Something on the shelf: a chemical in one strength and package."""

    id: Text
    chemical: Text
    strength_percent: float
    package_g: float | None
    package_ml: float | None
    density_g_per_ml: float | None
    name: Text


class Advice(Response):
    """One thing advised: as typed, what it was taken for, and its amount."""

    typed: Text
    product: Product
    mass_g: float
    text: Text


class Unread(Response):
    """A piece that was not understood, with the cure."""

    typed: Text
    text: Text


class ComparedMeasure(Response):
    """One measure now, after somebody's advice, and after our own plan; None where it cannot be reckoned."""

    measure: Measure
    name: Text
    now: float | None
    theirs: float | None
    ours: float | None
    low: float | None
    high: float | None


class OpinionView(Response):
    """A second opinion: what was read, what was not, the comparison, and what to know first."""

    advice: tuple[Advice, ...]
    unread: tuple[Unread, ...]
    rows: tuple[ComparedMeasure, ...]
    findings: tuple[Finding, ...]


class Moved(Response):
    """What a regime does besides to one measure, mg/L in a month and in half a year."""

    measure: Measure
    in_a_month: float
    in_a_season: float


class RegimeView(Response):
    """One product as the weekly regime; `unsuited` says why it is none here, `chart` is the trade's rule."""

    product_id: Text
    name: Text
    task: Text
    every_days: int
    on_schedule: bool
    at_hand: bool
    words: Text
    week_text: Text
    range_text: Text
    week_cost: float | None
    moves: tuple[Moved, ...]
    unsuited: Text
    notes: tuple[Finding, ...]
    chart: Text


class WeeklyView(Response):
    """What goes a day (ppm: low, likely, high), by how many tests and on what basis, and the products that
    make it good.
    """

    low: float
    likely: float
    high: float
    tests: int
    basis: Text
    level: float
    once: Finding | None
    cell: Text | None
    regimes: tuple[RegimeView, ...]
    currency: Text

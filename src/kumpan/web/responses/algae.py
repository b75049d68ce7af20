"""Answers about what is in the water, and about a rescue."""

from datetime import date, datetime

from kumpan.core.algae.criteria import StageKey
from kumpan.core.algae.identify import Kind
from kumpan.core.journal.algae_entries import DeadAlgaeStrategy, PhStrategy, RescueOutcome, Severity
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding


class KeyChoice(Response):
    """An answer, and how well it fits each kind in the order of `KINDS`: 0 hardly ever, 10 nearly always."""

    key: Text
    label: Text
    fits: tuple[float, ...]


class KeyQuestion(Response):
    key: Text
    text: Text
    choices: tuple[KeyChoice, ...]


class Candidate(Response):
    """A kind with its share of the likelihood, 0 to 1."""

    kind: Kind
    name: Text
    share: float
    what: Text


class Identified(Response):
    """The kinds, likeliest first; a headline that claims no more than the confidence in words; what would
    settle it; what is done then.
    """

    candidates: tuple[Candidate, ...]
    headline: Text
    confidence: Text
    settles: Text
    then: Text
    ask_next: Text | None


class RescueSet(Response):
    """A rescue as it is set from now on; the first one begins it."""

    severity: Severity
    by_ratio: bool
    dead_way: DeadAlgaeStrategy | None = read_from("dead_algae_strategy")
    ph_way: PhStrategy | None = read_from("ph_strategy")
    drain_over_stabiliser: float = read_from("drain_over_stabilizer")
    drain_over_calcium: float
    use: Text | None


class SeverityChoice(Response):
    """A severity to choose: what it looks like, and the trade's figure of days."""

    severity: Severity
    name: Text
    look: Text = read_from("visual_check")
    days: Text


class StageLine(Response):
    """One stage: `standing` is done, now or ahead; the days it takes, where they can be told."""

    key: StageKey
    title: Text
    text: Text
    standing: Text
    from_on: date | None
    to_on: date | None


class Criterion(Response):
    """One thing that must hold at the end; `met` None while nobody knows."""

    key: Text
    title: Text
    met: bool | None
    text: Text


class Night(Response):
    """Free chlorine (mg/L) in the evening and the morning after, with nothing poured between."""

    evening_at: datetime
    morning_at: datetime
    evening_mg_l: float
    morning_mg_l: float
    lost_mg_l: float
    sun_mg_l: float
    holds: bool


class DaySpan(Response):
    """Days of the pool's calendar: likely, and the ends of the 90 % band."""

    low: date
    likely: date
    high: date


class TrailPoint(Response):
    """The band as it was told at a time."""

    at: datetime
    clear: DaySpan


class RescueTally(Response):
    """Chlorine so far and still to come (low, likely, high), mg/L; in the product's own amount; money where
    prices are told.
    """

    used_mg_l: float
    used_cost: float | None
    ahead_mg_l: tuple[float, float, float]
    ahead_text: Text | None
    ahead_cost: tuple[float, float, float] | None
    pump_hours: float
    pump_kwh: float | None
    pump_cost: float | None
    water_l: float


class RescueBoard(Response):
    """One rescue, begun or as it would be begun now."""

    severity: Severity
    severity_name: Text
    begun_at: datetime | None
    stage: StageKey
    closed: Text
    stages: tuple[StageLine, ...]
    criteria: tuple[Criterion, ...]
    nights: tuple[Night, ...]
    rounds: int
    level_mg_l: float
    cap_mg_l: float
    by_ratio: bool
    ph_way: PhStrategy = read_from("ph_strategy")
    dead_way: DeadAlgaeStrategy = read_from("dead_algae_strategy")
    clear: DaySpan
    trail: tuple[TrailPoint, ...]
    tally: RescueTally
    watch: tuple[Finding, ...]


class OptionCost(Response):
    """One way: money (low, high; None where a price is not told), days (low, high), water in L, words;
    `at_least` what is known of the money, `gaps` what that leaves out.
    """

    key: Text
    title: Text
    money: tuple[float, float] | None
    days: tuple[float, float]
    water_l: float
    text: Text
    at_least: float
    gaps: tuple[Text, ...]


class TreatOrDrain(Response):
    """The ways side by side, the one that the handbook's rules point to, and why."""

    ways: tuple[OptionCost, ...] = read_from("strategies")
    verdict: Text
    reasons: tuple[Text, ...]
    drain_over_stabiliser: float = read_from("drain_over_stabilizer")
    drain_over_calcium: float
    currency: Text


class Booster(Response):
    """A kind of booster. `refused`: nothing here plans it."""

    key: Text
    name: Text
    text: Text
    refused: bool


class RescueView(Response):
    """The board with what stands beside it.

    `open` while a rescue goes on; `setting` as set or as it would be begun.
    """

    open: bool
    setting: RescueSet
    suggested: Severity
    severities: tuple[SeverityChoice, ...]
    board: RescueBoard
    compared: TreatOrDrain
    causes: tuple[Finding, ...]
    prevention: tuple[Text, ...]
    boosters: tuple[Booster, ...]
    booster_rule: Text
    finished: bool
    last_outcome: RescueOutcome | None

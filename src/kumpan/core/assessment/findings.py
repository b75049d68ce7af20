"""What stands against a pool now, what it stands on, and the one remedy of each, most urgent first.

Of what was seen the last look decides: a later one without it clears it. Of what was measured, a value
beyond its band by more than the reading's own doubt asks for something; at the edge it is watched.
Sources: swim-limit, mixing, school-household.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import IntEnum

from kumpan.core.assessment.swim import DEAD_ANIMAL, SHARP_SMELL, oxidizer_within_a_week, smell_stands
from kumpan.core.journal import Clarity, PoolState, last_reading
from kumpan.core.journal.pool_entries import Level, VisualCheck
from kumpan.core.journal.readings import Reading
from kumpan.core.messages import Cased, Message
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import VerdictCode, verdict
from kumpan.core.treatment.plan import Plan

SOURCES_USED = ("swim-limit", "mixing", "school-household")


class Severity(IntEnum):
    """How urgent, most urgent first; up to TREAT_SOON a finding has a remedy that is the next thing."""

    DANGER = 0
    CLOSES_POOL = 1
    TREAT_TODAY = 2
    TREAT_SOON = 3
    WATCH = 4
    NOTE = 5


@dataclass(frozen=True, kw_only=True)
class Problem:
    """One finding of the assessment: `remedy` is what to do, `station` the screen where it is done."""

    code: str
    severity: Severity
    remedy: Message
    reason: Message
    station: str = "board"
    measure: Measure | None = None


# What a look found, in the order of its urgency: (as the look has it, severity, remedy, reason, station).
# Origin: handbook 02, 07, 08; common practice.
SEEN: Mapping[str, tuple[Severity, Message, Message, str]] = {
    DEAD_ANIMAL: (
        Severity.CLOSES_POOL,
        Message("Nobody in: take the animal out with a scoop and follow the accident plan"),
        Message("A dead animal was in the water."),
        "board",
    ),
    SHARP_SMELL: (
        Severity.TREAT_TODAY,
        Message("Test free and total chlorine now"),
        Message("There was a sharp smell: it comes from combined chlorine."),
        "slip",
    ),
    "leak": (
        Severity.TREAT_TODAY,
        Message("Find the leak; the pump off if it is at the equipment"),
        Message("The last look found a leak."),
        "board",
    ),
    "low": (
        Severity.TREAT_TODAY,
        Message("Raise the water to the middle of the skimmer before the pump runs"),
        Message("The level is low: the pump would draw air and run hot."),
        "board",
    ),
    "weak returns": (
        Severity.TREAT_TODAY,
        Message("Empty the baskets, then check the pressure, the pump's lid and the level"),
        Message("The returns are weak: little water is filtered and mixed."),
        "board",
    ),
    "algae spots": (
        Severity.TREAT_TODAY,
        Message("Find out what the spots are, and brush them today"),
        Message("The last look found algae spots."),
        "rescue",
    ),
    Clarity.CLOUDY.value: (
        Severity.TREAT_TODAY,
        Message("Check the filter, test free and total chlorine, and look again tomorrow"),
        Message("The water is cloudy."),
        "board",
    ),
    Clarity.HAZY.value: (
        Severity.TREAT_TODAY,
        Message("Check the filter, test free and total chlorine, and look again tomorrow"),
        Message("The water is hazy."),
        "board",
    ),
    "leaves": (
        Severity.TREAT_SOON,
        Message("Take the leaves out and empty the baskets"),
        Message("Leaves use up chlorine and block the flow."),
        "board",
    ),
    "foam": (
        Severity.TREAT_SOON,
        Message("Test chlorine; wait with algaecide until the foam is gone"),
        Message("Foam comes from algaecide, soap or lotion."),
        "slip",
    ),
    "high": (
        Severity.TREAT_SOON,
        Message("Lower the water: by a backwash if one is due, else by the waste setting"),
        Message("The level is high: the skimmer no longer skims."),
        "board",
    ),
}

# The care that speaks of the same thing; else a later look.
CLEARED_BY: Mapping[str, tuple[str, ...]] = {
    "leaves": ("skim", "baskets"),
    "low": ("level",),
    "high": ("level",),
}

# Beyond its band: the remedy in short; else the reason that the plan leaves it (`unmet`).
# Origin: handbook 03, 04, 06, 07.
_M, _HIGH, _LOW = Measure, VerdictCode.HIGH, VerdictCode.LOW
OUTSIDE: Mapping[tuple[Measure, VerdictCode], Message] = {
    (_M.FREE_CHLORINE, _HIGH): Message(
        "Lower chlorine: feeder or cell off, cover open, and test again tomorrow"
    ),
    (_M.COMBINED_CHLORINE, _HIGH): Message("Shock at dusk: combined chlorine has to be burned off"),
    (_M.SALT, _HIGH): Message("Replace part of the water: salt leaves no other way"),
    (_M.CYANURIC_ACID, _HIGH): Message(
        "Test stabilizer on a diluted sample, stop tablets, then replace part of the water"
    ),
    (_M.CALCIUM_HARDNESS, _HIGH): Message("Replace part of the water: calcium leaves no other way"),
    (_M.PHOSPHATE, _HIGH): Message("Use phosphate remover by its label, and clean the filter after"),
    (_M.COPPER, _HIGH): Message("Find where the copper comes from: unit, algaecide, heater or fill water"),
}
TODAY = (Measure.FREE_CHLORINE, Measure.COMBINED_CHLORINE, Measure.PH)

# What no profile has a band for. Origin: handbook 07 (copper stains over 0.3 ppm), 03 (phosphate).
STAINS_AND_FEED: Mapping[Measure, Band] = {
    Measure.COPPER: Band(None, 0.3, None, dose_low=False),
    Measure.PHOSPHATE: Band(None, 100.0, None, dose_low=False),
}


@dataclass(frozen=True, kw_only=True)
class Judged:
    """What is judged: the journal, the pool's bands, free chlorine by now, and the plan offered for it."""

    state: PoolState
    now: datetime
    bands: Mapping[Measure, Band] = field(default_factory=dict)
    offered: Plan | None = None
    expected_mg_l: float | None = None
    swim_limit_mg_l: float = 4.0


def problems(judged: Judged) -> tuple[Problem, ...]:
    """All that stands against the pool, the most urgent first; what was seen before what was measured."""
    found = (*_seen(judged.state), *_measured(judged))
    return tuple(sorted(found, key=lambda problem: problem.severity))


def _seen(state: PoolState) -> Iterator[Problem]:
    if not state.visual_checks:
        return
    entry = state.visual_checks[-1]
    said = _answers(entry.body)
    done = {care.body.task for care in state.care if care.at > entry.at}
    for code, (severity, remedy, reason, station) in SEEN.items():
        if code not in said or done.intersection(CLEARED_BY.get(code, ())):
            continue
        if code == SHARP_SMELL and not smell_stands(state):
            continue
        yield Problem(
            code=code.replace(" ", "_"), severity=severity, remedy=remedy, reason=reason, station=station
        )


def _answers(visual_check: VisualCheck) -> tuple[str, ...]:
    level = () if visual_check.level is Level.NORMAL else (visual_check.level.value,)
    return (*visual_check.odd, visual_check.clarity.value, *level)


def _measured(judged: Judged) -> Iterator[Problem]:
    moved = _moved(judged.offered)
    for measure, band in {**judged.bands, **STAINS_AND_FEED}.items():
        reading = last_reading(judged.state, measure)
        if reading is None or measure in moved or _not_to_be_read(judged, measure):
            continue
        if verdict(measure, reading.value.value, band).code in (_LOW, _HIGH):
            yield _beyond(judged, measure, band, reading)


def _not_to_be_read(judged: Judged, measure: Measure) -> bool:
    return measure is Measure.COMBINED_CHLORINE and oxidizer_within_a_week(judged.state, judged.now)


def _moved(offered: Plan | None) -> frozenset[Measure]:
    """What the offered plan brings nearer."""
    if offered is None:
        return frozenset()
    return frozenset(measure for step in offered.steps if step.kind == "add" for measure in step.measures)


def _beyond(judged: Judged, measure: Measure, band: Band, reading: Reading) -> Problem:
    code = verdict(measure, reading.value.value, band).code
    high = code is _HIGH
    remedy = OUTSIDE.get((measure, code)) or _unmet(judged, measure)
    reason = Message(
        "{measure} {value} is {side} {edge}.",
        measure=Cased(name_in_sentence(measure), upper=True),
        value=Number(reading.value.value),
        side=Message("over") if high else Message("under"),
        edge=Number((band.high if high else band.low) or 0.0),
    )
    severe = Severity.TREAT_TODAY if measure in TODAY else Severity.TREAT_SOON
    return Problem(
        code=f"{measure.value}_{code.value}",
        severity=severe if remedy and _certain(judged, measure, band, reading) else Severity.WATCH,
        remedy=remedy or Message("Test it again"),
        reason=reason,
        measure=measure,
    )


def _certain(judged: Judged, measure: Measure, band: Band, reading: Reading) -> bool:
    """Beyond by more than the reading's doubt; chlorine also by now, since it falls by itself."""
    value, expected = reading.value, judged.expected_mg_l
    if measure is Measure.FREE_CHLORINE and expected is not None:
        now = verdict(measure, expected, band).code
        if now is not verdict(measure, value.value, band).code:
            return False
    high = band.high
    if measure is Measure.FREE_CHLORINE and high is not None:
        high = max(high, judged.swim_limit_mg_l)  # up to there it is comfort, and falls by itself
    over = high is not None and value.low > high
    under = band.low is not None and value.high < band.low
    return over or under


def _unmet(judged: Judged, measure: Measure) -> Message | None:
    unmet = judged.offered.unmet if judged.offered else ()
    return next((one.reason for one in unmet if one.measure is measure), None)

"""A measure beyond its band: how it is said, whether it is certain, what the offered plan does about it.

Source: school-household.
"""

from collections.abc import Mapping
from dataclasses import replace

from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import FindingSeverity, Problem, Remedy, RemedyKind
from kumpan.core.dosing.mass_balance import BALANCED
from kumpan.core.journal import Reading, needs_rescue
from kumpan.core.messages import Cased, Message
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.shown import shown
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import VerdictCode
from kumpan.core.treatment.plan import Plan

SOURCE = "school-household"

NOT_RECKONED = Readings()  # a case without the expected water is judged by its readings
K, S, M = RemedyKind, FindingSeverity, Measure
_HIGH = VerdictCode.HIGH
BY_A_RESCUE = (M.FREE_CHLORINE, M.PH)
CODES: Mapping[Measure, str] = {M.PHOSPHATE: "phosphate", M.COMBINED_CHLORINE: "combined"}


def by_now(case: Case, measure: Measure) -> Reading | None:
    """A reading moved by what went in or out since; None where that is not known, or it is too old."""
    reading, now = case.current(measure), case.expected.value(measure)
    if reading is None:
        return None
    if measure not in BALANCED or case.expected == NOT_RECKONED:
        return reading
    if now is None:
        return None
    shift = now - reading.value.value
    value = replace(
        reading.value, value=now, low=max(0.0, reading.value.low + shift), high=reading.value.high + shift
    )
    return Reading(value, reading.at)


def certain(reading: Reading, band: Band) -> bool:
    """Beyond by more than the reading's own doubt."""
    over = band.high is not None and reading.value.low > band.high
    under = band.low is not None and reading.value.high < band.low
    return over or under


def moved(offered: Plan | None) -> frozenset[Measure]:
    """What the offered plan brings nearer."""
    if offered is None:
        return frozenset()
    return frozenset(measure for step in offered.steps if step.kind == "add" for measure in step.measures)


def plan_for(case: Case, measure: Measure) -> Remedy | None:
    """The plan that is offered, where it moves this measure; a rescue has chlorine and pH of its own."""
    if measure in BY_A_RESCUE and needs_rescue(case.state):
        going = case.state.rescue_goes_on
        text = Message("Go on with the rescue") if going else Message("Plan the rescue")
        return Remedy(kind=K.PLAN, plan="rescue", measures=(measure,), text=text)
    if measure not in moved(case.offered):
        return None
    return Remedy(
        kind=K.PLAN,
        plan="balance",
        measures=(measure,),
        text=Message("Follow the plan for {measure}", measure=name_in_sentence(measure)),
    )


def left_by_the_plan(case: Case, measure: Measure) -> Remedy:
    """What the plan says it cannot do; else the test that would tell."""
    unmet = case.offered.unmet if case.offered else ()
    left = next((one for one in unmet if one.measure is measure), None)
    if left is None or left.code in (
        "within_doubt",
        "too_old",
        "not_tested",
        "needs_other_reading",
    ):
        text = left.reason if left is not None else Message("Test it again")
        return Remedy(kind=K.TEST, measures=(measure,), text=text)
    kind = K.BUY if left.code == "nothing_suitable_at_hand" else K.PROCEDURE
    return Remedy(
        kind=kind, measures=(measure,), text=left.reason, procedure="care" if kind is K.PROCEDURE else None
    )


def edge_reason(measure: Measure, reading: Reading, band: Band, side: VerdictCode) -> Message:
    """That a reading is over or under its edge."""
    high = side is _HIGH
    edge = (band.high if high else band.low) or 0.0
    return Message(
        "{measure} {value} is {side} {edge}.",
        measure=Cased(name_in_sentence(measure), upper=measure is not M.PH),
        value=shown(measure, reading.value.value, edge),
        side=Message("over") if high else Message("under"),
        edge=Number(edge),
    )


def finding_of(
    measure: Measure, side: VerdictCode, severity: FindingSeverity, *, remedy: Remedy, reason: Message
) -> Problem:
    """The finding of one measure beyond its band."""
    return Problem(
        code=f"{CODES.get(measure, measure.value)}_{side.value}",
        severity=severity,
        remedy=remedy,
        reason=reason,
        measures=(measure,),
        law="A.2",
    )

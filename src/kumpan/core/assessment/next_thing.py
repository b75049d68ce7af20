"""The one next thing to do at a pool, and why: the remedy of what is most urgent. Source: test-interval."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.assessment.findings import Judged, Problem, Severity, problems
from kumpan.core.assessment.swim import latest_addition
from kumpan.core.journal import PoolState, open_treatment, recorded_steps, steps_to_do
from kumpan.core.messages import NOTHING, Cased, Message, joined, listed
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.testing.rhythm import TEST_EVERY, TEST_HOLDS_DAYS
from kumpan.core.treatment.order_and_waits import ACIDS
from kumpan.core.treatment.plan import Plan

SOURCE = "test-interval"

BEFORE_A_DOSE = ("sharp_smell", "low", "leak", "weak_returns")  # no flow, no mixing; what is dosed is unknown
LOWERING = (*ACIDS, "sodium_thiosulfate")


@dataclass(frozen=True)
class NextThing:
    """`station` is the screen where it is done: slip, sheet, board or rescue."""

    text: Message
    why: Message
    station: str
    due: datetime | None = None


def next_thing(judged: Judged) -> NextThing:
    """What to do next: finish what is open, test, treat, dose, or nothing until the next test."""
    found = problems(judged)
    return (
        _what_is_open(judged.state)
        or _remedy(found, Severity.CLOSES_POOL)
        or _rescue(judged.state)
        or _first_a_test(judged)
        or _doses(judged.offered, found)
        or _remedy(found, Severity.TREAT_SOON)
        or _nothing(judged.state, found)
    )


def _what_is_open(state: PoolState) -> NextThing | None:
    treatment = open_treatment(state)
    if treatment is not None:
        done = recorded_steps(state, treatment.id)
        step = next(treatment.body.steps[n] for n in steps_to_do(treatment.body) if n not in done)
        return NextThing(Message("Go on with the sheet: {step}", step=Cased(step.title)), step.why, "sheet")
    if state.rescue_goes_on:
        why = Message("What is due now follows from the last test and look.")
        return NextThing(Message("Go on with the rescue"), why, "rescue")
    return None


def _remedy(found: Sequence[Problem], up_to: Severity) -> NextThing | None:
    first = next((problem for problem in found if problem.severity <= up_to), None)
    return NextThing(first.remedy, first.reason, first.station) if first else None


def _rescue(state: PoolState) -> NextThing | None:
    if not _turned(state):
        return None
    why = Message(
        "The drain cannot be seen. The board says what it takes, how long, and whether draining is better."
    )
    return NextThing(Message("Plan the rescue"), why, "rescue")


def _first_a_test(judged: Judged) -> NextThing | None:
    test, now = judged.state.last_test, judged.now
    if test is None:
        return NextThing(Message("Test the water"), Message("Without a test nobody knows."), "slip")
    if now - test.at > timedelta(days=TEST_HOLDS_DAYS):
        why = Message("The last test is {days} days old.", days=Number((now - test.at).days))
        return NextThing(Message("Test the water"), why, "slip")
    poured = latest_addition(judged.state)
    if poured is not None and poured.at > test.at:
        return NextThing(Message("Test the water"), Message("Something went in since the last test."), "slip")
    return None


def _doses(offered: Plan | None, found: Sequence[Problem]) -> NextThing | None:
    """The plan, unless something comes before anything is poured."""
    if offered is None or not offered.steps:
        return None
    before = [problem for problem in found if problem.code in BEFORE_A_DOSE]
    return _remedy(before, Severity.TREAT_TODAY) or NextThing(*_doses_in_words(offered), "sheet")


def _nothing(state: PoolState, found: Sequence[Problem]) -> NextThing:
    due = state.last_test.at + TEST_EVERY if state.last_test else None
    why = Message("What was tested is where it should be.")
    if found:
        why = Message("To watch: {reasons}", reasons=joined((one.reason for one in found), " "))
    return NextThing(Message("Nothing to add"), why, "slip", due)


def _turned(state: PoolState) -> bool:
    visual_check = state.last_visual_check
    return visual_check is not None and visual_check.floor_hidden


def _doses_in_words(offered: Plan) -> tuple[Message, Message]:
    """What the sheet moves, and which way; chlorine first since it decides about swimming."""
    adds = [step for step in offered.steps if step.kind == "add"]
    strategies: dict[str, list[Measure]] = {}
    for step in adds:
        strategy = "lower" if step.chemical in LOWERING else "raise"
        for measure in step.measures:
            if measure not in strategies.setdefault(strategy, []):
                strategies[strategy].append(measure)
    for measures in strategies.values():
        measures.sort(key=lambda measure: measure is not Measure.FREE_CHLORINE)
    order = sorted(strategies, key=lambda strategy: Measure.FREE_CHLORINE not in strategies[strategy])
    first = adds[0]
    said = Message(
        "The sheet begins with {amount} of {product}. {why}",
        amount=first.rounded_text or NOTHING,
        product=first.title,
        why=first.why,
    )
    moves = joined(_MOVES[strategy](strategies[strategy]) for strategy in order)
    return Message("{moves}", moves=Cased(Message("{moves}", moves=moves), upper=True)), said


_MOVES: Mapping[str, Callable[[Sequence[Measure]], Message]] = {
    "raise": lambda measures: Message("raise {measures}", measures=listed(map(name_in_sentence, measures))),
    "lower": lambda measures: Message("lower {measures}", measures=listed(map(name_in_sentence, measures))),
}

"""The one next thing to do at a pool, and why. Source: test-interval."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.assessment.swim import latest_addition
from kumpan.core.journal import Clarity, PoolState, open_treatment, recorded_steps, steps_to_do
from kumpan.core.messages import NOTHING, Cased, Message, joined, listed
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.testing.rhythm import TEST_EVERY, TEST_HOLDS_DAYS
from kumpan.core.treatment.order_and_waits import ACIDS
from kumpan.core.treatment.plan import Plan

SOURCE = "test-interval"

LOWERING = (*ACIDS, "sodium_thiosulfate")


@dataclass(frozen=True)
class NextThing:
    """`station` is the screen where it is done: slip, sheet, board or rescue."""

    text: Message
    why: Message
    station: str
    due: datetime | None = None


def next_thing(state: PoolState, offered: Plan | None, now: datetime) -> NextThing:
    """What to do next: finish the open sheet, test, dose, or nothing until the next test."""
    treatment = open_treatment(state)
    if treatment is not None:
        done = recorded_steps(state, treatment.id)
        step = next(treatment.body.steps[n] for n in steps_to_do(treatment.body) if n not in done)
        return NextThing(Message("Go on with the sheet: {step}", step=Cased(step.title)), step.why, "sheet")
    if state.rescue_goes_on:
        return NextThing(
            Message("Go on with the rescue"),
            Message("What is due now follows from the last test and look."),
            "rescue",
        )
    if _turned(state):
        why = Message(
            "The drain cannot be seen. The board says what it takes, how long, and whether draining is "
            "better."
        )
        return NextThing(Message("Plan the rescue"), why, "rescue")
    test = state.last_test
    if test is None:
        return NextThing(Message("Test the water"), Message("Without a test nobody knows."), "slip")
    if now - test.at > timedelta(days=TEST_HOLDS_DAYS):
        return NextThing(
            Message("Test the water"),
            Message("The last test is {days} days old.", days=Number((now - test.at).days)),
            "slip",
        )
    poured = latest_addition(state)
    if poured is not None and poured.at > test.at:
        return NextThing(Message("Test the water"), Message("Something went in since the last test."), "slip")
    if offered is not None and offered.steps:
        return NextThing(*_doses_in_words(offered), "sheet")
    return NextThing(
        Message("Nothing to add"),
        Message("What was tested is where it should be."),
        "slip",
        test.at + TEST_EVERY,
    )


def _turned(state: PoolState) -> bool:
    visual_check = state.last_visual_check
    return visual_check is not None and visual_check.clarity in (Clarity.GREEN, Clarity.DRAIN_HIDDEN)


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

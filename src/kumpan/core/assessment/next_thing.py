"""The one next thing to do at a pool, and why. Source: test-interval."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.assessment.swim import latest_addition
from kumpan.core.journal import Clarity, PoolState, open_treatment, recorded_steps, steps_to_do
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.rhythm import TEST_EVERY, TEST_HOLDS_DAYS
from kumpan.core.treatment.order_and_waits import ACIDS
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.schedule import listed

SOURCE = "test-interval"

LOWERING = (*ACIDS, "sodium_thiosulfate")


@dataclass(frozen=True)
class NextThing:
    """`station` is the screen where it is done: slip, sheet, board or rescue."""

    text: str
    why: str
    station: str
    due: datetime | None = None


def next_thing(state: PoolState, offered: Plan | None, now: datetime) -> NextThing:
    """What to do next: finish the open sheet, test, dose, or nothing until the next test."""
    treatment = open_treatment(state)
    if treatment is not None:
        done = recorded_steps(state, treatment.id)
        step = next(treatment.body.steps[n] for n in steps_to_do(treatment.body) if n not in done)
        return NextThing(f"Go on with the sheet: {_lower(step.title)}", step.why, "sheet")
    if state.rescue_goes_on:
        return NextThing(
            "Go on with the rescue", "What is due now follows from the last test and look.", "rescue"
        )
    if _turned(state):
        why = "The drain cannot be seen. The board says what it takes, how long, and whether draining is better."
        return NextThing("Plan the rescue", why, "rescue")
    test = state.last_test
    if test is None:
        return NextThing("Test the water", "Without a test nobody knows.", "slip")
    if now - test.at > timedelta(days=TEST_HOLDS_DAYS):
        return NextThing("Test the water", f"The last test is {(now - test.at).days} days old.", "slip")
    poured = latest_addition(state)
    if poured is not None and poured.at > test.at:
        return NextThing("Test the water", "Something went in since the last test.", "slip")
    if offered is not None and offered.steps:
        return NextThing(*_doses_in_words(offered), "sheet")
    return NextThing("Nothing to add", "What was tested is where it should be.", "slip", test.at + TEST_EVERY)


def _turned(state: PoolState) -> bool:
    visual_check = state.last_visual_check
    return visual_check is not None and visual_check.clarity in (Clarity.GREEN, Clarity.DRAIN_HIDDEN)


def _lower(title: str) -> str:
    return title if title[:2] == "pH" else title[0].lower() + title[1:]


def _doses_in_words(offered: Plan) -> tuple[str, str]:
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
    parts = [
        f"{strategy} {listed([name_in_sentence(measure) for measure in strategies[strategy]])}"
        for strategy in order
    ]
    text, first = ", ".join(parts), adds[0]
    said = f"The sheet begins with {first.rounded_text} of {first.title}. {first.why}"
    return text[0].upper() + text[1:], said

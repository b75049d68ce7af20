"""A metric reader is told metric amounts: no ounces, gallons or pounds in any plan of random pools."""

import re
from dataclasses import replace

import pytest

from kumpan.core.dosing.feeding import tablet_note
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.core.records.display import DisplayOptions
from kumpan.core.training.plan_laws import drawn
from kumpan.core.treatment.amount_ranges import TYPED, with_ranges
from kumpan.core.treatment.careful import careful_plan
from kumpan.core.treatment.special.mineral import mineral_plan
from tests.core.treatment.special.test_lower_chlorine_and_others import MINERAL, special
from tests.words import told

# Rules of the trade are quoted as they are said, with the metric figure beside them.
QUOTED = re.compile(r"1 lb per 10,000 gal \(12 g per 1000 L\)|The rule says .*?: here")
AMERICAN = re.compile(r"\d\s*(?:fl )?(?:oz|lb|gal|qt|ft|psi)\b")


def sentences_of(plan: object) -> list[str]:
    found: list[Message | None] = []
    for step in plan.steps:  # type: ignore[attr-defined]
        found += [step.title, step.why, step.rounded_text]
    found += [left.reason for left in plan.unmet]  # type: ignore[attr-defined]
    found += [note.text for note in plan.notes]  # type: ignore[attr-defined]
    return [QUOTED.sub("", told(one, Units.METRIC)) for one in found]


@pytest.mark.parametrize("first", range(0, 200, 50))
def test_no_american_unit_in_a_plan_of_a_metric_reader(first: int) -> None:
    for number in range(first, first + 50):
        inputs = replace(drawn(number).inputs, display=DisplayOptions(units=Units.METRIC))
        plan = with_ranges(careful_plan(inputs), inputs, TYPED)
        wrong = [text for text in sentences_of(plan) if AMERICAN.search(text)]
        assert wrong == []


def test_nor_in_the_weekly_notes() -> None:
    minerals = mineral_plan(special(traits=MINERAL, volume_l=75_000.0))
    texts = [told(tablet_note(1.4, 60_000).text, Units.METRIC), *sentences_of(minerals)]
    assert [text for text in texts if AMERICAN.search(text)] == []
    assert AMERICAN.search(told(tablet_note(1.4, 60_000).text))

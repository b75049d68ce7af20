"""Reading what somebody advised, and what it would do."""

import pytest

from kumpan.core.pool.equipment import Traits
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.treatment.special.second_opinion import SecondOpinion, advised_plan, second_opinion
from tests.core.samples import INDOOR, PLASTER, SALT_POOL
from tests.words import told

WATER = Readings(
    free_chlorine=1, ph=7.4, total_alkalinity=70, calcium_hardness=200, cyanuric_acid=30, salt=1500
)
LITRES = 60_000.0


def of(text: str, readings: Readings = WATER) -> SecondOpinion:
    return second_opinion(text, readings, LITRES, PLASTER)


@pytest.mark.parametrize(
    ("text", "chemical", "grams"),
    [
        ("salt 20kg", "sodium_chloride", 20_000),
        ("buffer 400g", "sodium_bicarbonate", 400),
        ("2,5 kg of pH Up", "sodium_carbonate", 2_500),
        ("3 lb 4 oz stabilizer", "cyanuric_acid", 1_474.2),
        ("½ gal liquid chlorine 10 %", "sodium_hypochlorite", 1892.7 * 1.13),
        ("acid: 1 qt", "hydrochloric_acid", 946.35 * 1.16),
        ("Hardness Increaser 5 lb", "calcium_chloride", 2_267.96),
        ("calcium hypochlorite 1 lb", "calcium_hypochlorite", 453.59),
    ],
)
def test_shop_words_and_their_amounts(text: str, chemical: str, grams: float) -> None:
    found = of(text)
    assert found.unread == ()
    assert [row.product.chemical for row in found.advice] == [chemical]
    assert found.advice[0].mass_g == pytest.approx(grams, rel=1e-3)


def test_several_at_once_in_any_separation() -> None:
    for text in (
        "salt 20kg, buffer 400g",
        "salt 20kg; buffer 400g",
        "salt 20kg and buffer 400g",
        "salt 20kg + buffer 400g",
    ):
        assert [row.product.chemical for row in of(text).advice] == ["sodium_chloride", "sodium_bicarbonate"]


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("magic 3 kg", "not known"),
        ("salt", "no amount"),
        ("salt 1 qt", "does not fit"),
        ("bleach 0% 1 gal", "no strength"),
        ("chlorine 120% 1 gal", "no strength"),
    ],
)
def test_what_is_not_understood_says_the_cure_and_the_rest_is_reckoned(text: str, word: str) -> None:
    found = of(f"{text}, buffer 1 kg")
    assert len(found.advice) == 1
    assert word in told(found.unread[0].text)


def test_the_outcome_is_the_engines() -> None:
    """20 kg of salt in 60,000 L: 333 mg/L.

    1 kg of baking soda: 9.92 mg/L of alkalinity by equivalents, less by titration.
    """
    found = of("salt 20 kg, buffer 1 kg")
    assert found.after.salt == pytest.approx(1500 + 333.3, abs=0.5)
    assert found.after.total_alkalinity == pytest.approx(70 + 9.92 * 0.985, abs=0.1)
    assert found.before == WATER


def test_what_cannot_be_reckoned_is_not_known() -> None:
    found = of("buffer 1 kg", Readings(total_alkalinity=70))
    assert found.after.total_alkalinity is None


def test_too_much_at_once_and_what_must_stay_apart_is_told() -> None:
    found = of("calcium 20 lb, baking soda 2 kg, liquid chlorine 1 gal, acid 1 qt")
    assert {finding.code for finding in found.findings} == {"over_limit", "apart", "at_dusk"}
    over = [finding.measure for finding in found.findings if finding.code == "over_limit"]
    assert over == [Measure.CALCIUM_HARDNESS]
    assert any("4 h apart" in told(finding.text) for finding in found.findings)
    assert any("1 h apart" in told(finding.text) for finding in found.findings)


def test_nothing_advised_changes_nothing() -> None:
    assert of("").after == WATER


# Found by use: each was taken without a word. Common practice and labels.
@pytest.mark.parametrize(
    ("text", "pool", "code"),
    [
        ("cal hypo 15 lb", PLASTER, "over_cap"),
        ("shock 1.5 lb", PLASTER, "at_dusk"),
        ("cal hypo 1 lb", SALT_POOL, "not_here"),
        ("granules 200 g", INDOOR, "not_here"),
        ("tablets 8 oz, cal hypo 8 oz", PLASTER, "not_here"),
    ],
)
def test_advice_that_breaks_a_law_is_shown_with_its_reason_and_not_scheduled(
    text: str, pool: Traits, code: str
) -> None:
    found = second_opinion(text, WATER, LITRES, pool)
    assert code in {finding.code for finding in found.findings}
    planned = advised_plan(text, WATER, LITRES, pool)
    refused = {left.code for left in planned.unmet}
    assert (code == "not_here") == ("refused" in refused)
    then = WATER.free_chlorine or 0.0
    for step in planned.steps:
        then = max(then, step.expected.get(Measure.FREE_CHLORINE, 0.0))
    assert then <= 30.5

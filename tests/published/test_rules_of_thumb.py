"""The handbook's table of rules of thumb (04): what each really adds, derived there; trade figures to a
digit.
"""

import pytest

from kumpan.core.dosing.rules_of_thumb import RULES, rule_outcome, rules_for
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import L_PER_US_GAL

M = Measure
BY_KEY = {rule.key: rule for rule in RULES}
LITRES = 20_000 * L_PER_US_GAL


@pytest.mark.parametrize(
    ("key", "measure", "adds", "tolerance"),
    [
        ("weekly_granules", M.FREE_CHLORINE, 1.7, 0.05),
        ("weekly_liquid", M.FREE_CHLORINE, 10.0, 0.2),
        ("weekly_tablet", M.FREE_CHLORINE, 10.8, 0.06),
        ("weekly_tablet", M.CYANURIC_ACID, 6.5, 0.1),
        ("bag_calcium", M.FREE_CHLORINE, 7.8, 0.05),
        ("bag_calcium", M.CALCIUM_HARDNESS, 5.5, 0.05),
        ("bag_dichlor", M.FREE_CHLORINE, 6.7, 0.05),
        ("bag_dichlor", M.CYANURIC_ACID, 6.1, 0.05),
        ("bloom", M.FREE_CHLORINE, 31.0, 0.3),
    ],
)
def test_what_a_rule_really_adds(key: str, measure: Measure, adds: float, tolerance: float) -> None:
    assert rule_outcome(BY_KEY[key], LITRES).brings[measure] == pytest.approx(adds, abs=tolerance)


def test_the_three_weekly_rules_differ_six_to_eightfold() -> None:
    weekly = [rule_outcome(rule, LITRES).brings[M.FREE_CHLORINE] for rule in RULES if rule.per_week]
    assert 6 <= max(weekly) / min(weekly) <= 8


def test_a_rule_brings_the_same_to_every_pool_and_more_grams_to_a_larger_one() -> None:
    small, large = (
        rule_outcome(BY_KEY["bag_calcium"], LITRES / 10),
        rule_outcome(BY_KEY["bag_calcium"], LITRES),
    )
    assert small.brings == pytest.approx(large.brings)
    # 2000 gal takes a fifth of the bag
    assert small.mass_g == pytest.approx(453.592 / 5)


def test_rules_are_found_by_chemical() -> None:
    assert {rule.key for rule in rules_for("sodium_dichlor")} == {"weekly_granules", "bag_dichlor"}
    assert rules_for("sodium_chloride") == ()

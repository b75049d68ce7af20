"""Values that a practitioner doubts on sight (common practice)."""

import pytest

from kumpan.core.quantities.readings import Readings
from kumpan.core.testing.plausibility import questions
from tests.words import told


@pytest.mark.parametrize(
    ("now", "code"),
    [
        (Readings(free_chlorine=3, total_chlorine=2), "total_below_free"),
        (Readings(free_chlorine=2, total_chlorine=3), "combined_high"),
        (Readings(ph=8.6), "ph_unusual"),
        (Readings(ph=6.6), "ph_unusual"),
        (Readings(free_chlorine=12), "bleaching"),
        (Readings(total_alkalinity=20, cyanuric_acid=100), "alkalinity_below_stabiliser"),
    ],
)
def test_doubtful_values_are_questioned(now: Readings, code: str) -> None:
    assert code in {finding.code for finding in questions(now)}


def test_a_good_test_raises_no_doubt() -> None:
    assert (
        questions(
            Readings(free_chlorine=2, total_chlorine=2.2, ph=7.5, total_alkalinity=100, cyanuric_acid=40)
        )
        == ()
    )


@pytest.mark.parametrize(
    ("now", "before", "says"),
    [
        (Readings(cyanuric_acid=90), Readings(cyanuric_acid=40), "rises only by stabilizer"),
        (Readings(cyanuric_acid=10), Readings(cyanuric_acid=60), "falls only by dilution"),
        (Readings(salt=4000), Readings(salt=3000), "rises only when salt"),
        (Readings(calcium_hardness=100), Readings(calcium_hardness=300), "falls only by dilution"),
        (Readings(free_chlorine=0), Readings(free_chlorine=15), "bleached"),
    ],
)
def test_jumps_that_the_journal_cannot_explain(now: Readings, before: Readings, says: str) -> None:
    assert any(says in told(finding.text) for finding in questions(now, before))


def test_one_drop_of_combined_is_not_a_doubt() -> None:
    assert not questions(Readings(free_chlorine=1.6, total_chlorine=2.1))

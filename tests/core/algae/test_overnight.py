"""The overnight test as a law: what is lost in the dark is eaten, what the sun took is none of it (handbook
07).
"""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.algae.overnight import LEAST_EVENING_MG_L, MOST_LOST_MG_L, night
from tests.core.algae.cases import Case

DUSK = datetime(2026, 6, 3, 2, 0, tzinfo=UTC)
DAWN = DUSK + timedelta(hours=9)
CHLORINE = st.floats(0.0, 30.0)


@given(CHLORINE, CHLORINE)
def test_in_the_dark_all_that_is_missing_was_eaten(evening: float, morning: float) -> None:
    found = night(DUSK, DAWN, evening, morning)
    assert found.lost_mg_l == pytest.approx(max(0.0, evening - morning))
    assert found.sun_mg_l == 0.0


@given(CHLORINE, CHLORINE, st.floats(0.0, 0.4))
def test_light_only_ever_excuses(evening: float, morning: float, share: float) -> None:
    """What the sun took is reckoned off; a night never holds less for it."""
    dark, light = night(DUSK, DAWN, evening, morning), night(DUSK, DAWN, evening, morning, share)
    assert light.lost_mg_l <= dark.lost_mg_l + 1e-9
    assert light.holds or not dark.holds


@given(st.floats(LEAST_EVENING_MG_L, 30.0), st.floats(0.0, 3.0))
def test_it_holds_just_where_at_most_one_is_lost(evening: float, lost: float) -> None:
    found = night(DUSK, DAWN, evening, max(0.0, evening - lost))
    assert found.holds is (found.lost_mg_l <= MOST_LOST_MG_L + 1e-9)


@given(st.floats(0.0, LEAST_EVENING_MG_L - 0.01))
def test_with_next_to_nothing_in_it_no_night_holds(evening: float) -> None:
    assert not night(DUSK, DAWN, evening, evening).holds


@pytest.mark.parametrize(
    ("evening_h", "morning_h", "counts"),
    [(14, 24, 1), (14, 18, 0), (14, 31, 0), (1, 10, 0), (18, 24, 1)],
)
def test_which_pairs_of_tests_make_a_night(evening_h: int, morning_h: int, counts: int) -> None:
    """Hours after seven in the morning: long enough, not too long, and in the dark."""
    case = Case().begin()
    case.later(hours=evening_h).test(free_chlorine=9.0)
    case.later(hours=morning_h - evening_h).test(free_chlorine=8.5)
    assert len(case.request().nights) == counts


@pytest.mark.parametrize(("poured_after_h", "counts"), [(-2.0, 1), (-0.2, 0), (3.0, 0), (9.9, 0), (10.5, 1)])
def test_a_pour_between_or_just_before_disturbs_it(poured_after_h: float, counts: int) -> None:
    """Hours after the evening's test; what went in half an hour before was not mixed yet."""
    case = Case().begin().later(hours=14)
    evening = case.now
    case.now = evening + timedelta(hours=min(0.0, poured_after_h))
    if poured_after_h < 0:
        case.pour(3.0)
    case.now = evening
    case.test(free_chlorine=9.0)
    if 0 <= poured_after_h < 10:
        case.later(hours=poured_after_h).pour(3.0)
    case.now = evening + timedelta(hours=10)
    case.test(free_chlorine=8.5)
    if poured_after_h >= 10:
        case.later(hours=0.5).pour(3.0)
    assert len(case.request().nights) == counts

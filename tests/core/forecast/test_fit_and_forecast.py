"""The filter, the fit and the forecast: laws, and truths of their own making that they must find."""

from datetime import timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.forecast.chlorine import Factors, course
from kumpan.core.forecast.conditions import Pulse, conditions
from kumpan.core.forecast.filtering import (
    Belief,
    Observation,
    Segment,
    carried,
    filtered,
    segments,
    updated,
)
from kumpan.core.forecast.fit import DAYS_FITTED, USUAL_SD, fit
from kumpan.core.forecast.forecast import first_under, forecast, under_for_good
from kumpan.core.journal import PoolState, TestTaken
from tests.core.journals import PLACE, START, bleach, reads, state

DAY_S = 86_400.0
BEGUN = START.timestamp()
FULL = {"ph": 7.5, "cyanuric_acid": 40.0, "temperature_c": 26.0}
STILL = Segment(keep=0.5, gain=0.5, brought=0.5, pour_variance=0.0, days=2.0)


def made_by(factors: Factors, days: int = 42, dose: float = 2.5, every: float = 1.0) -> PoolState:
    """Exact tests of a pool that obeys the model with these factors, dosed after each."""
    doses = [(day + 0.02, bleach(dose)) for day in np.arange(0, days, every)]
    bare = state((0, reads(free_chlorine=3, **FULL)), *doses)
    acting = conditions(bare, PLACE, BEGUN, BEGUN + days * DAY_S)
    values = course(acting, factors, 3.0)
    tests = []
    for day in np.arange(0, days, every):
        free = float(np.interp(BEGUN + day * DAY_S, acting.knots_s, values))
        tests.append((float(day), reads(free_chlorine=free, **FULL)))
    return state(*tests, *doses)


@settings(max_examples=60)
@given(st.floats(-0.5, 0.5), st.floats(-1, 0.3), st.floats(3, 6))
def test_a_segment_is_the_chain_of_its_hours(sun: float, organics: float, start: float) -> None:
    pool = state((0, reads(free_chlorine=3, **FULL)), (0.4, bleach(20)))
    acting = conditions(pool, PLACE, BEGUN, BEGUN + 1.5 * DAY_S)
    factors = Factors(sun, organics)
    whole = segments(acting, factors, [0, len(acting.knots_s) - 1])[0]
    values = course(acting, factors, start)
    assert whole.keep * start + whole.gain == pytest.approx(float(values[-1]), abs=1e-9)


def test_segments_join() -> None:
    pool = state((0, reads(free_chlorine=3, **FULL)), (0.4, bleach(3)))
    acting = conditions(pool, PLACE, BEGUN, BEGUN + DAY_S)
    one, other = segments(acting, Factors(), [0, 10, len(acting.knots_s) - 1])
    whole = segments(acting, Factors(), [0, len(acting.knots_s) - 1])[0]
    assert other.keep * (one.keep * 2 + one.gain) + other.gain == pytest.approx(whole.keep * 2 + whole.gain)
    assert segments(acting, Factors(), [3]) == []


def test_a_test_moves_the_belief_by_its_share() -> None:
    """Kalman's textbook case: variance 1 against 1 meets half way and halves."""
    after = updated(Belief(mean=2.0, variance=1.0), 3.0, 1.0)
    assert after.mean == pytest.approx(2.5)
    assert after.variance == pytest.approx(0.5)


def test_a_wild_reading_counts_less() -> None:
    sane, wild = (
        updated(Belief(mean=2.0, variance=0.1), 2.5, 0.2),
        updated(Belief(mean=2.0, variance=0.1), 9.0, 0.2),
    )
    assert (wild.mean - 2.0) / 7.0 < 0.6 * (sane.mean - 2.0) / 0.5


def test_an_extra_loss_lowers_what_comes_and_fades() -> None:
    plain = carried(Belief(mean=2.0, variance=0.1, extra=0.0, extra_variance=0.1), STILL, 0.3)
    worse = carried(Belief(mean=2.0, variance=0.1, extra=0.5, extra_variance=0.1), STILL, 0.3)
    assert worse.mean < plain.mean
    assert 0 < worse.extra < 0.5
    assert (
        carried(Belief(mean=2.0, variance=0.1), STILL, 0.6).variance
        > carried(Belief(mean=2.0, variance=0.1), STILL, 0.1).variance
    )


def test_the_floor_holds() -> None:
    assert (
        carried(
            Belief(mean=0.1, variance=0.1),
            Segment(keep=0.5, gain=-3.0, brought=0.0, pour_variance=0.0, days=2.0),
            0.3,
        ).mean
        == 0.0
    )


@pytest.mark.parametrize(("sun", "organics"), [(0.5, 0.0), (-0.5, 0.0), (0.0, 0.8), (0.3, -0.5)])
def test_the_fit_finds_how_much_a_pool_loses(sun: float, organics: float) -> None:
    """Sun and organics trade off against each other; their sum, the daily loss, is found."""
    truth = Factors(sun, organics)
    found = fit(made_by(truth), PLACE)
    assert found is not None
    pool = state((0, reads(free_chlorine=3, **FULL)))
    acting = conditions(pool, PLACE, BEGUN, BEGUN + 2 * DAY_S)
    assert course(acting, found.factors, 4.0)[-1] == pytest.approx(course(acting, truth, 4.0)[-1], abs=0.3)


def test_more_tests_narrow_the_fit() -> None:
    few, many = fit(made_by(Factors(0.3), days=8), PLACE), fit(made_by(Factors(0.3), days=42), PLACE)
    assert few is not None
    assert many is not None
    assert many.narrowed["organics"] > few.narrowed["organics"] > 0
    assert all(0 <= share < 1 for share in many.narrowed.values())


def test_one_test_leaves_the_usual_figures() -> None:
    found = fit(state((0, reads(free_chlorine=2, **FULL))), PLACE)
    assert found is not None
    assert found.values[:3] == (0.0, 0.0, 0.0)
    assert np.sqrt(np.diag(found.covariance)) == pytest.approx(USUAL_SD)


def test_no_test_no_fit() -> None:
    assert fit(state((0, reads(ph=7.5))), PLACE) is None


def test_tests_of_another_season_do_not_count() -> None:
    old = (-DAYS_FITTED - 30, reads(free_chlorine=9, **FULL))
    new = (0.0, reads(free_chlorine=2, **FULL))
    later = (3.0, reads(free_chlorine=1, **FULL))
    found = fit(state(old, new, later), PLACE)
    assert found is not None
    assert found.tests == 2


def test_the_forecast_begins_at_the_test_and_widens() -> None:
    pool = made_by(Factors())
    found = fit(pool, PLACE)
    assert found is not None
    ahead = forecast(pool, PLACE, found, found.last_at_s + 5 * DAY_S)
    width = ahead.high - ahead.low
    assert np.all(ahead.low <= ahead.likely)
    assert np.all(ahead.likely <= ahead.high)
    assert width[30] > width[0]
    assert ahead.at(found.last_at_s)[1] == pytest.approx(found.last.mean, abs=0.01)


def test_a_planned_dose_lifts_the_forecast_and_postpones_the_low() -> None:
    pool = made_by(Factors(), dose=1.0)
    found = fit(pool, PLACE)
    assert found is not None
    until = found.last_at_s + 10 * DAY_S
    bare = forecast(pool, PLACE, found, until)
    dosed = forecast(pool, PLACE, found, until, [Pulse(found.last_at_s + DAY_S, 3.0)])
    assert dosed.at(found.last_at_s + 2 * DAY_S)[1] > bare.at(found.last_at_s + 2 * DAY_S)[1] + 1
    one, other = (first_under(each, 0.5, found.last_at_s + DAY_S) for each in (bare, dosed))
    assert one is not None
    assert other is None or other - one > timedelta(hours=12)


def test_after_a_shock_the_swim_limit_comes_first_likely_then_surely() -> None:
    pool = state((0, reads(free_chlorine=3, **FULL)), (0.01, bleach(10)))
    found = fit(pool, PLACE)
    assert found is not None
    ahead = forecast(pool, PLACE, found, BEGUN + 14 * DAY_S)
    likely = first_under(ahead, 4.0, BEGUN + 0.1 * DAY_S)
    surely = under_for_good(ahead, 4.0, BEGUN + 0.1 * DAY_S)
    assert likely is not None
    assert surely is not None
    assert START < likely < surely
    assert under_for_good(ahead, 99.0, BEGUN) == START


def test_two_tests_at_one_moment_are_one() -> None:
    twice = state(
        (0, reads(free_chlorine=3, **FULL)), (1, reads(free_chlorine=2)), (1, reads(free_chlorine=2.2))
    )
    assert fit(twice, PLACE) is not None


def test_filtering_believes_the_first_test() -> None:
    pool = state((0, reads(free_chlorine=3, **FULL)))
    acting = conditions(pool, PLACE, BEGUN, BEGUN + DAY_S)
    beliefs = filtered(acting, Factors(), 0.3, [Observation(0, 3.0, 0.2), Observation(24, 2.0, 0.2)])
    assert beliefs[0].mean == 3.0
    assert len(beliefs) == 2
    assert isinstance(reads(ph=7.0), TestTaken)

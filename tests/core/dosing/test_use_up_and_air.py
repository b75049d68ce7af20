"""Laws of gas exchange and of chlorine's use-up."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.chemistry.equilibrium import solve_totals
from kumpan.core.chemistry.gas_exchange import aerated_to_ph, carbon_at_ph, exchanged
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.use_up import used_up
from kumpan.core.errors import InvalidInput
from kumpan.core.products.product import Product
from tests.core.samples import engine_state

LITRES = 60_000.0
PH, ALKALINITY = st.floats(7.0, 8.0), st.floats(70, 200)


@settings(max_examples=40, deadline=None)
@given(PH, ALKALINITY, st.floats(0.05, 3), st.floats(0.1, 5))
def test_open_water_loses_carbon_keeps_alkalinity_and_its_ph_rises(
    ph: float, alkalinity: float, velocity: float, days: float
) -> None:
    start = engine_state(ph=ph, total_alkalinity=alkalinity, cyanuric_acid=30)
    after = exchanged(start.totals, velocity, 1.5, days)
    assert after.carbon < start.totals.carbon
    assert after._replace(carbon=start.totals.carbon) == start.totals
    assert float(solve_totals(after).species.ph) > ph


@settings(max_examples=25, deadline=None)
@given(PH, ALKALINITY, st.floats(0.2, 3))
def test_two_short_times_are_one_long(ph: float, alkalinity: float, days: float) -> None:
    start = engine_state(ph=ph, total_alkalinity=alkalinity, cyanuric_acid=30).totals
    once = exchanged(start, 0.4, 1.5, 2 * days)
    twice = exchanged(exchanged(start, 0.4, 1.5, days), 0.4, 1.5, days)
    assert float(once.carbon) == pytest.approx(float(twice.carbon), rel=1e-4)


def test_no_exchange_without_velocity_or_time() -> None:
    totals = engine_state(ph=7.5, total_alkalinity=100, cyanuric_acid=30).totals
    assert exchanged(totals, 0.0, 1.5, 10) is totals
    assert exchanged(totals, 1.0, 1.5, 0) is totals


def test_more_alkaline_and_more_acid_waters_drift_faster() -> None:
    """Common practice: high alkalinity drives pH up; that is why it is lowered in a salt pool."""

    def rise(ph: float, alkalinity: float) -> float:
        totals = engine_state(ph=ph, total_alkalinity=alkalinity, cyanuric_acid=40).totals
        return float(solve_totals(exchanged(totals, 0.2, 1.5, 7)).species.ph) - ph

    assert rise(7.4, 140) > rise(7.4, 70)
    assert rise(7.2, 100) > rise(7.7, 100)
    assert 0.1 < rise(7.5, 100) < 0.4  # a week of a quiet pool, common practice


@settings(max_examples=40, deadline=None)
@given(PH, ALKALINITY, st.floats(7.0, 8.2))
def test_carbon_at_a_ph_gives_that_ph(ph: float, alkalinity: float, wanted: float) -> None:
    totals = engine_state(ph=ph, total_alkalinity=alkalinity, cyanuric_acid=30).totals
    there = aerated_to_ph(totals, wanted)
    assert float(solve_totals(there).species.ph) == pytest.approx(wanted, abs=1e-6)
    if abs(wanted - ph) > 1e-6:
        assert (carbon_at_ph(totals, wanted) < totals.carbon) == (wanted > ph)


@settings(max_examples=40, deadline=None)
@given(st.sampled_from(["sodium_hypochlorite", "sodium_dichlor", "trichlor", "calcium_hypochlorite"]))
def test_adding_chlorine_and_using_it_up_is_adding_it_spent(chemical: str) -> None:
    start = engine_state(ph=7.5, total_alkalinity=100, cyanuric_acid=30, free_chlorine=0.0).totals
    product = Product("p", chemical, 65)
    fresh = added(start, product, 300, LITRES)
    spent = added(start, product, 300, LITRES, spent=True)
    gone = used_up(fresh, 1000.0)
    assert tuple(gone) == pytest.approx(tuple(spent), rel=1e-12, abs=1e-15)


def test_using_up_chlorine_takes_alkalinity_and_leaves_salt() -> None:
    """Handbook 04, derived there: 0.706 mg/L of alkalinity and 0.824 mg/L of salt a mg/L of chlorine used."""
    start = engine_state(ph=7.5, total_alkalinity=100, cyanuric_acid=30, free_chlorine=5.0).totals
    after = used_up(start, 2.0)
    assert (start.alkalinity - after.alkalinity) * 50043 == pytest.approx(2 * 0.7058, rel=1e-3)
    assert (after.chloride - start.chloride) * 58443 == pytest.approx(2 * 0.8242, rel=1e-3)
    assert after.sodium == pytest.approx(start.sodium, abs=1e-15)
    assert used_up(start, 99.0).chlorine == 0.0


def test_negative_use_up_is_wrong_use() -> None:
    with pytest.raises(InvalidInput, match="cannot be negative"):
        used_up(engine_state(ph=7.5, total_alkalinity=100, cyanuric_acid=30).totals, -1.0)

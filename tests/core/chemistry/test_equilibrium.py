"""Laws of the engine: round trips, conservation, monotony, an answer or a named reason everywhere."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.chemistry.equilibrium import NoCarbonate, State, known_from, solve_readings, solve_totals
from kumpan.core.chemistry.saturation import saturation_index
from kumpan.core.dosing.balance import for_alkalinity, for_both, for_ph
from kumpan.core.dosing.mixing import added, diluted
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product, moles_per_g
from kumpan.core.quantities.readings import Readings

LITRES = 50_000.0
ANY_WATER = st.builds(
    Readings,
    free_chlorine=st.floats(0, 30),
    ph=st.floats(5, 10),
    total_alkalinity=st.floats(0, 500),
    calcium_hardness=st.floats(0, 1500),
    cyanuric_acid=st.floats(0, 300),
    salt=st.floats(0, 40_000),
    borate=st.sampled_from([0.0, 50.0]),
    temperature_c=st.floats(0, 45),
)
POOL_WATER = st.builds(
    Readings,
    free_chlorine=st.floats(0, 10),
    ph=st.floats(6.8, 8.4),
    total_alkalinity=st.floats(60, 200),
    calcium_hardness=st.floats(50, 800),
    cyanuric_acid=st.floats(0, 100),
    salt=st.floats(700, 6000),
    temperature_c=st.floats(5, 38),
)


def solved(readings: Readings) -> State | NoCarbonate:
    known = known_from(readings)
    assert known is not None
    return solve_readings(known)


def pool(readings: Readings) -> State:
    state = solved(readings)
    assert isinstance(state, State)
    return state


@settings(max_examples=250)
@given(ANY_WATER)
def test_round_trip_or_a_named_reason_everywhere(readings: Readings) -> None:
    state = solved(readings)
    if isinstance(state, NoCarbonate):
        assert state.reason
        return
    back = solve_totals(state.totals)
    assert float(back.species.ph) == pytest.approx(readings.ph, abs=1e-6)
    assert float(back.total_alkalinity_mg_l) == pytest.approx(readings.total_alkalinity, rel=1e-6, abs=1e-4)


@given(POOL_WATER, st.sampled_from(sorted(CATALOGUE)), st.floats(10, 3000))
def test_adding_conserves_every_total(readings: Readings, chemical: str, grams: float) -> None:
    """In two halves or at once; and what went in is what is found."""
    start, product = pool(readings).totals, Product("p", chemical, CATALOGUE[chemical].usual_strength_percent)
    once = added(start, product, grams, LITRES)
    if chemical != "sodium_thiosulfate":  # stops at no chlorine left
        twice = added(added(start, product, grams / 2, LITRES), product, grams / 2, LITRES)
        assert tuple(once) == pytest.approx(tuple(twice), rel=1e-12, abs=1e-18)
    row = product.row.effect
    moles = grams * moles_per_g(product) / LITRES
    assert once.sodium - start.sodium == pytest.approx(row.sodium * moles, abs=1e-12)


@given(POOL_WATER, st.floats(0, 1))
def test_dilution_with_the_same_water_changes_nothing(readings: Readings, fraction: float) -> None:
    totals = pool(readings).totals
    assert tuple(diluted(totals, totals, fraction)) == pytest.approx(tuple(totals), rel=1e-12, abs=1e-15)


@given(POOL_WATER, st.floats(1, 2000))
def test_acid_lowers_and_soda_raises_ph(readings: Readings, grams: float) -> None:
    start = pool(readings)
    before = float(start.species.ph)
    acid = solve_totals(added(start.totals, Product("a", "hydrochloric_acid", 31.45), grams, LITRES))
    soda = solve_totals(added(start.totals, Product("s", "sodium_carbonate", 100), grams, LITRES))
    assert float(acid.species.ph) < before < float(soda.species.ph)


@given(POOL_WATER)
def test_more_calcium_or_a_higher_ph_scales_more(readings: Readings) -> None:
    index = float(saturation_index(pool(readings)))
    assert readings.calcium_hardness is not None
    assert readings.ph is not None
    harder = Readings(**{**readings.__dict__, "calcium_hardness": readings.calcium_hardness * 1.2})
    higher = Readings(**{**readings.__dict__, "ph": readings.ph + 0.1})
    assert float(saturation_index(pool(harder))) > index
    assert float(saturation_index(pool(higher))) > index


@given(POOL_WATER, st.floats(1, 20))
def test_stabilizer_always_binds_more_chlorine(readings: Readings, more: float) -> None:
    assert readings.cyanuric_acid is not None
    stabilized = Readings(**{**readings.__dict__, "cyanuric_acid": readings.cyanuric_acid + more})
    assert float(pool(stabilized).species.hocl) <= float(pool(readings).species.hocl) * (1 + 1e-9)


@settings(max_examples=80)
@given(POOL_WATER, st.floats(7.2, 7.8), st.floats(80, 160))
def test_forward_and_inverse_agree(readings: Readings, ph: float, alkalinity: float) -> None:
    """Doses for a target, put in, reach the target: to 0.1 percent and far better."""
    start = pool(readings)
    both = for_both(start.totals, ph, alkalinity, LITRES, STANDARD_INVENTORY)
    if both.reached:
        totals = start.totals
        for product, mass in both.amounts.items():
            totals = added(totals, product, mass, LITRES, spent=True)
        after = solve_totals(totals)
        assert float(after.species.ph) == pytest.approx(ph, abs=1e-5)
        assert float(after.total_alkalinity_mg_l) == pytest.approx(alkalinity, rel=1e-5)


@given(POOL_WATER)
def test_one_product_for_ph_or_alkalinity_reaches_it(readings: Readings) -> None:
    start = pool(readings).totals
    acid, soda = Product("a", "hydrochloric_acid", 31.45), Product("b", "sodium_bicarbonate", 100)
    assert readings.ph is not None
    assert readings.total_alkalinity is not None
    for_acid = for_ph(start, readings.ph - 0.2, LITRES, acid)
    assert for_acid is not None
    after = solve_totals(added(start, acid, for_acid, LITRES))
    assert float(after.species.ph) == pytest.approx(readings.ph - 0.2, abs=1e-6)
    for_soda = for_alkalinity(start, readings.total_alkalinity + 20, LITRES, soda)
    assert for_soda is not None
    after = solve_totals(added(start, soda, for_soda, LITRES))
    assert float(after.total_alkalinity_mg_l) == pytest.approx(readings.total_alkalinity + 20, rel=1e-6)


def test_bicarbonate_titrates_a_little_less_than_its_equivalents() -> None:
    """0.4 mmol/L of bicarbonate raises titrated alkalinity by 19.7, not 20.0 mg/L (stated with the
    constants).
    """
    start = pool(Readings(ph=7.5, total_alkalinity=100, calcium_hardness=250, cyanuric_acid=0, salt=1300))
    soda = Product("b", "sodium_bicarbonate", 100)
    after = solve_totals(added(start.totals, soda, 0.4e-3 * 84.006 * LITRES, LITRES))
    assert float(after.total_alkalinity_mg_l) - 100 == pytest.approx(19.7, abs=0.05)


def test_thirty_of_stabilizer_lowers_ph_by_point_three_to_point_four() -> None:
    """Handbook 04, derived there: about 0.3 to 0.4 at alkalinity 100; alkalinity by titration stays."""
    start = pool(Readings(ph=7.5, total_alkalinity=100, calcium_hardness=250, cyanuric_acid=0, salt=1300))
    after = solve_totals(added(start.totals, Product("c", "cyanuric_acid", 100), 30 * LITRES / 1000, LITRES))
    assert 0.3 <= 7.5 - float(after.species.ph) <= 0.4
    assert float(after.total_alkalinity_mg_l) == pytest.approx(100, abs=0.6)

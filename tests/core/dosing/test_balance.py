"""Every product that moves pH, forward and inverse; doses do not depend on units or on how big the pool is."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.chemistry.equilibrium import solve_totals
from kumpan.core.dosing.balance import for_both, for_ph
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.testing.kits import kit_by_key
from kumpan.core.testing.test_line import read_value
from tests.core.samples import engine_state

LITRES = 40_000.0
RAISING = [("sodium_carbonate", 100.0), ("borax", 100.0), ("sodium_hydroxide", 50.0)]
LOWERING = [("hydrochloric_acid", 31.45), ("hydrochloric_acid", 14.5), ("sodium_bisulfate", 93.2)]
START = {
    "ph": 7.4,
    "total_alkalinity": 90.0,
    "cyanuric_acid": 40.0,
    "calcium_hardness": 260.0,
    "salt": 1200.0,
}


@settings(max_examples=60, deadline=None)
@given(st.sampled_from(RAISING), st.floats(0.05, 0.5))
def test_a_base_reaches_its_ph(product: tuple[str, float], rise: float) -> None:
    start, inventory = engine_state(**START).totals, Product("p", *product)
    grams = for_ph(start, 7.4 + rise, LITRES, inventory)
    assert grams is not None
    after = solve_totals(added(start, inventory, grams, LITRES, spent=True))
    assert float(after.species.ph) == pytest.approx(7.4 + rise, abs=1e-6)


@settings(max_examples=60, deadline=None)
@given(st.sampled_from(LOWERING), st.floats(0.05, 0.5))
def test_an_acid_reaches_its_ph(product: tuple[str, float], fall: float) -> None:
    start, inventory = engine_state(**START).totals, Product("p", *product)
    grams = for_ph(start, 7.4 - fall, LITRES, inventory)
    assert grams is not None
    after = solve_totals(added(start, inventory, grams, LITRES, spent=True))
    assert float(after.species.ph) == pytest.approx(7.4 - fall, abs=1e-6)


def test_boric_acid_lowers_ph_a_little_and_is_no_product_for_it() -> None:
    start, boric = engine_state(**START).totals, Product("p", "boric_acid", 100)
    after = solve_totals(added(start, boric, 0.3 * LITRES, LITRES))
    assert 7.1 < float(after.species.ph) < 7.4
    assert for_ph(start, 7.8, LITRES, boric) is None


def test_a_base_cannot_lower_and_an_acid_cannot_raise() -> None:
    start = engine_state(**START).totals
    assert for_ph(start, 7.2, LITRES, Product("p", "sodium_carbonate", 100)) is None
    assert for_ph(start, 7.6, LITRES, Product("p", "hydrochloric_acid", 31.45)) is None


def test_per_ph_risen_baking_soda_moves_alkalinity_many_times_more() -> None:
    """Common practice has three schools for raising pH; this is why they differ."""
    start = engine_state(**START | {"ph": 7.2})

    def alkalinity_gained(chemical: str) -> float:
        product = Product("p", chemical, 100)
        grams = for_ph(start.totals, 7.4, LITRES, product)
        assert grams is not None
        after = solve_totals(added(start.totals, product, grams, LITRES))
        return float(after.total_alkalinity_mg_l) - START["total_alkalinity"]

    soda_ash, borax, baking_soda = (
        alkalinity_gained(key) for key in ("sodium_carbonate", "borax", "sodium_bicarbonate")
    )
    assert borax < soda_ash < baking_soda
    assert baking_soda > 5 * soda_ash


@settings(max_examples=30, deadline=None)
@given(st.floats(2_000, 500_000), st.floats(7.2, 7.8), st.floats(90, 160))
def test_twice_the_pool_twice_the_dose(volume_l: float, ph: float, alkalinity: float) -> None:
    start = engine_state(**START).totals
    once = for_both(start, ph, alkalinity, volume_l, STANDARD_INVENTORY)
    twice = for_both(start, ph, alkalinity, 2 * volume_l, STANDARD_INVENTORY)
    assert once.reached == twice.reached
    for product, grams in once.amounts.items():
        assert twice.amounts[product] == pytest.approx(2 * grams, rel=1e-9)


@given(st.floats(1_000, 300_000))
def test_gallons_or_liters_the_pool_is_the_same(volume_l: float) -> None:
    typed_l = read_quantity(f"{volume_l:.6f} l", Dimension.VOLUME, "l")
    typed_gal = read_quantity(f"{volume_l / 3.785411784:.9f} gal", Dimension.VOLUME, "l")
    assert typed_gal.value == pytest.approx(typed_l.value, rel=1e-8)


@given(st.floats(5, 38))
def test_fahrenheit_or_celsius_the_water_is_the_same(celsius: float) -> None:
    typed = (f"{celsius:.4f}c", f"{celsius * 1.8 + 32:.4f}f", f"{celsius:.4f}")
    found = [read_value(Measure.TEMPERATURE, text, kit_by_key("drops"), "c").value for text in typed]
    assert found == pytest.approx([celsius] * 3, abs=1e-3)

"""Doses per 10,000 US gal (37 854 L) against the handbook's check values.

Origin of each figure: derived from molar masses (here again from periodictable's), and the trade's
dosing tables agree, quoted from memory. Tolerance 1 percent, as alkalinity equivalents; the table's
last digit allows that.
"""

import periodictable
import pytest

from kumpan.core.dosing.mass_balance import change_per_g, changes, mass_for_change_g
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, G_PER_OZ, ML_PER_FL_OZ

TEN_THOUSAND_GAL_L = 37854.0
M = Measure


def _product(chemical: str, strength: float) -> Product:
    return Product("p", chemical, strength)


LIQUIDS = [
    (M.FREE_CHLORINE, 1, "sodium_hypochlorite", 12, 10.7),
    (M.FREE_CHLORINE, 1, "sodium_hypochlorite", 10, 12.8),
    (M.TOTAL_ALKALINITY, -10, "hydrochloric_acid", 31.45, 25.6),
]
SOLIDS = [
    (M.FREE_CHLORINE, 1, "calcium_hypochlorite", 65, 2.05 * G_PER_OZ),
    (M.FREE_CHLORINE, 1, "sodium_dichlor", 56, 2.38 * G_PER_OZ),
    (M.FREE_CHLORINE, 1, "sodium_dichlor", 62, 2.15 * G_PER_OZ),
    (M.FREE_CHLORINE, 1, "trichlor", 90, 1.48 * G_PER_OZ),
    (M.TOTAL_ALKALINITY, 10, "sodium_bicarbonate", 100, 1.40 * G_PER_LB),
    (M.TOTAL_ALKALINITY, 10, "sodium_carbonate", 100, 0.884 * G_PER_LB),
    (M.TOTAL_ALKALINITY, -10, "sodium_bisulfate", 93.2, 2.15 * G_PER_LB),
    (M.CALCIUM_HARDNESS, 10, "calcium_chloride", 77, 1.20 * G_PER_LB),
    (M.CYANURIC_ACID, 10, "cyanuric_acid", 100, 0.835 * G_PER_LB),
    (M.SALT, 1000, "sodium_chloride", 100, 83.5 * G_PER_LB),
]


@pytest.mark.parametrize(("measure", "change", "chemical", "strength", "fl_oz"), LIQUIDS)
def test_liquids(measure: Measure, change: float, chemical: str, strength: float, fl_oz: float) -> None:
    product = _product(chemical, strength)
    grams = mass_for_change_g(product, measure, change, TEN_THOUSAND_GAL_L)
    ml = volume_from_mass_ml(product, grams)
    assert ml is not None
    assert ml / ML_PER_FL_OZ == pytest.approx(fl_oz, rel=0.01)


@pytest.mark.parametrize(("measure", "change", "chemical", "strength", "grams"), SOLIDS)
def test_solids(measure: Measure, change: float, chemical: str, strength: float, grams: float) -> None:
    found = mass_for_change_g(_product(chemical, strength), measure, change, TEN_THOUSAND_GAL_L)
    assert found == pytest.approx(grams, rel=0.01)


def test_side_effects_per_ppm_of_chlorine() -> None:
    """Handbook 04, derived: CH +0.71, CYA +0.91 and +0.61 per ppm of free chlorine."""
    for chemical, measure, per_ppm in (
        ("calcium_hypochlorite", M.CALCIUM_HARDNESS, 0.71),
        ("sodium_dichlor", M.CYANURIC_ACID, 0.91),
        ("trichlor", M.CYANURIC_ACID, 0.61),
    ):
        product = _product(chemical, 60)
        ratio = change_per_g(product, measure, 1.0) / change_per_g(product, M.FREE_CHLORINE, 1.0)
        assert ratio == pytest.approx(per_ppm, abs=0.005)


def test_alkalinity_once_chlorine_is_used_up() -> None:
    """Handbook 04, derived: dichlor -0.353, trichlor -0.706 of alkalinity per ppm used; hypochlorites
    neutral.
    """
    for chemical, per_ppm in (("sodium_dichlor", -0.353), ("trichlor", -0.706), ("sodium_hypochlorite", 0.0)):
        product = _product(chemical, 60)
        spent = change_per_g(product, M.TOTAL_ALKALINITY, 1.0, spent=True)
        assert spent / change_per_g(product, M.FREE_CHLORINE, 1.0) == pytest.approx(per_ppm, abs=0.001)


def test_a_pound_of_shock_in_ten_thousand_gallons() -> None:
    """Common practice's rule, what it adds derived: cal-hypo 65 % FC +7.8, CH +5.5; dichlor 56 % +6.7, CYA
    +6.1.
    """
    granules = changes(_product("calcium_hypochlorite", 65), G_PER_LB, TEN_THOUSAND_GAL_L)
    assert granules[M.FREE_CHLORINE] == pytest.approx(7.8, abs=0.05)
    assert granules[M.CALCIUM_HARDNESS] == pytest.approx(5.5, abs=0.05)
    dichlor = changes(_product("sodium_dichlor", 56), G_PER_LB, TEN_THOUSAND_GAL_L)
    assert dichlor[M.FREE_CHLORINE] == pytest.approx(6.7, abs=0.05)
    assert dichlor[M.CYANURIC_ACID] == pytest.approx(6.1, abs=0.05)


def test_thiosulfate_per_gram_of_chlorine() -> None:
    """Handbook 04: 0.875 g of the pentahydrate per g of chlorine in theory, from periodictable's masses."""
    product = _product("sodium_thiosulfate", 100)
    grams = mass_for_change_g(product, M.FREE_CHLORINE, -1.0, 1000.0)
    theory = periodictable.formula("Na2S2O3(H2O)5").mass / (4 * periodictable.formula("Cl2").mass)
    assert grams == pytest.approx(theory, rel=1e-3)
    assert theory == pytest.approx(0.875, abs=0.001)


def test_salt_from_nothing_to_3200_in_20000_gal() -> None:
    """Worked example of the trade (common practice): 534 lb, 13.35 bags of 40 lb; 13 bags give about 3115."""
    salt, liters = _product("sodium_chloride", 100), 20_000 * 3.785411784
    pounds = mass_for_change_g(salt, M.SALT, 3200, liters) / G_PER_LB
    assert pounds == pytest.approx(534, rel=0.002)
    thirteen = changes(salt, 13 * 40 * G_PER_LB, liters)[M.SALT]
    assert thirteen == pytest.approx(3115, abs=5)
    fourteen = changes(salt, 14 * 40 * G_PER_LB, liters)[M.SALT]
    assert fourteen == pytest.approx(3355, abs=5)

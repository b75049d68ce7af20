"""Our unit factors against pint's table (registry library) and the defining values.

Source: NIST Handbook 44, Appendix C; exact definitions, quoted from memory.
"""

import pint
import pytest

from kumpan.core.quantities import typed, units

REGISTRY: pint.UnitRegistry[float] = pint.UnitRegistry()
PINT_NAMES = {
    "gal": "gallon", "impgal": "imperial_gallon", "qt": "quart", "pt": "pint", "cup": "cup", "floz": "fluid_ounce",
    "tbsp": "tablespoon", "tsp": "teaspoon", "l": "liter", "ml": "milliliter", "m3": "meter**3",
    "lb": "pound", "oz": "ounce", "kg": "kilogram", "g": "gram", "mg": "milligram",
    "ft": "foot", "in": "inch", "m": "meter", "cm": "centimeter", "psi": "psi", "bar": "bar", "kpa": "kilopascal",
    "gpm": "gallon/minute", "l/min": "liter/minute", "m3/h": "meter**3/hour",
}  # fmt: skip
INNER = {"L": "liter", "g": "gram", "m": "meter", "kPa": "kilopascal", "L/min": "liter/minute"}


@pytest.mark.parametrize("word", PINT_NAMES)
def test_factor_agrees_with_pint(word: str) -> None:
    dimension, factor = typed.UNITS[word]
    expected = REGISTRY.Quantity(1, PINT_NAMES[word]).to(INNER[dimension]).magnitude
    assert factor == pytest.approx(expected, rel=1e-12)


def test_defining_values() -> None:
    assert units.L_PER_US_GAL == 3.785411784
    assert units.L_PER_IMP_GAL == 4.54609
    # 1 ft3 = 7.480519 US gal (handbook 01, exact definition rounded)
    assert pytest.approx(7.480519, rel=1e-7) == (units.M_PER_FT**3 * 1000) / units.L_PER_US_GAL

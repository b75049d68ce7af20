"""What additions do to the measures that follow from mass alone: chlorine, calcium, stabilizer, salt,
borate, sulfate, and alkalinity as equivalents. pH needs the equilibrium. Source: mass-balance.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from kumpan.core.chemistry import molar
from kumpan.core.products.catalogue import Effect, chemical
from kumpan.core.products.product import Product, moles_per_g
from kumpan.core.quantities.readings import Measure, Readings

SOURCE = "mass-balance"


@dataclass(frozen=True)
class _PerMole:
    """g per liter of a measure that one mole per liter of a total makes."""

    measure: Measure
    total: str
    grams: float


_ROWS: tuple[_PerMole, ...] = (
    _PerMole(Measure.FREE_CHLORINE, "chlorine", molar.CHLORINE),
    _PerMole(Measure.TOTAL_ALKALINITY, "alkalinity", molar.ALKALINITY_EQUIVALENT_AS_CACO3),
    _PerMole(Measure.CALCIUM_HARDNESS, "calcium", molar.CALCIUM_CARBONATE),
    _PerMole(Measure.CYANURIC_ACID, "cyanurate", molar.CYANURIC_ACID),
    _PerMole(Measure.SALT, "chloride", molar.SODIUM_CHLORIDE),
    _PerMole(Measure.BORATE, "borate", molar.B),
    _PerMole(Measure.SULFATE, "sulfate", molar.SULFATE),
    _PerMole(Measure.COPPER, "copper", molar.CU),
)
_BY_MEASURE: Mapping[Measure, _PerMole] = {row.measure: row for row in _ROWS}
BALANCED: tuple[Measure, ...] = tuple(_BY_MEASURE)


def change_per_g(product: Product, measure: Measure, volume_l: float, *, spent: bool = False) -> float:
    """mg/L by which one gram of product moves a measure in `volume_l`.

    `spent`: alkalinity once the product's chlorine is used up, instead of fresh.
    """
    row = _BY_MEASURE[measure]
    effect: Effect = chemical(product.chemical).effect
    total = "spent_alkalinity" if spent and row.total == "alkalinity" else row.total
    per_mole: float = getattr(effect, total)
    return per_mole * row.grams * 1000.0 * moles_per_g(product) / volume_l


def changes(product: Product, mass_g: float, volume_l: float) -> dict[Measure, float]:
    """Every measure that a mass of product moves at once, by mass balance, in mg/L."""
    found = {measure: change_per_g(product, measure, volume_l) * mass_g for measure in BALANCED}
    return {measure: change for measure, change in found.items() if change != 0.0}


def added_to(readings: Readings, moved: Mapping[Measure, float]) -> Readings:
    """The readings after the changes; what was not known stays unknown. Total chlorine rises with free."""
    after = readings
    for measure, change in moved.items():
        before = readings.value(measure)
        if before is not None:
            after = after.with_value(measure, max(0.0, before + change))
    gained = moved.get(Measure.FREE_CHLORINE, 0.0)
    if readings.total_chlorine is not None:
        after = after.with_value(Measure.TOTAL_CHLORINE, max(0.0, readings.total_chlorine + gained))
    return after


def mass_for_change_g(product: Product, measure: Measure, change_mg_l: float, volume_l: float) -> float:
    """Grams of product that move a measure by `change_mg_l`; the product must move it at all."""
    return change_mg_l / change_per_g(product, measure, volume_l)

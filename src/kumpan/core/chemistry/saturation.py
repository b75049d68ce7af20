"""Two saturation indices: the thermodynamic one of the engine, and the classic table form beside it.

Sources: plummer-busenberg, langelier.
"""

from dataclasses import dataclass

import numpy as np

from kumpan.core.chemistry.equilibrium import State
from kumpan.core.chemistry.speciation import Number
from kumpan.core.quantities.units import fahrenheit_from_celsius

SOURCES_USED = ("plummer-busenberg", "langelier")

# Temperature (F), hardness and carbonate alkalinity (mg/L as CaCO3) against their factors.
TEMPERATURE_FACTOR = (
    (32, 0.0), (37, 0.1), (46, 0.2), (53, 0.3), (60, 0.4), (66, 0.5), (76, 0.6), (84, 0.7), (94, 0.8),
    (105, 0.9),
)  # fmt: skip
CALCIUM_FACTOR = (
    (25, 1.0), (50, 1.3), (75, 1.5), (100, 1.6), (125, 1.7), (150, 1.8), (200, 1.9), (250, 2.0), (300, 2.1),
    (400, 2.2), (800, 2.5),
)  # fmt: skip
ALKALINITY_FACTOR = (
    (25, 1.4), (50, 1.7), (75, 1.9), (100, 2.0), (125, 2.1), (150, 2.2), (200, 2.3), (250, 2.4),
    (300, 2.5), (400, 2.6),
)  # fmt: skip
# Dissolved solids under this (mg/L) take this constant; published to 2000, the rest from memory.
SOLIDS_CONSTANT = ((1000, 12.1), (2000, 12.2), (3000, 12.25), (4000, 12.3), (5000, 12.35))
SOLIDS_CONSTANT_BEYOND = 12.4


@dataclass(frozen=True)
class ClassicIndex:
    """The table's index; `clamped` names the factors whose table ended before the value."""

    value: float
    clamped: tuple[str, ...]


def saturation_index(state: State) -> Number:
    """log10 of the ion activity product over calcite's solubility product.

    0 is saturated; floats or arrays.
    """
    product = state.species.calcium_activity * state.species.carbonate_activity
    logged: Number = np.log10(product) - state.constants.log_k_calcite
    return logged


def classic_index(
    ph: float,
    temperature_c: float,
    hardness_mg_l: float,
    carbonate_alkalinity_mg_l: float,
    solids_mg_l: float,
) -> ClassicIndex:
    """pH + factors of temperature, calcium and alkalinity - constant of dissolved solids, interpolated."""
    rows = (
        ("temperature", TEMPERATURE_FACTOR, fahrenheit_from_celsius(temperature_c)),
        ("calcium", CALCIUM_FACTOR, hardness_mg_l),
        ("alkalinity", ALKALINITY_FACTOR, carbonate_alkalinity_mg_l),
    )
    factors = [_interpolated(table, value) for _, table, value in rows]
    clamped = tuple(name for name, table, value in rows if not table[0][0] <= value <= table[-1][0])
    return ClassicIndex(ph + sum(factors) - solids_constant(solids_mg_l), clamped)


def solids_constant(solids_mg_l: float) -> float:
    """The classic table's constant for dissolved solids (mg/L); no unit."""
    for limit, constant in SOLIDS_CONSTANT:
        if solids_mg_l < limit:
            return constant
    return SOLIDS_CONSTANT_BEYOND


def dissolved_solids_mg_l(salt: float, total_alkalinity: float, hardness: float) -> float:
    """The trade's estimate when solids are not measured: salt + 1.22 alkalinity + 0.4 hardness."""
    return salt + 1.22 * total_alkalinity + 0.4 * hardness


def _interpolated(table: tuple[tuple[float, float], ...], value: float) -> float:
    return float(np.interp(value, [x for x, _ in table], [y for _, y in table]))

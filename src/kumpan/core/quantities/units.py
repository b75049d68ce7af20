"""Exact conversions between units. Weight ounces and fluid ounces are told apart always.

Source: unit-definitions (exact).
"""

from enum import StrEnum

SOURCE = "unit-definitions"


class Units(StrEnum):
    """The system in which a person measures and types."""

    US = "us"
    METRIC = "metric"


L_PER_US_GAL = 3.785411784
L_PER_IMP_GAL = 4.54609
L_PER_M3 = 1000.0
ML_PER_FL_OZ = 29.5735295625
G_PER_LB = 453.59237
G_PER_OZ = 28.349523125
M_PER_FT = 0.3048
M_PER_IN = 0.0254
KPA_PER_PSI = 4.4482216152605 / 0.64516  # a pound's force on a square inch


def celsius_from_fahrenheit(temperature_f: float) -> float:
    """C from F."""
    return (temperature_f - 32.0) * 5.0 / 9.0


def fahrenheit_from_celsius(temperature_c: float) -> float:
    """F from C."""
    return temperature_c * 9.0 / 5.0 + 32.0

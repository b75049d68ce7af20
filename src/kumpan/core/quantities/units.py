"""Exact conversions, and the closed table that reads what people type at the poolside.

"82F", "2 kg", "7,8", "1 1/2 qt", "3 lb 10 oz", "5'6\"" are read; a unit that is not in the table is
asked about, never guessed. Weight ounces and fluid ounces are told apart always.
Source: unit-definitions (exact).
"""

SOURCE = "unit-definitions"

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
    return (temperature_f - 32.0) * 5.0 / 9.0


def fahrenheit_from_celsius(temperature_c: float) -> float:
    return temperature_c * 9.0 / 5.0 + 32.0


def water_text(volume_l: float, metric: bool = False) -> str:
    """A pool's water in words, to three figures: "7 850 gal", metric "29 700 L"."""
    amount = volume_l if metric else volume_l / L_PER_US_GAL
    rounded = float(f"{amount:.3g}")
    return f"{rounded:,.0f} {'L' if metric else 'gal'}".replace(",", "\u2009")


def pressure_text(pressure_kpa: float, metric: bool = False) -> str:
    """A gauge's reading in words: "18 psi", metric "1.24 bar"."""
    return f"{pressure_kpa / 100:.2f} bar" if metric else f"{pressure_kpa / KPA_PER_PSI:.0f} psi"


def flow_text(flow_l_min: float, metric: bool = False) -> str:
    """A pump's flow in words: "60 gpm", metric "227 L/min"."""
    return f"{flow_l_min:.0f} L/min" if metric else f"{flow_l_min / L_PER_US_GAL:.0f} gpm"

"""The readings once a share of the water is drained and replaced by fill. Source: mass-balance."""

from dataclasses import replace

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings, solve_totals
from kumpan.core.dosing.mass_balance import BALANCED
from kumpan.core.dosing.mixing import diluted
from kumpan.core.quantities.readings import Measure, Readings

SOURCE = "mass-balance"

NONE_IN_FILL = (Measure.FREE_CHLORINE, Measure.CYANURIC_ACID, Measure.BORATE)
MIXES = (
    *BALANCED,
    Measure.TOTAL_CHLORINE,
    Measure.IRON,
    Measure.PHOSPHATE,
    Measure.TDS,
    Measure.TEMPERATURE,
)


def fill_with_zeros(fill: Readings) -> Readings:
    """The fill water with what it holds none of, unless it was tested."""
    for measure in NONE_IN_FILL:
        if fill.value(measure) is None:
            fill = fill.with_value(measure, 0.0)
    return (
        fill
        if fill.total_chlorine is not None
        else fill.with_value(Measure.TOTAL_CHLORINE, fill.free_chlorine)
    )


def mixed(readings: Readings, fill: Readings, fraction: float) -> Readings:
    """What mixes by share; what stays unknown on either side becomes unknown. pH is left as it was."""
    water = readings
    for measure in MIXES:
        old, new = readings.value(measure), fill.value(measure)
        water = water.with_value(
            measure, None if old is None or new is None else old + (new - old) * fraction
        )
    return water


def solved(readings: Readings) -> State | None:
    """The solved water; None where a reading it needs is missing or cannot be."""
    known = known_from(readings)
    found = solve_readings(known) if known is not None else None
    return found if isinstance(found, State) else None


def refilled(readings: Readings, fill: Readings, fraction: float) -> Readings:
    """The whole water after that fraction (0 to 1) was drained and made up; pH by the equilibrium."""
    whole = fill_with_zeros(fill)
    water = mixed(readings, whole, fraction)
    own, other = solved(readings), solved(whole)
    if own is None or other is None:
        return replace(water, ph=None)
    after = solve_totals(diluted(own.totals, other.totals, fraction), float(own.species.ph))
    return replace(water, ph=float(after.species.ph), total_alkalinity=float(after.total_alkalinity_mg_l))

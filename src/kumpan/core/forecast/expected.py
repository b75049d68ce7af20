"""The water as it should be now: the last readings, and what was poured since each of them.

Use-up over time is not reckoned with: without a demand model that would be guessing.
Source: mass-balance.
"""

from kumpan.core.chemistry.equilibrium import State, known_from, solve_readings, solve_totals
from kumpan.core.dosing.mass_balance import added_to, changes
from kumpan.core.dosing.mixing import added
from kumpan.core.forecast.conditions import product_of
from kumpan.core.journal import PoolState, last_reading
from kumpan.core.quantities.readings import READING_MEASURES, Measure, Readings
from kumpan.core.testing.methods import Measured

SOURCE = "mass-balance"


def measured_readings(state: PoolState) -> Readings:
    """The latest value of every measure, whenever it was tested."""
    readings = Readings()
    for measure in READING_MEASURES:
        last = last_reading(state, measure)
        if last is not None:
            readings = readings.with_value(measure, last.value.value)
    return readings


def last_values(state: PoolState) -> tuple[Measured, ...]:
    """The latest value of every measure with its doubt."""
    return tuple(last.value for m in READING_MEASURES if (last := last_reading(state, m)) is not None)


def expected_now(state: PoolState) -> Readings:
    """The latest values moved by the additions made after each was measured."""
    readings = measured_readings(state)
    if state.basin is None:
        return readings
    tested_at = {m: last.at for m in READING_MEASURES if (last := last_reading(state, m)) is not None}
    for entry in state.additions:
        later = {measure for measure, at in tested_at.items() if at < entry.at}
        if later:
            moved = changes(product_of(entry.body), entry.body.mass_g, state.basin.volume_l)
            readings = added_to(readings, {m: change for m, change in moved.items() if m in later})
    return readings


def expected_ph(state: PoolState) -> float | None:
    """pH as last tested, moved by what went in since; None before its first test.

    Where alkalinity or stabilizer is not known the additions are left out.
    """
    last, readings = last_reading(state, Measure.PH), measured_readings(state)
    if last is None or state.basin is None:
        return None
    known = known_from(readings)
    solved = solve_readings(known) if known is not None else None
    poured = [entry.body for entry in state.additions if entry.at > last.at]
    if not isinstance(solved, State) or not poured:
        return last.value.value
    totals = solved.totals
    for body in poured:
        totals = added(totals, product_of(body), body.mass_g, state.basin.volume_l, spent=True)
    return float(solve_totals(totals, last.value.value).species.ph)

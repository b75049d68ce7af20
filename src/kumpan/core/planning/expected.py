"""The water as it should be now: the last readings, and what was poured since each of them.

Use-up over time is not reckoned with: without a demand model that would be guessing.
Source: mass-balance.
"""

from datetime import datetime

from kumpan.core.dosing.additions import Product
from kumpan.core.dosing.mass_balance import added_to, changes
from kumpan.core.journal import AdditionMade, PoolState, last_reading
from kumpan.core.water import READING_MEASURES, Measure, Readings

SOURCE = "mass-balance"


def measured_readings(state: PoolState) -> Readings:
    """The latest value of every measure, whenever it was tested."""
    readings = Readings()
    for measure in READING_MEASURES:
        last = last_reading(state, measure)
        if last is not None:
            readings = readings.with_value(measure, last.value.value)
    return readings


def expected_now(state: PoolState) -> Readings:
    """The latest values moved by the additions made after each was measured."""
    readings = measured_readings(state)
    if state.basin is None:
        return readings
    for entry in state.additions:
        body = entry.body
        if not isinstance(body, AdditionMade):
            continue
        product = Product(
            body.product_id or "",
            body.chemical,
            body.strength_percent,
            density_g_per_ml=body.density_g_per_ml,
        )
        moved = changes(product, body.mass_g, state.basin.volume_l)
        later = {m: c for m, c in moved.items() if _measured_before(state, m, entry.at)}
        readings = added_to(readings, later)
    return readings


def _measured_before(state: PoolState, measure: Measure, at: datetime) -> bool:
    last = last_reading(state, measure)
    return last is not None and last.at < at

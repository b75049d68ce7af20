"""Measured values out of the journal's tests."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from kumpan.core.journal.fold import PoolState
from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Measured


@dataclass(frozen=True)
class Reading:
    """One measured value with its time, for a lane and its trail."""

    value: Measured
    at: datetime


def history(state: PoolState, measure: Measure) -> list[Reading]:
    """All values of a measure, oldest first. Combined chlorine is total minus free of one test."""
    found: list[Reading] = []
    for test in state.tests:
        value = value_in(test.body.values, measure)
        if value is not None:
            found.append(Reading(value, test.at))
    return found


def value_in(values: Sequence[Measured], measure: Measure) -> Measured | None:
    """A measure's value in one test; total and combined chlorine follow from each other and free."""
    by_measure = {value.measure: value for value in values}
    if measure in by_measure:
        return by_measure[measure]
    free = by_measure.get(Measure.FREE_CHLORINE)
    total = by_measure.get(Measure.TOTAL_CHLORINE)
    combined = by_measure.get(Measure.COMBINED_CHLORINE)
    if measure is Measure.COMBINED_CHLORINE and free and total:
        high = max(0.0, total.high - free.low)
        return Measured(
            measure=measure,
            value=max(0.0, total.value - free.value),
            low=max(0.0, min(high, total.low - free.high)),
            high=high,
            method=total.method,
        )
    if measure is Measure.TOTAL_CHLORINE and free and combined:
        return Measured(
            measure=measure,
            value=free.value + combined.value,
            low=free.low + combined.low,
            high=free.high + combined.high,
            method=combined.method,
        )
    return None


def last_reading(state: PoolState, measure: Measure) -> Reading | None:
    """The latest value of a measure; None when it was never tested."""
    for test in reversed(state.tests):
        value = value_in(test.body.values, measure)
        if value is not None:
            return Reading(value, test.at)
    return None

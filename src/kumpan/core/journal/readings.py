"""Measured values out of the journal's tests."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.journal.fold import PoolState, once_a_state
from kumpan.core.quantities.readings import READING_MEASURES, Measure, Readings
from kumpan.core.testing.methods import Measured, Method

HAND_TEST_HOLDS = timedelta(days=30)  # salt is tested by hand once a month (handbook 02)


@dataclass(frozen=True)
class Reading:
    """One measured value with its time, for a lane and its trail."""

    value: Measured
    at: datetime


@once_a_state
def history(state: PoolState, measure: Measure) -> tuple[Reading, ...]:
    """All values of a measure, oldest first. Combined chlorine is total minus free of one test. What a unit's
    own display shows does not count soon after a hand test (handbook 06: the hand test goes before it).
    """
    found = ((value_in(test.body.values, measure), test.at) for test in state.tests)
    past: list[Reading] = []
    by_hand: datetime | None = None
    for value, at in found:
        if value is None:
            continue
        if value.method is not Method.DISPLAY:
            by_hand = at
        elif by_hand is not None and at - by_hand < HAND_TEST_HOLDS:
            continue
        past.append(Reading(value, at))
    return tuple(past)


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
    past = history(state, measure)
    return past[-1] if past else None


def readings_of(values: Sequence[Measured]) -> Readings:
    """One test's values as readings; total chlorine follows from free and combined."""
    readings = Readings()
    for measure in READING_MEASURES:
        found = value_in(values, measure)
        if found is not None:
            readings = readings.with_value(measure, found.value)
    return readings

"""How long a reading carries a dose: after that the plan asks for the test. Source: test-interval.

Each is a little over the interval at which the trade tests a pool that is looked after seldom.
"""

from datetime import datetime, timedelta

from kumpan.core.forecast.expected import settled_reading
from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantity import Number
from kumpan.core.records.unmet import Unmet

SOURCE = "test-interval"

CARRIES_FOR: dict[Measure, timedelta] = {
    Measure.FREE_CHLORINE: timedelta(days=8),
    Measure.PH: timedelta(days=8),
    Measure.TOTAL_ALKALINITY: timedelta(days=45),
    Measure.CYANURIC_ACID: timedelta(days=60),
    Measure.SALT: timedelta(days=60),
    Measure.CALCIUM_HARDNESS: timedelta(days=120),
}


def too_old(state: PoolState, now: datetime) -> dict[Measure, int]:
    """Measures whose last test carries no dose any more, with its age in days."""
    found = {}
    for measure, holds in CARRIES_FOR.items():
        last = settled_reading(state, measure)
        if last is not None and now - last.at > holds:
            found[measure] = (now - last.at).days
    return found


def without(readings: Readings, old: dict[Measure, int]) -> Readings:
    """The readings that still carry a dose."""
    for measure in old:
        readings = readings.with_value(measure, None)
    return readings


def worded(unmet: tuple[Unmet, ...], old: dict[Measure, int]) -> tuple[Unmet, ...]:
    """What is left undone for want of a recent test, said as that."""
    return tuple(
        Unmet(
            left.measure,
            "too_old",
            Message(
                "{names} was last tested {old} days ago: test it first.",
                names=NAMES[left.measure],
                old=Number(old[left.measure]),
            ),
        )
        if left.measure in old and left.code == "not_tested"
        else left
        for left in unmet
    )

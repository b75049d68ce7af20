"""May they swim? Yes; not before an hour and after a test; no, and why; or not known.

It says no on what closes a pool, and never yes without a recent test.
Sources: swim-limit, swim-ph, mixing, test-interval.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from kumpan.core.journal import AdditionMade, Clarity, Entry, PoolState, last_reading
from kumpan.core.products.catalogue import CATALOGUE, CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band
from kumpan.core.testing.rhythm import TEST_HOLDS_DAYS

SOURCES_USED = ("swim-limit", "swim-ph", "mixing", "test-interval")

PH_OPEN = (7.0, 8.0)
AFTER_ADDITION_MIN = 60
SLOW = "trichlor"


class SwimCode(StrEnum):
    YES = "yes"
    NOT_BEFORE = "not_before"
    NO = "no"
    UNKNOWN = "unknown"


@dataclass(frozen=True)
class SwimAnswer:
    """The answer at the head of the pool. `not_before` is when a test may open it, for that code."""

    code: SwimCode
    text: str
    not_before: datetime | None = None


def swim_answer(state: PoolState, now: datetime, chlorine: Band, swim_limit_mg_l: float) -> SwimAnswer:
    """The answer for one pool now. `chlorine` is the school's band for this pool."""
    closed = _closed_by_sight(state) or _closed_by_rescue(state)
    if closed:
        return closed
    free, ph = last_reading(state, Measure.FREE_CHLORINE), last_reading(state, Measure.PH)
    if free is None or ph is None:
        missing = "free chlorine" if free is None else "pH"
        return SwimAnswer(SwimCode.UNKNOWN, f"Not known: {missing} is not tested yet.")
    poured = latest_addition(state)
    if poured is not None and poured.at > min(free.at, ph.at):
        return _after_pouring(poured, now)
    age = now - min(free.at, ph.at)
    if age > timedelta(days=TEST_HOLDS_DAYS):
        return SwimAnswer(SwimCode.UNKNOWN, f"Not known: the last test is {age.days} days old. Test first.")
    return _by_readings(free.value.value, ph.value.value, chlorine, swim_limit_mg_l)


def _closed_by_sight(state: PoolState) -> SwimAnswer | None:
    visual_check = state.last_visual_check
    if visual_check is None:
        return None
    if visual_check.clarity in (Clarity.DRAIN_HIDDEN, Clarity.GREEN):
        return SwimAnswer(
            SwimCode.NO, "No: the main drain cannot be seen. Nobody would see a swimmer in trouble."
        )
    if visual_check.clarity is Clarity.CLOUDY:
        return SwimAnswer(
            SwimCode.NO, "No: the water is cloudy. Look again when the main drain is plain to see."
        )
    return None


def _closed_by_rescue(state: PoolState) -> SwimAnswer | None:
    if not state.rescue_goes_on:
        return None
    return SwimAnswer(SwimCode.NO, "No: the water is being treated. Closed until the rescue is finished.")


def latest_addition(state: PoolState) -> Entry[AdditionMade] | None:
    """The last thing that went into the water at once; tablets in a feeder dissolve over days."""
    at_once = [e for e in state.additions if e.body.chemical != SLOW]
    return at_once[-1] if at_once else None


def _after_pouring(poured: Entry[AdditionMade], now: datetime) -> SwimAnswer:
    what = CATALOGUE[poured.body.chemical].name.lower()
    ready = poured.at + timedelta(minutes=AFTER_ADDITION_MIN)
    measure = "chlorine" if poured.body.chemical in CHLORINE_CARRIERS else "water"
    if now < ready:
        return SwimAnswer(SwimCode.NOT_BEFORE, f"after {what} went in, and after a {measure} test", ready)
    return SwimAnswer(SwimCode.UNKNOWN, f"Not before a test: {what} went in since the last one.")


def _by_readings(free: float, ph: float, chlorine: Band, limit: float) -> SwimAnswer:
    if free > limit:
        return SwimAnswer(
            SwimCode.NO, f"No: free chlorine {free:g} is over the swim limit of {limit:g}. Test again later."
        )
    if chlorine.low is not None and free < chlorine.low:
        return SwimAnswer(SwimCode.NO, f"No: free chlorine {free:g} is under {chlorine.low:g}. Dose first.")
    if not PH_OPEN[0] <= ph <= PH_OPEN[1]:
        return SwimAnswer(
            SwimCode.NO, f"No: pH {ph:g} is outside {PH_OPEN[0]:g} to {PH_OPEN[1]:g}. Balance first."
        )
    return SwimAnswer(SwimCode.YES, "Yes.")

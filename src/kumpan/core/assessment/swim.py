"""May they swim? Yes; not before an hour and after a test; no, and why; or not known.

It says no on what closes a pool, and never yes without a recent test.
Sources: swim-limit, swim-ph, mixing, test-interval.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from kumpan.core.journal import AdditionMade, Clarity, Entry, PoolState, last_reading
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.catalogue import CATALOGUE, CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band
from kumpan.core.testing.rhythm import TEST_HOLDS_DAYS

SOURCES_USED = ("swim-limit", "swim-ph", "mixing", "test-interval")

PH_OPEN = (7.0, 8.0)
AFTER_ADDITION_MIN = 60
SLOW = "trichlor"


class SwimCode(StrEnum):
    """The answers to "may they swim?"."""

    YES = "yes"
    NOT_BEFORE = "not_before"
    NO = "no"
    UNKNOWN = "unknown"


@dataclass(frozen=True)
class SwimAnswer:
    """The answer at the head of the pool. `not_before` is when a test may open it, for that code."""

    code: SwimCode
    text: Message
    not_before: datetime | None = None


def swim_answer(state: PoolState, now: datetime, chlorine: Band, swim_limit_mg_l: float) -> SwimAnswer:
    """The answer for one pool now. `chlorine` is the school's band for this pool."""
    closed = _closed_by_sight(state) or _closed_by_rescue(state)
    if closed:
        return closed
    free, ph = last_reading(state, Measure.FREE_CHLORINE), last_reading(state, Measure.PH)
    if free is None or ph is None:
        missing = Message("free chlorine") if free is None else Message("pH")
        return SwimAnswer(
            SwimCode.UNKNOWN, Message("Not known: {missing} is not tested yet.", missing=missing)
        )
    poured = latest_addition(state)
    if poured is not None and poured.at > min(free.at, ph.at):
        return _after_pouring(poured, now)
    age = now - min(free.at, ph.at)
    if age > timedelta(days=TEST_HOLDS_DAYS):
        return SwimAnswer(
            SwimCode.UNKNOWN,
            Message("Not known: the last test is {days} days old. Test first.", days=Number(age.days)),
        )
    return _by_readings(free.value.value, ph.value.value, chlorine, swim_limit_mg_l)


def _closed_by_sight(state: PoolState) -> SwimAnswer | None:
    visual_check = state.last_visual_check
    if visual_check is None:
        return None
    if visual_check.clarity in (Clarity.DRAIN_HIDDEN, Clarity.GREEN):
        return SwimAnswer(
            SwimCode.NO, Message("No: the main drain cannot be seen. Nobody would see a swimmer in trouble.")
        )
    if visual_check.clarity is Clarity.CLOUDY:
        return SwimAnswer(
            SwimCode.NO, Message("No: the water is cloudy. Look again when the main drain is plain to see.")
        )
    return None


def _closed_by_rescue(state: PoolState) -> SwimAnswer | None:
    if not state.rescue_goes_on:
        return None
    return SwimAnswer(
        SwimCode.NO, Message("No: the water is being treated. Closed until the rescue is finished.")
    )


def latest_addition(state: PoolState) -> Entry[AdditionMade] | None:
    """The last thing that went into the water at once; tablets in a feeder dissolve over days."""
    at_once = [e for e in state.additions if e.body.chemical != SLOW]
    return at_once[-1] if at_once else None


def _after_pouring(poured: Entry[AdditionMade], now: datetime) -> SwimAnswer:
    what = Verbatim(CATALOGUE[poured.body.chemical].name.lower())
    ready = poured.at + timedelta(minutes=AFTER_ADDITION_MIN)
    measure = Message("chlorine") if poured.body.chemical in CHLORINE_CARRIERS else Message("water")
    if now < ready:
        return SwimAnswer(
            SwimCode.NOT_BEFORE,
            Message("after {what} went in, and after a {measure} test", what=what, measure=measure),
            ready,
        )
    return SwimAnswer(
        SwimCode.UNKNOWN, Message("Not before a test: {what} went in since the last one.", what=what)
    )


def _by_readings(free: float, ph: float, chlorine: Band, limit: float) -> SwimAnswer:
    if free > limit:
        return SwimAnswer(
            SwimCode.NO,
            Message(
                "No: free chlorine {free} is over the swim limit of {limit}. Test again later.",
                free=Number(free),
                limit=Number(limit),
            ),
        )
    if chlorine.low is not None and free < chlorine.low:
        return SwimAnswer(
            SwimCode.NO,
            Message(
                "No: free chlorine {free} is under {low}. Dose first.",
                free=Number(free),
                low=Number(chlorine.low),
            ),
        )
    if not PH_OPEN[0] <= ph <= PH_OPEN[1]:
        return SwimAnswer(
            SwimCode.NO,
            Message(
                "No: pH {ph} is outside {ph_open} to {ph_open_2}. Balance first.",
                ph=Number(ph),
                ph_open=Number(PH_OPEN[0]),
                ph_open_2=Number(PH_OPEN[1]),
            ),
        )
    return SwimAnswer(SwimCode.YES, Message("Yes."))

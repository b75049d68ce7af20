"""When the next test is due: after dark, before the sun, or before free chlorine may run out.

Source: rescue-plan.
"""

from dataclasses import replace
from datetime import datetime, timedelta

from kumpan.core.algae.belief import Particles, advanced, hours_until_low
from kumpan.core.algae.request import RescueRequest
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.treatment.schedule import Timeline

SOURCE = "rescue-plan"

RESERVE_MG_L = 1.0  # a test is asked for before free chlorine may be under it
UNSEEN_SHARE = 0.01  # how much of the belief may be lower by then
SHORTEST_H = 1.0
MIX_MIN = 60
DUSK_LATER = timedelta(minutes=30)


def wait_and_test(request: RescueRequest, line: Timeline, rise_mg_l: float) -> None:
    """Until dusk or morning, or earlier where free chlorine may run low before."""
    until, why = _next_test(request, line.now, rise_mg_l)
    minutes = int((until - request.now).total_seconds() // 60)
    line.wait_until(max(line.now + 1, minutes), Message("The pump runs; the pool stays closed."))
    line.test((Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE), why)
    expect(request, line, rise_mg_l)


def spoils_the_night(request: RescueRequest, rise_mg_l: float) -> bool:
    """Whether chlorine poured now falls into the overnight test that is still missing."""
    _, why = _next_test(request, MIX_MIN, rise_mg_l)
    return rise_mg_l > 0 and why is MORNING and request.last_night is None


def until_the_next_test(request: RescueRequest, line: Timeline, rise_mg_l: float) -> None:
    """Until dusk or morning. What is poured at dusk is tested once mixed: that is the evening's figure.

    A pour between the two tests of a night would spoil it, and a pool topped up every evening would wait for
    its overnight test without end.
    """
    if not spoils_the_night(request, rise_mg_l):
        wait_and_test(request, line, rise_mg_l)
        return
    line.wait_until(line.now + MIX_MIN, Message("Until it is mixed: pump on."))
    line.test((Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE), _EVENING)
    expect(request, line, rise_mg_l)


def expect(request: RescueRequest, line: Timeline, rise_mg_l: float) -> None:
    """What the last test should read by the belief, in place of what mass alone would leave."""
    particles = advanced(_poured(request, rise_mg_l), request.around, request.now.timestamp() + 60 * line.now)
    likely = particles.quantile(particles.free, 0.5)
    line.steps[-1] = replace(line.steps[-1], expected={Measure.FREE_CHLORINE: round(likely, 1)})


def _poured(request: RescueRequest, rise_mg_l: float) -> Particles:
    return replace(request.belief, free=request.belief.free + rise_mg_l / request.belief.volume)


def _next_test(request: RescueRequest, from_min: int, rise_mg_l: float) -> tuple[datetime, Message]:
    earliest = request.now + timedelta(minutes=max(from_min, 60 * SHORTEST_H))
    dusk, morning = request.evening.at + DUSK_LATER, request.morning
    marks = [
        (dusk, _DUSK),
        (morning, MORNING),
        (dusk + timedelta(days=1), _DUSK),
        (morning + timedelta(days=1), MORNING),
    ]
    at, why = min((mark for mark in marks if mark[0] >= earliest), key=lambda mark: mark[0])
    hours = (at - request.now).total_seconds() / 3600
    low = hours_to_reserve(request, rise_mg_l, hours)
    if low < hours - 0.5:
        return max(earliest, request.now + timedelta(hours=low)), _EARLY
    return at, why


_DUSK = Message(
    "After dark: the evening's figure of the overnight test. What is missing goes in by the next plan."
)
MORNING = Message(
    "Before the sun: more than 1 lost since the evening means it still lives. Look at drain, "
    "walls and floor too."
)
_EVENING = Message("The evening's figure of the overnight test: nothing goes in from here to the morning.")
_EARLY = Message(
    "Free chlorine may be near nothing by then: set an alarm, at night too, and never let it reach zero."
)


def hours_to_reserve(request: RescueRequest, rise_mg_l: float, most_h: float) -> float:
    """Hours until free chlorine may be under the reserve, after a rise now and nothing more."""
    particles = _poured(request, rise_mg_l)
    floor = max(RESERVE_MG_L, request.row.week_over_mg_l or 0.0) if request.rounds else RESERVE_MG_L
    return hours_until_low(particles, request.around, floor_mg_l=floor, share=UNSEEN_SHARE, most_h=most_h)

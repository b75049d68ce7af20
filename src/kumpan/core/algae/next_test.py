"""When the next test is due: after dark, before the sun, or before free chlorine may run out. Source: rescue-plan."""

from dataclasses import replace
from datetime import datetime, timedelta

from kumpan.core.algae.belief import Swarm, advanced, hours_until_low
from kumpan.core.algae.request import RescueAsked
from kumpan.core.quantities.readings import Measure
from kumpan.core.treatment.schedule import Timeline

SOURCE = "rescue-plan"

RESERVE_MG_L = 1.0  # a test is asked for before free chlorine may be under it
UNSEEN_SHARE = 0.01  # how much of the belief may be lower by then
SHORTEST_H = 1.0
DUSK_LATER = timedelta(minutes=30)


def wait_and_test(asked: RescueAsked, line: Timeline, rise_mg_l: float) -> None:
    """Until dusk or morning, or earlier where free chlorine may run low before."""
    until, why = _next_test(asked, line.now, rise_mg_l)
    minutes = int((until - asked.now).total_seconds() // 60)
    line.wait_until(max(line.now + 1, minutes), "The pump runs; the pool stays closed.")
    line.test((Measure.FREE_CHLORINE, Measure.TOTAL_CHLORINE), why)
    expect(asked, line, rise_mg_l)


def expect(asked: RescueAsked, line: Timeline, rise_mg_l: float) -> None:
    """What the last test should read by the belief, in place of what mass alone would leave."""
    swarm = advanced(_poured(asked, rise_mg_l), asked.around, asked.now.timestamp() + 60 * line.now)
    likely = swarm.quantile(swarm.free, 0.5)
    line.steps[-1] = replace(line.steps[-1], expected={Measure.FREE_CHLORINE: round(likely, 1)})


def _poured(asked: RescueAsked, rise_mg_l: float) -> Swarm:
    return replace(asked.belief, free=asked.belief.free + rise_mg_l / asked.belief.volume)


def _next_test(asked: RescueAsked, from_min: int, rise_mg_l: float) -> tuple[datetime, str]:
    earliest = asked.now + timedelta(minutes=max(from_min, 60 * SHORTEST_H))
    dusk, morning = asked.evening.at + DUSK_LATER, asked.morning
    marks = [
        (dusk, _DUSK),
        (morning, MORNING),
        (dusk + timedelta(days=1), _DUSK),
        (morning + timedelta(days=1), MORNING),
    ]
    at, why = min((mark for mark in marks if mark[0] >= earliest), key=lambda mark: mark[0])
    hours = (at - asked.now).total_seconds() / 3600
    low = hours_to_reserve(asked, rise_mg_l, hours)
    if low < hours - 0.5:
        return max(earliest, asked.now + timedelta(hours=low)), _EARLY
    return at, why


_DUSK = "After dark: the evening's figure of the overnight test. What is missing goes in by the next sheet."
MORNING = "Before the sun: more than 1 lost since the evening means it still lives. Look at drain, walls and floor too."
_EARLY = "Free chlorine may be near nothing by then: set an alarm, at night too, and never let it reach zero."


def hours_to_reserve(asked: RescueAsked, rise_mg_l: float, most_h: float) -> float:
    """Hours until free chlorine may be under the reserve, after a rise now and nothing more."""
    swarm = _poured(asked, rise_mg_l)
    floor = max(RESERVE_MG_L, asked.row.week_over_mg_l or 0.0) if asked.rounds else RESERVE_MG_L
    return hours_until_low(swarm, asked.around, floor, UNSEEN_SHARE, most_h)

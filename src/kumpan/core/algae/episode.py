"""One rescue out of the journal: from the entry that began it, all that was tested, seen, poured and
cleaned since.

Source: rescue-plan.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from typing import TypeVar

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.forecast.conditions import product_of
from kumpan.core.journal import (
    AdditionMade,
    CareDone,
    Entry,
    PoolState,
    RescueEnded,
    RescueSet,
    TestTaken,
    TreatmentStarted,
    VisualCheck,
    recorded_steps,
    value_in,
)
from kumpan.core.maintenance.filter_pressure import CLEANINGS
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure

SOURCE = "rescue-plan"

RESCUE = "rescue"
PREPARE = "rescue/prepare"
B = TypeVar("B")
SHOCK_RISE_MG_L = 2.0  # less is a top-up, no round
LOSSES_OF, ONE_DAY_LIGHT = timedelta(days=3), timedelta(hours=16)
WORTH_JUDGING_MG_L, MOST_SHARE = 2.0, 0.6


@dataclass(frozen=True, kw_only=True)
class Episode:
    """A rescue as it stands. `set` is how it is set now; `ended` None while it goes on."""

    began_at: datetime
    set: RescueSet
    tests: tuple[Entry[TestTaken], ...]
    visual_checks: tuple[Entry[VisualCheck], ...]
    additions: tuple[Entry[AdditionMade], ...]
    cleanings: tuple[Entry[CareDone], ...]
    prepared: bool
    ended: Entry[RescueEnded] | None

    @property
    def open(self) -> bool:
        """Still going on: nobody ended it."""
        return self.ended is None


def episode_of(state: PoolState) -> Episode | None:
    """The last rescue of a pool; None where there never was one."""
    ends, sets = state.rescue_ends, state.rescues
    last_end = ends[-1] if ends else None
    if not sets:
        return None
    ended = last_end if last_end is not None and last_end.at >= sets[-1].at else None
    before = [e.at for e in ends if e is not ended]
    own = [e for e in sets if not before or e.at > before[-1]]
    began, until = own[0].at, ended.at if ended is not None else None
    now = own[-1].body

    def during(entries: tuple[Entry[B], ...]) -> tuple[Entry[B], ...]:
        return tuple(e for e in entries if e.at >= began and (until is None or e.at <= until))

    cleanings = tuple(e for e in during(state.care) if e.body.task in CLEANINGS)
    return Episode(
        began_at=began,
        set=now,
        tests=during(state.tests),
        visual_checks=during(state.visual_checks),
        additions=during(state.additions),
        cleanings=cleanings,
        prepared=_prepared(state, during(state.treatments)),
        ended=ended,
    )


def _prepared(state: PoolState, treatments: tuple[Entry[TreatmentStarted], ...]) -> bool:
    """The sheet that prepares was worked on."""
    return any(
        treatment.body.plan == PREPARE and bool(recorded_steps(state, treatment.id))
        for treatment in treatments
    )


def chlorine_rises(episode: Episode, volume_l: float) -> list[tuple[datetime, float]]:
    """When chlorine went in, and how much, mg/L."""
    found = []
    for entry in episode.additions:
        body = entry.body
        if body.chemical in CHLORINE_CARRIERS:
            rise = changes(product_of(body), body.mass_g, volume_l).get(Measure.FREE_CHLORINE, 0.0)
            found.append((entry.at, rise))
    return found


def rounds_done(episode: Episode, volume_l: float) -> int:
    """Shock rounds so far: pours within four hours of each other are one."""
    count, last = 0, None
    for at, rise in chlorine_rises(episode, volume_l):
        if rise >= SHOCK_RISE_MG_L and (last is None or (at - last).total_seconds() > 4 * 3600):
            count, last = count + 1, at
    return count


def worst_share_lost(episode: Episode, volume_l: float, now: datetime) -> float:
    """The largest share of free chlorine (0 to 0.6) that went from one test, and what was poured onto it, to
    the next, in the last days; 0 without such a pair.
    """
    read = [(e.at, v.value) for e in episode.tests if (v := value_in(e.body.values, Measure.FREE_CHLORINE))]
    rises, worst = chlorine_rises(episode, volume_l), 0.0
    for (at, first), (later, second) in pairwise(read):
        if now - at > LOSSES_OF or later - at > ONE_DAY_LIGHT:
            continue
        start = first + sum(rise for when, rise in rises if at <= when < later)
        worst = max(worst, 1 - second / start if start > WORTH_JUDGING_MG_L else 0.0)
    return min(worst, MOST_SHARE)

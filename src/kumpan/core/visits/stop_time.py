"""How long a stop at a pool takes, learned from those that were made.

Source: firm-planning.
"""

from datetime import datetime, timedelta
from statistics import median

from kumpan.core.journal import PoolState

SOURCE = "firm-planning"

LAST = 6  # the stops that are looked at; the middle one counts, so that one long talk moves nothing
LEAST_MIN, MOST_MIN = 3.0, 120.0
BEGAN_WITHIN = timedelta(minutes=MOST_MIN)


def usual_minutes(state: PoolState) -> float | None:
    """The middle of the last stops, minutes; None before two of them."""
    found = []
    for done in state.visits[-LAST:]:
        began = _began(state, done.at)
        if began is not None and LEAST_MIN <= (done.at - began).total_seconds() / 60 <= MOST_MIN:
            found.append((done.at - began).total_seconds() / 60)
    return float(median(found)) if len(found) > 1 else None


def _began(state: PoolState, done: datetime) -> datetime | None:
    """When the visit was begun; where that was not said, the first look or test before its end."""
    said = [entry.at for entry in state.visits_begun if done - BEGAN_WITHIN <= entry.at < done]
    if said:
        return said[-1]
    seen = [entry.at for kind in (state.visual_checks, state.tests) for entry in kind]
    return min((at for at in seen if done - BEGAN_WITHIN <= at < done), default=None)

"""The water as it should be now: the last readings, what went in, and the chlorine that has gone since."""

from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import lru_cache
from math import ceil
from uuid import UUID

from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.expected import expected_now
from kumpan.core.forecast.fit import Fit, fit
from kumpan.core.forecast.forecast import forecast
from kumpan.core.journal import PoolState, last_reading
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.treatment.too_old import too_old, without

RECENT = timedelta(hours=6)  # so soon after a test nothing is reckoned away
SAME_FOR_S = 300
TOO_OLD = timedelta(days=21)  # after that a forecast says nothing; the reading stands, and it is old


@dataclass(frozen=True)
class _Journal:
    """What a fit depends on: known by the entries that count, so that it is found again."""

    ids: tuple[UUID, ...]
    place: Place
    state: PoolState = field(compare=False)


def fitted(state: PoolState, place: Place) -> Fit | None:
    """The pool's chlorine model, fitted once until something is entered."""
    return _fitted(_journal(state, place))


def _journal(state: PoolState, place: Place) -> _Journal:
    kinds = (
        state.tests,
        state.visual_checks,
        state.additions,
        state.water_changes,
        state.cell_settings,
        state.swims,
    )
    return _Journal(tuple(entry.id for kind in kinds for entry in kind), place, state)


@lru_cache(maxsize=256)
def _fitted(journal: _Journal) -> Fit | None:
    return fit(journal.state, journal.place)


def water_now(state: PoolState, place: Place, now: datetime) -> Readings:
    """The readings to plan from: as tested and dosed, free chlorine as the model has it by now.

    What is too old to carry a dose is left out, so that the plan asks for the test.
    """
    return without(_reckoned(state, place, now), too_old(state, now))


def _reckoned(state: PoolState, place: Place, now: datetime) -> Readings:
    readings = expected_now(state)
    last = last_reading(state, Measure.FREE_CHLORINE)
    if last is None or readings.free_chlorine is None or not RECENT < now - last.at < TOO_OLD:
        return readings
    likely = _likely(_journal(state, place), _next_mark(now))
    if likely is None:
        return readings
    gone = readings.free_chlorine - likely
    total = readings.total_chlorine
    return replace(
        readings,
        free_chlorine=likely,
        total_chlorine=None if total is None else round(max(likely, total - gone), 1),
    )


def _next_mark(now: datetime) -> float:
    """The clock's next five minutes: chlorine moves slowly, and so the same answer serves for a while."""
    return ceil(now.timestamp() / SAME_FOR_S) * SAME_FOR_S


@lru_cache(maxsize=512)
def _likely(journal: _Journal, at_s: float) -> float | None:
    """Free chlorine (mg/L) as the model has it at a time; None without a model."""
    found = _fitted(journal)
    if found is None:
        return None
    return round(forecast(journal.state, journal.place, found, at_s).at(at_s)[1], 1)

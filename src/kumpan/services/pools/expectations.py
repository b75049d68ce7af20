"""The water as it should be now: the last readings, what went in, and the chlorine that has gone since."""

from dataclasses import replace
from datetime import datetime, timedelta
from math import ceil
from uuid import UUID

from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.expected import expected_now, settled_reading
from kumpan.core.forecast.fit import Fit, fit
from kumpan.core.forecast.forecast import ChlorineForecast, forecast
from kumpan.core.forecast.sun import SECONDS_A_DAY
from kumpan.core.journal import PoolState, last_reading, value_in
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.treatment.too_old import too_old, without
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.places import under_the_sky
from kumpan.services.workers import WORKERS

RECENT = timedelta(hours=2)  # so soon after a test nothing is reckoned away
SAME_FOR_S = 300
DAYS_AHEAD = 4
# All that the chlorine model reads of a journal; what else is entered leaves its fit as it is.
MODELED = ("tests", "visual_checks", "additions", "water_changes", "cell_settings", "swims")
TOO_OLD = timedelta(days=21)  # after that a forecast says nothing; the reading stands, and it is old


async def modeled_state(scope: Scope, pool_id: UUID) -> PoolState:
    """The pool as it stands now, with its chlorine model at hand where the water now follows from it.

    Whoever asks for the water as it is now begins here, so that no fit ever holds up the event loop; it is
    fitted by a worker. Right after a test nothing is reckoned away, and nobody waits for a fit.
    Raises NotFound for a pool that is not here.
    """
    state = await pool_state(scope, pool_id)
    if not _follows_from_the_model(state, scope.now):
        return state
    if state.settings is not None and state.basin is not None and state.equipment is not None:
        place = under_the_sky(state.settings, state.basin, state.equipment.traits)
        await model_of(state, place)
    return state


async def model_of(state: PoolState, place: Place) -> Fit | None:
    """The pool's chlorine model, fitted by a worker where it is not known yet; None without a test."""
    if not _volume_is_known(state):
        return None
    modeled = state.only(*MODELED)
    return await _fitted.awaited(lambda: WORKERS.run(fit, modeled, place), modeled, place)


def fitted(state: PoolState, place: Place) -> Fit | None:
    """The pool's chlorine model, fitted once until something is entered."""
    return _fitted(state.only(*MODELED), place)


_fitted = remembered(most=48)(fit)


def water_now(state: PoolState, place: Place, now: datetime) -> Readings:
    """The readings to plan from: as tested and dosed, free chlorine as the model has it by now.

    What is too old to carry a dose is left out, so that the plan asks for the test.
    """
    return without(_reckoned(state, place, now), too_old(state, now))


def _reckoned(state: PoolState, place: Place, now: datetime) -> Readings:
    readings = expected_now(state)
    if readings.free_chlorine is None or not _follows_from_the_model(state, now):
        return readings
    ahead = chlorine_ahead(state, place, now)
    if ahead is None:
        return readings
    likely = round(ahead.at(now.timestamp())[1], 1)
    gone = readings.free_chlorine - likely
    total = readings.total_chlorine
    return replace(
        readings,
        free_chlorine=likely,
        total_chlorine=None if total is None else round(max(likely, total - gone), 1),
    )


def _follows_from_the_model(state: PoolState, now: datetime) -> bool:
    if not _volume_is_known(state):
        return False
    last = last_reading(state, Measure.FREE_CHLORINE)
    counts = settled_reading(state, Measure.FREE_CHLORINE)
    if last is None or (counts is not None and counts.at > last.at):  # it follows from total chlorine alone
        return False
    return RECENT < now - last.at < TOO_OLD


def model_turns(state: PoolState) -> tuple[datetime, ...]:
    """When the water of now begins to follow from the model after the last test, and when it ceases to."""
    last = last_reading(state, Measure.FREE_CHLORINE)
    return () if last is None else (last.at + RECENT, last.at + TOO_OLD)


def _volume_is_known(state: PoolState) -> bool:
    """Without it nobody knows what an addition did to the water."""
    return state.basin is None or not state.basin.volume_is_unknown


def _next_mark(now: datetime) -> float:
    """The clock's next five minutes: chlorine moves slowly, and so the same answer serves for a while."""
    return ceil(now.timestamp() / SAME_FOR_S) * SAME_FOR_S


def chlorine_before(state: PoolState, place: Place) -> ChlorineForecast | None:
    """What the tests before the last one foretold for it: whether a zero may be a bleached test."""
    if not _volume_is_known(state):
        return None
    tests = [e for e in state.tests if value_in(e.body.values, Measure.FREE_CHLORINE) is not None]
    if len(tests) < 2 or tests[-1].at - tests[-2].at > TOO_OLD:
        return None
    earlier = replace(
        state.only(*MODELED),
        tests=tuple(e for e in state.tests if e.at < tests[-1].at),
        additions=tuple(e for e in state.additions if e.at < tests[-1].at),
    )
    return _until(earlier, place, tests[-1].at.timestamp())


@remembered(most=20)
def _until(state: PoolState, place: Place, at_s: float) -> ChlorineForecast | None:
    found = _fitted(state, place)
    return None if found is None else forecast(state, place, found, at_s)


def chlorine_ahead(state: PoolState, place: Place, now: datetime) -> ChlorineForecast | None:
    """Free chlorine from the last test until some days ahead; None where the reading still stands by itself,
    or is too old to say anything by.
    """
    if not _follows_from_the_model(state, now):
        return None
    return _ahead(state.only(*MODELED), place, _next_mark(now))


@remembered(most=20)
def _ahead(state: PoolState, place: Place, at_s: float) -> ChlorineForecast | None:
    found = _fitted(state, place)
    return None if found is None else forecast(state, place, found, at_s + DAYS_AHEAD * SECONDS_A_DAY)

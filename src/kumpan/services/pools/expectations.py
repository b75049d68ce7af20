"""The water as it should be now: the last readings, what went in, and the chlorine that has gone since."""

from dataclasses import replace
from datetime import datetime, timedelta
from math import ceil
from uuid import UUID

from kumpan.core.forecast.conditions import Place
from kumpan.core.forecast.expected import expected_now
from kumpan.core.forecast.fit import Fit, fit
from kumpan.core.forecast.forecast import forecast
from kumpan.core.journal import PoolState, last_reading
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.treatment.too_old import too_old, without
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, pool_state
from kumpan.services.pools.places import under_the_sky
from kumpan.services.workers import WORKERS

RECENT = timedelta(hours=6)  # so soon after a test nothing is reckoned away
SAME_FOR_S = 300
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
    modeled = state.only(*MODELED)
    return await _fitted.awaited(lambda: WORKERS.run(fit, modeled, place), modeled, place)


def fitted(state: PoolState, place: Place) -> Fit | None:
    """The pool's chlorine model, fitted once until something is entered."""
    return _fitted(state.only(*MODELED), place)


_fitted = remembered(most=256)(fit)


def water_now(state: PoolState, place: Place, now: datetime) -> Readings:
    """The readings to plan from: as tested and dosed, free chlorine as the model has it by now.

    What is too old to carry a dose is left out, so that the plan asks for the test.
    """
    return without(_reckoned(state, place, now), too_old(state, now))


def _reckoned(state: PoolState, place: Place, now: datetime) -> Readings:
    readings = expected_now(state)
    if readings.free_chlorine is None or not _follows_from_the_model(state, now):
        return readings
    likely = _likely(state.only(*MODELED), place, _next_mark(now))
    if likely is None:
        return readings
    gone = readings.free_chlorine - likely
    total = readings.total_chlorine
    return replace(
        readings,
        free_chlorine=likely,
        total_chlorine=None if total is None else round(max(likely, total - gone), 1),
    )


def _follows_from_the_model(state: PoolState, now: datetime) -> bool:
    last = last_reading(state, Measure.FREE_CHLORINE)
    return last is not None and RECENT < now - last.at < TOO_OLD


def _next_mark(now: datetime) -> float:
    """The clock's next five minutes: chlorine moves slowly, and so the same answer serves for a while."""
    return ceil(now.timestamp() / SAME_FOR_S) * SAME_FOR_S


@remembered(most=512)
def _likely(state: PoolState, place: Place, at_s: float) -> float | None:
    """Free chlorine (mg/L) as the model has it at a time; None without a model."""
    found = _fitted(state, place)
    if found is None:
        return None
    return round(forecast(state, place, found, at_s).at(at_s)[1], 1)

"""A pool's own factors from its tests: the most likely ones, given the usual figures as a start.

Four numbers: loss by sun, demand of organics, strength of cell or tablets, and how much a day's loss
varies. With few tests the usual figures hold; each test moves them a little. Source: chlorine-model.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from kumpan.core.forecast.chlorine import Factors
from kumpan.core.forecast.conditions import Conditions, Place, Pulse, conditions
from kumpan.core.forecast.filtering import Belief, Observation, Segment, along, filtered, segments
from kumpan.core.forecast.sun import SECONDS_A_DAY, Array
from kumpan.core.journal import PoolState, Reading, history
from kumpan.core.quantities.readings import Measure

SOURCE = "chlorine-model"

NAMES = ("sun", "organics", "source", "unrest")
USUAL = np.array([0.0, 0.0, 0.0, np.log(0.40)])
USUAL_SD = np.array([0.5, 0.7, 0.3, 0.4])
DAYS_FITTED = 56.0  # older tests were another season
READING_SHARE = 0.05  # sampling and mixing, of the reading, beside the method's doubt
SMALLEST_SD = 0.12
UNCERTAINTY_IN_SD = 1.3  # a method's doubt is about so many standard deviations
SLOPE_STEP = 1e-3
# Slopes by differences are no finer: what is gained below this is noise, and took half of the time.
GAIN_THAT_COUNTS = 1e-7
FARTHEST_SD = 3.0
CURVATURE_STEP = 0.05


@dataclass(frozen=True, kw_only=True)
class Fit:
    """A pool's factors (logarithms, order of NAMES), their covariance, and the chlorine at the last test."""

    values: tuple[float, ...]
    covariance: tuple[tuple[float, ...], ...]
    tests: int
    last_at_s: float
    last: Belief

    @property
    def factors(self) -> Factors:
        """The fitted factors of loss, without the unrest."""
        return Factors(*self.values[:3])

    @property
    def unrest(self) -> float:
        """By what share a day's loss differs from the usual one."""
        return float(np.exp(self.values[3]))

    @cached_property
    def narrowed(self) -> dict[str, float]:
        """By name, how far the tests have narrowed each factor: 0 not at all, 1 wholly."""
        sd = np.sqrt(np.diag(np.array(self.covariance)))
        return {name: float(1 - sd[i] / USUAL_SD[i]) for i, name in enumerate(NAMES)}


def sd_of(reading: Reading) -> float:
    """Standard deviation (mg/L) of a tested free chlorine: the method's doubt, sampling, mixing."""
    half = (reading.value.high - reading.value.low) / 2
    return float(max(SMALLEST_SD, np.hypot(half / UNCERTAINTY_IN_SD, READING_SHARE * reading.value.value)))


def fit(state: PoolState, place: Place, planned: Sequence[Pulse] = ()) -> Fit | None:
    """The fit to the last weeks of a journal; None before the first test of free chlorine."""
    past = history(state, Measure.FREE_CHLORINE)
    if not past:
        return None
    last_s = past[-1].at.timestamp()
    since_s = last_s - DAYS_FITTED * SECONDS_A_DAY
    past = tuple(reading for reading in past if reading.at.timestamp() >= since_s)
    if len(past) < 2:
        return _as_usual(past[-1])
    acting = conditions(state, place, start_s=past[0].at.timestamp(), end_s=last_s, planned=planned)
    observed = _observed(acting, past)

    # The unrest moves no segment: of five values asked for one slope, two share their segments.
    @lru_cache(maxsize=8)
    def courses(sun: float, organics: float, source: float) -> list[Segment]:
        return segments(acting, Factors(sun, organics, source), [seen.knot for seen in observed])

    def misfit(values: Array) -> float:
        beliefs = along(courses(*values[:3].tolist()), float(np.exp(values[3])), observed)
        return beliefs[-1].misfit + 0.5 * float(np.sum(((values - USUAL) / USUAL_SD) ** 2))

    values = _least(misfit)
    last = filtered(acting, Factors(*values[:3]), float(np.exp(values[3])), observed)[-1]
    return Fit(
        values=_tuple(values),
        covariance=_rows(_covariance(misfit, values)),
        tests=len(past),
        last_at_s=last_s,
        last=last,
    )


def _least(misfit: Callable[[Array], float]) -> Array:
    """The values with the least misfit, not farther from the usual ones than anything was ever seen."""
    from scipy.optimize import minimize

    reach = FARTHEST_SD * USUAL_SD
    found = minimize(
        misfit,
        USUAL,
        method="L-BFGS-B",
        bounds=list(zip(USUAL - reach, USUAL + reach, strict=True)),
        options={"eps": SLOPE_STEP, "maxiter": 60, "ftol": GAIN_THAT_COUNTS},
    )
    return np.asarray(found.x, dtype=np.float64)


def _as_usual(only: Reading) -> Fit:
    """What one test alone says: the usual figures."""
    return Fit(
        values=_tuple(USUAL),
        covariance=_rows(np.diag(USUAL_SD**2)),
        tests=1,
        last_at_s=only.at.timestamp(),
        last=Belief(mean=only.value.value, variance=sd_of(only) ** 2),
    )


def _observed(acting: Conditions, past: Sequence[Reading]) -> list[Observation]:
    """The tests at their knots; of two at one moment the later counts."""
    by_knot = {int(np.searchsorted(acting.knots_s, reading.at.timestamp())): reading for reading in past}
    return [
        Observation(knot, (r.value.low + r.value.high) / 2, sd_of(r)) for knot, r in sorted(by_knot.items())
    ]


def _covariance(misfit: Callable[[Array], float], values: Array) -> Array:
    """Inverse of the misfit's curvature, by differences; never wider than the usual spread."""
    size, step = len(values), CURVATURE_STEP
    steps = np.eye(size) * step
    middle = misfit(values)
    once = [misfit(values + steps[i]) for i in range(size)]
    back = [misfit(values - steps[i]) for i in range(size)]
    curvature = np.empty((size, size))
    for i in range(size):
        curvature[i, i] = (once[i] - 2 * middle + back[i]) / step**2
        for j in range(i):
            both = misfit(values + steps[i] + steps[j])
            curvature[i, j] = curvature[j, i] = (both - once[i] - once[j] + middle) / step**2
    # A reading that is wild, or a floor that is touched, can bend the misfit the wrong way.
    least = np.diag(1 / USUAL_SD**2)
    strengths, directions = np.linalg.eigh(curvature - least)
    held = directions @ np.diag(np.maximum(strengths, 0.0)) @ directions.T + least
    return np.asarray(np.linalg.inv(held), dtype=np.float64)


def _tuple(values: Array) -> tuple[float, ...]:
    return tuple(float(value) for value in values)


def _rows(matrix: Array) -> tuple[tuple[float, ...], ...]:
    return tuple(_tuple(row) for row in matrix)

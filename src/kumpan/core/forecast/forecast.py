"""Free chlorine ahead: the likely course with its band, and what follows from it in words and hours.

The band is 90 percent: what is not known of the chlorine now, of the pool's factors, and of the days'
own weather. Source: chlorine-model.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

import numpy as np

from kumpan.core.forecast.chlorine import Factors, course
from kumpan.core.forecast.conditions import Conditions, Place, Pulse, conditions
from kumpan.core.forecast.filtering import POUR_SHARE, Belief, carried, hourly
from kumpan.core.forecast.fit import Fit
from kumpan.core.forecast.sun import SECONDS_A_DAY, Array
from kumpan.core.journal import PoolState

SOURCE = "chlorine-model"

BAND_SD = 1.645  # 90 percent
FACTOR_STEP = 0.1
TABLETS_LAST_DAYS, TABLETS_WIDEN = 14, 1.4  # measured on simulated tablet pools, see docs/forecast.md


@dataclass(frozen=True)
class ChlorineForecast:
    """Free chlorine (mg/L) at UTC seconds: likely, and the ends of the 90 percent band."""

    at_s: Array
    likely: Array
    low: Array
    high: Array

    def at(self, when_s: float) -> tuple[float, float, float]:
        """Low, likely and high at a moment, by a line between the hours."""
        rows = (self.low, self.likely, self.high)
        low, likely, high = (float(np.interp(when_s, self.at_s, row)) for row in rows)
        return low, likely, high


def forecast(
    state: PoolState, place: Place, fitted: Fit, until_s: float, planned: Sequence[Pulse] = ()
) -> ChlorineForecast:
    """From the last test until a time, with what was poured since and what is planned."""
    acting = conditions(state, place, start_s=fitted.last_at_s, end_s=until_s, planned=planned)
    beliefs = _ahead(acting, fitted.factors, fitted)
    likely = np.array([belief.mean for belief in beliefs])
    own = np.array([belief.variance for belief in beliefs])
    sd = np.sqrt(own + _factor_variance(acting, fitted, likely)) * _unevenly(state, fitted)
    return ChlorineForecast(
        acting.knots_s, likely, np.maximum(0.0, likely - BAND_SD * sd), likely + BAND_SD * sd
    )


def _unevenly(state: PoolState, fitted: Fit) -> float:
    """Tablets dissolve faster at first and by the flow: their days differ more than the model knows."""
    since = fitted.last_at_s - TABLETS_LAST_DAYS * SECONDS_A_DAY
    tablets = any(e.body.chemical == "trichlor" and e.at.timestamp() > since for e in state.additions)
    return TABLETS_WIDEN if tablets else 1.0


def _ahead(acting: Conditions, factors: Factors, fitted: Fit) -> list[Belief]:
    """The belief at every knot, from just before the first knot's pulse."""
    belief = _poured(fitted.last, float(acting.pulses[0]))
    found = [belief]
    for i, span in enumerate(hourly(acting, factors)):
        belief = _poured(carried(belief, span, fitted.unrest), float(acting.pulses[i + 1]))
        found.append(belief)
    return found


def _poured(belief: Belief, pulse_mg_l: float) -> Belief:
    if pulse_mg_l == 0.0:
        return belief
    variance = belief.variance + (POUR_SHARE * pulse_mg_l) ** 2
    return replace(belief, mean=max(0.0, belief.mean + pulse_mg_l), variance=variance)


def _factor_variance(acting: Conditions, fitted: Fit, likely: Array) -> Array:
    """What is not known of the pool's three factors."""
    slopes = []
    for i in range(3):
        moved = list(fitted.values[:3])
        moved[i] += FACTOR_STEP
        course_moved = np.array([belief.mean for belief in _ahead(acting, Factors(*moved), fitted)])
        slopes.append((course_moved - likely) / FACTOR_STEP)
    slope = np.array(slopes)
    covariance = np.array(fitted.covariance)[:3, :3]
    return np.asarray(np.einsum("in,ij,jn->n", slope, covariance, slope), dtype=np.float64)


def first_under(found: ChlorineForecast, limit_mg_l: float, from_s: float) -> datetime | None:
    """When the likely course first falls under a limit after a time; None within the forecast."""
    under = (found.likely < limit_mg_l) & (found.at_s >= from_s)
    return _moment(found.at_s[int(np.argmax(under))]) if under.any() else None


def under_for_good(found: ChlorineForecast, limit_mg_l: float, from_s: float) -> datetime | None:
    """When even the band's high end has come down to a limit, after a shock; None within the forecast."""
    over = np.flatnonzero((found.high > limit_mg_l) & (found.at_s >= from_s))
    if len(over) == 0:
        return _moment(from_s)
    return _moment(found.at_s[over[-1] + 1]) if over[-1] + 1 < len(found.at_s) else None


def overnight_loss(acting: Conditions, factors: Factors, free_chlorine_mg_l: float) -> float:
    """Free chlorine (mg/L) that goes without sun over the given hours: organics, not photolysis."""
    dark = Conditions(
        knots_s=acting.knots_s,
        light=np.zeros_like(acting.light),
        dark=acting.dark,
        organics=acting.organics,
        load=acting.load,
        source=np.zeros_like(acting.source),
        pulses=np.zeros_like(acting.pulses),
    )
    return free_chlorine_mg_l - float(course(dark, factors, free_chlorine_mg_l)[-1])


def daily_loss(acting: Conditions, factors: Factors, free_chlorine_mg_l: float) -> float:
    """mg/L a day that has to be made up to hold free chlorine where it is, over the given hours."""
    loss = np.exp(factors.sun) * acting.light + acting.dark
    organics = np.exp(factors.organics) * acting.organics + acting.load
    total = float(np.sum((loss * free_chlorine_mg_l + organics) * acting.hours))
    return total / (float(acting.knots_s[-1] - acting.knots_s[0]) / SECONDS_A_DAY)


def half_life_in_sun_h(loss_per_hour: float) -> float:
    """Hours in which half is gone at a first-order loss."""
    return float(np.log(2) / loss_per_hour)


def _moment(at_s: float) -> datetime:
    return datetime.fromtimestamp(round(float(at_s)), UTC)

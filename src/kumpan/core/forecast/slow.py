"""What moves by weeks: stabilizer, calcium, salt, alkalinity, and pH between acid doses.

A straight line through the tests once the known additions and water changes are taken out, its slope held
near what evaporation and the chlorine of the last weeks bring. Sources: mass-balance, evaporation,
ph-drift.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np

from kumpan.core.dosing.mass_balance import change_per_g, changes
from kumpan.core.forecast.conditions import additions, product_of
from kumpan.core.forecast.sun import SECONDS_A_DAY
from kumpan.core.journal import PoolState, Reading, WaterChange, history
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure, Readings

SOURCES_USED = ("mass-balance", "evaporation", "ph-drift")

BAND_SD = 1.645
UNCERTAINTY_IN_SD = 1.3
WEEKS_LOOKED_AT = 10
ROUTINE_WEEKS = 4
EVAPORATION_MM_DAY = 5.0
COVERED_SHARE = 0.1
INDOOR_SHARE = 0.5
# How far the slope may lie from the usual one, per day.
SLOPE_SD = {
    Measure.CYANURIC_ACID: 0.25, Measure.CALCIUM_HARDNESS: 0.8, Measure.SALT: 8.0,
    Measure.TOTAL_ALKALINITY: 0.8,
}  # fmt: skip
LINED: tuple[Measure, ...] = tuple(SLOPE_SD)
PH_RISE_PER_DAY, PH_RISE_SD = 0.03, 0.03
PH_AT_REST = 8.2  # where carbon dioxide in a usual water is at rest with air
PH_DRIFT_FROM = 7.5
PH_READING_SD = 0.1
MOVES_PH = (
    "hydrochloric_acid", "sodium_bisulfate", "sodium_carbonate", "borax", "sodium_hydroxide",
    "sodium_bicarbonate", "cyanuric_acid",
)  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Trend:
    """A measure's line: its value at `at_s` (UTC seconds), its slope a day, and the doubt of both."""

    measure: Measure
    at_s: float
    value: float
    slope: float
    value_variance: float
    shared: float
    slope_variance: float

    def band(self, when_s: float) -> tuple[float, float, float]:
        """Low, likely and high (90 percent) at a moment."""
        days = (when_s - self.at_s) / SECONDS_A_DAY
        likely = self.value + self.slope * days
        variance = self.value_variance + 2 * days * self.shared + days**2 * self.slope_variance
        half = BAND_SD * max(variance, 0.0) ** 0.5
        return max(0.0, likely - half), max(0.0, likely), max(0.0, likely + half)

    def days_until(self, level: float) -> float | None:
        """Days until the likely line reaches a level; None when it goes the other way or stands."""
        if self.slope == 0:
            return None
        days = (level - self.value) / self.slope
        return days if days > 0 else None


@dataclass(frozen=True, kw_only=True)
class Surroundings:
    """What evaporation depends on: liters, mean depth in m, cover and roof, and the fill water."""

    volume_l: float
    mean_depth_m: float
    covered: bool
    indoor: bool
    fill: Readings


def usual_slope(measure: Measure, around: Surroundings) -> float:
    """mg/L a day that evaporation and top-up bring; 0 where the fill is not tested."""
    share = EVAPORATION_MM_DAY / 1000 / around.mean_depth_m
    share *= (COVERED_SHARE if around.covered else 1.0) * (INDOOR_SHARE if around.indoor else 1.0)
    return share * (around.fill.value(measure) or 0.0)


def routine_slope(state: PoolState, measure: Measure, around: Surroundings, now_s: float) -> float:
    """mg/L a day that the chlorine of the last weeks brought: it is poured on, so it is drift, not a step.

    Alkalinity once the chlorine is used up.
    """
    since = now_s - ROUTINE_WEEKS * 7 * SECONDS_A_DAY
    poured = [
        change_per_g(product_of(body), measure, around.volume_l, spent=True) * body.mass_g
        for entry, body in additions(state)
        if body.chemical in CHLORINE_CARRIERS and since <= entry.at.timestamp() <= now_s
    ]
    return sum(poured) / (ROUTINE_WEEKS * 7)


def trend(state: PoolState, measure: Measure, around: Surroundings, now_s: float) -> Trend | None:
    """The line of one measure as of now; None before its first test."""
    since = now_s - WEEKS_LOOKED_AT * 7 * SECONDS_A_DAY
    past = [r for r in history(state, measure) if since <= r.at.timestamp() <= now_s]
    if not past:
        return None
    usual = usual_slope(measure, around) + routine_slope(state, measure, around, now_s)
    return _line(measure, past, known=_known_steps(state, measure, around, past[0]), usual=usual, now_s=now_s)


def _known_steps(
    state: PoolState, measure: Measure, around: Surroundings, first: Reading
) -> list[tuple[float, float]]:
    """(when, by how much) the journal says that the measure was moved, since the first reading."""
    found = []
    for entry, body in additions(state):
        change = changes(product_of(body), body.mass_g, around.volume_l).get(measure, 0.0)
        if change and body.chemical not in CHLORINE_CARRIERS and entry.at > first.at:
            found.append((entry.at.timestamp(), change))
    for entry in state.water_changes:
        if entry.at > first.at:
            in_fill = 0.0 if entry.body.kind is WaterChange.RAIN else around.fill.value(measure) or 0.0
            share = min(1.0, entry.body.volume_l / around.volume_l)
            found.append((entry.at.timestamp(), (in_fill - first.value.value) * share))
    return found


def _line(
    measure: Measure,
    past: Sequence[Reading],
    known: Sequence[tuple[float, float]],
    usual: float,
    now_s: float,
) -> Trend:
    at = np.array([reading.at.timestamp() for reading in past])
    brought = np.array([sum(change for when, change in known if when < moment) for moment in at])
    middle = np.array([(reading.value.low + reading.value.high) / 2 for reading in past])
    sd = np.array(
        [max((r.value.high - r.value.low) / 2 / UNCERTAINTY_IN_SD, 0.02 * r.value.value, 0.5) for r in past]
    )
    days = (at - now_s) / SECONDS_A_DAY
    rows = np.vstack(
        [np.column_stack([np.ones_like(days), days]) / sd[:, None], [0.0, 1.0 / SLOPE_SD[measure]]]
    )
    seen = np.append((middle - brought) / sd, usual / SLOPE_SD[measure])
    covariance = np.linalg.inv(rows.T @ rows)
    value, slope = covariance @ rows.T @ seen
    misfit = float(np.sum((rows @ np.array([value, slope]) - seen) ** 2)) / max(len(past) - 1, 1)
    covariance *= max(1.0, misfit)
    total = sum(change for _, change in known)
    return Trend(
        measure=measure,
        at_s=now_s,
        value=float(value + total),
        slope=float(slope),
        value_variance=float(covariance[0, 0]),
        shared=float(covariance[0, 1]),
        slope_variance=float(covariance[1, 1]),
    )


@dataclass(frozen=True)
class PhDrift:
    """pH rises at `per_day` (at pH 7.5) and slower toward rest with air; doubt as standard deviations."""

    at_s: float
    value: float
    per_day: float
    per_day_sd: float

    def band(self, when_s: float) -> tuple[float, float, float]:
        """Low, likely and high (90 percent) at a moment."""
        days = max(0.0, (when_s - self.at_s) / SECONDS_A_DAY)
        low, likely, high = (
            self._after(days, self.per_day + signal_number * BAND_SD * self.per_day_sd)
            for signal_number in (-1, 0, 1)
        )
        start = BAND_SD * PH_READING_SD
        return likely - np.hypot(likely - low, start), likely, likely + np.hypot(high - likely, start)

    def _after(self, days: float, per_day: float) -> float:
        """The gap to rest closes exponentially."""
        rate = per_day / (PH_AT_REST - PH_DRIFT_FROM)
        return float(PH_AT_REST + (self.value - PH_AT_REST) * np.exp(-rate * days))


def ph_drift(state: PoolState, expected_ph: float, now_s: float) -> PhDrift:
    """The drift learned from tests with no pH product between them. `expected_ph` is the pH as of now."""
    poured = [e.at for e, body in additions(state) if body.chemical in MOVES_PH]
    past = history(state, Measure.PH)
    weight, total = 1 / PH_RISE_SD**2, PH_RISE_PER_DAY / PH_RISE_SD**2
    for one, other in pairwise(past):
        days = (other.at - one.at).total_seconds() / SECONDS_A_DAY
        if 0.5 <= days <= 8 and not any(one.at <= at < other.at for at in poured):
            gap = (PH_AT_REST - one.value.value) / (PH_AT_REST - PH_DRIFT_FROM)
            if gap > 0.2:
                sd = 2**0.5 * PH_READING_SD / days / gap
                weight += 1 / sd**2
                total += (other.value.value - one.value.value) / days / gap / sd**2
    return PhDrift(now_s, expected_ph, total / weight, weight**-0.5)

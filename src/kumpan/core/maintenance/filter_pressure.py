"""The filter's gauge over time: its rise since the last cleaning, and the day on which it reaches the limit.

Sources: filter-care.
"""

from dataclasses import dataclass
from datetime import datetime, timedelta

import numpy as np

from kumpan.core.journal import PoolState
from kumpan.core.messages import NOTHING, Message
from kumpan.core.quantities.units import KPA_PER_PSI

SOURCE = "filter-care"

LIMIT_KPA = 8 * KPA_PER_PSI  # 8 to 10 psi over clean; the lower is the default
LIMIT_SHARE = 0.25  # the other rule: a quarter over clean
USUAL_CLEAN_KPA = 10 * KPA_PER_PSI
CLEANINGS = (
    "backwash",
    "cartridge_hose",
    "cartridge_soak",
    "cartridge_new",
    "de_recharge",
    "de_clean",
    "sand_new",
)
LEAST_POINTS = 3
FARTHEST = timedelta(days=180)
LEAST_RISE_KPA_A_DAY = 0.01 * KPA_PER_PSI
OFF_ZERO_KPA = 1 * KPA_PER_PSI


@dataclass(frozen=True)
class PressurePoint:
    """One reading of the filter's gauge, kPa."""

    at: datetime
    pressure_kpa: float


@dataclass(frozen=True, kw_only=True)
class PressureTrend:
    """The gauge since the last cleaning, kPa.

    `limit_at` is the day it is fitted to reach the limit, if it rises.
    """

    points: tuple[PressurePoint, ...]
    clean_kpa: float
    clean_known: bool
    last_kpa: float
    last_at: datetime
    rise_kpa: float
    rise_kpa_a_day: float | None
    limit_at: datetime | None


def readings(state: PoolState) -> tuple[PressurePoint, ...]:
    """Every reading of the gauge with the pump on: noted by itself, or taken in during care."""
    found = [PressurePoint(entry.at, entry.body.pressure_kpa) for entry in state.pressures]
    for entry in state.care:
        values = {value.name: value.value for value in entry.body.values}
        for name, minutes in (("pressure_before_kpa", -1), ("pressure_after_kpa", 1)):
            if name in values:
                found.append(PressurePoint(entry.at + timedelta(minutes=minutes), values[name]))
    return tuple(sorted(found, key=lambda point: point.at))


def last_cleaning(state: PoolState) -> datetime | None:
    """When the filter was last cleaned."""
    times = [e.at for e in state.care if e.body.task in CLEANINGS]
    return times[-1] if times else None


def clean_pressure(state: PoolState) -> tuple[float, bool]:
    """The start pressure (kPa) after the last cleaning, and whether it was ever noted."""
    after = [
        value.value
        for entry in state.care
        for value in entry.body.values
        if value.name == "pressure_after_kpa"
    ]
    if after:
        return after[-1], True
    noted = state.plant.clean_pressure_kpa
    return (noted, True) if noted is not None else (USUAL_CLEAN_KPA, False)


def pressure_trend(state: PoolState, now: datetime) -> PressureTrend | None:
    """The rise since the last cleaning, by a straight line; None without a reading since."""
    since = last_cleaning(state)
    points = tuple(p for p in readings(state) if p.at <= now and (since is None or p.at > since))
    if not points:
        return None
    clean, known = clean_pressure(state)
    slope = _slope_a_day(points)
    last = points[-1]
    rise = last.pressure_kpa - clean
    return PressureTrend(
        points=points,
        clean_kpa=clean,
        clean_known=known,
        last_kpa=last.pressure_kpa,
        last_at=last.at,
        rise_kpa=rise,
        rise_kpa_a_day=slope,
        limit_at=_reaches(points, clean, slope),
    )


def _slope_a_day(points: tuple[PressurePoint, ...]) -> float | None:
    """kPa a day by least squares; None with too few readings or all of one moment."""
    if len(points) < LEAST_POINTS:
        return None
    days = np.array([(p.at - points[0].at).total_seconds() / 86_400 for p in points])
    if float(np.ptp(days)) < 0.5:
        return None
    return float(np.polyfit(days, [p.pressure_kpa for p in points], 1)[0])


def _reaches(points: tuple[PressurePoint, ...], clean: float, slope: float | None) -> datetime | None:
    """The day on which the line through the readings meets the limit."""
    if slope is None or slope < LEAST_RISE_KPA_A_DAY:
        return None
    days = np.array([(p.at - points[0].at).total_seconds() / 86_400 for p in points])
    middle = float(np.mean([p.pressure_kpa for p in points])) - slope * float(np.mean(days))
    ahead = timedelta(days=(clean + LIMIT_KPA - middle) / slope)
    return points[0].at + ahead if ahead - (points[-1].at - points[0].at) < FARTHEST else None


def reading_in_question(off_kpa: float | None, on_kpa: float | None, clean_kpa: float) -> Message:
    """A word on the gauge itself: zero when off, its known start pressure when on; empty when both are
    right.
    """
    if off_kpa is not None and abs(off_kpa) > OFF_ZERO_KPA:
        return Message(
            "The gauge does not go to zero with the pump off: "
            "replace it, and trust the returns' flow till then."
        )
    if on_kpa is not None and on_kpa < 0.3 * clean_kpa:
        return Message(
            "Far under its start pressure: a blocked suction, air, or a broken gauge. Look at the returns."
        )
    return NOTHING

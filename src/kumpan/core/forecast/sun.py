"""How strongly the sun stands over a place at an hour. Sources: fao-56, sun-strength.

Arrays of UTC timestamps in seconds, so that a season is one computation. The equation of time (up to
16 minutes) is left out: it moves noon, not the day's sum.
"""

from datetime import datetime, timedelta

import numpy as np
import numpy.typing as npt

SOURCES_USED = ("fao-56", "sun-strength")

Array = npt.NDArray[np.float64]

SECONDS_A_DAY = 86_400.0
SECONDS_AN_HOUR = 3_600.0
# Ultraviolet falls off faster toward the horizon than light does: the longer way through the air.
ULTRAVIOLET_EXPONENT = 1.3


def day_of_year(timestamps_s: Array) -> Array:
    """Day of the year as a running number, 1 at new year; leap years drift by less than a day."""
    days_since_1970 = np.asarray(timestamps_s, dtype=np.float64) / SECONDS_A_DAY
    return np.asarray((days_since_1970 % 365.2425) + 1.0, dtype=np.float64)


def declination_rad_fao56(day: Array) -> Array:
    """Solar declination, FAO-56 equation 24."""
    return np.asarray(0.409 * np.sin(2 * np.pi / 365 * day - 1.39), dtype=np.float64)


def height_sine(timestamps_s: Array, latitude_deg: float, longitude_deg: float) -> Array:
    """Sine of the sun's height; negative at night."""
    phi, delta = np.radians(latitude_deg), declination_rad_fao56(day_of_year(timestamps_s))
    solar_hour = (timestamps_s / SECONDS_AN_HOUR + longitude_deg / 15.0) % 24.0
    angle = np.radians(15.0 * (solar_hour - 12.0))
    return np.asarray(
        np.sin(phi) * np.sin(delta) + np.cos(phi) * np.cos(delta) * np.cos(angle), dtype=np.float64
    )


def darkness(now: datetime, latitude_deg: float, longitude_deg: float) -> tuple[bool, datetime | None]:
    """Whether the sun is down, and when within a day that changes, to five minutes; None: it does not."""
    step = timedelta(minutes=5)
    steps = np.arange(timedelta(days=1) // step + 1, dtype=np.float64)
    down = height_sine(now.timestamp() + step.total_seconds() * steps, latitude_deg, longitude_deg) <= 0
    other = np.flatnonzero(down != down[0])
    return bool(down[0]), now + step * int(other[0]) if other.size else None


def sun_strength(timestamps_s: Array, latitude_deg: float, longitude_deg: float) -> Array:
    """What counts for chlorine: 1 with the sun overhead in a clear sky, 0 at night."""
    return np.asarray(
        np.maximum(height_sine(timestamps_s, latitude_deg, longitude_deg), 0.0) ** ULTRAVIOLET_EXPONENT,
        dtype=np.float64,
    )

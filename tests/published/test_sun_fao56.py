"""The sun against FAO Irrigation and Drainage Paper 56 (Allen et al. 1998), from memory.

Example 8: extraterrestrial radiation at 20 S on 3 September is 32.2 MJ/m2/day. Example 9: its day has
11.7 hours. Solstices and equinoxes by geometry.
"""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from astral import Observer
from astral.sun import sunrise, sunset

from kumpan.core.forecast.sun import (
    Array,
    darkness,
    day_of_year,
    declination_rad_fao56,
    height_sine,
    sun_strength,
)

SOLAR_CONSTANT_MJ_M2_MIN = 0.0820


def minutes_of(year: int, month: int, day: int) -> Array:
    begun = datetime(year, month, day, tzinfo=UTC).timestamp()
    return begun + 60.0 * np.arange(1440, dtype=np.float64)


def test_radiation_of_example_8() -> None:
    times = minutes_of(2026, 9, 3)
    sine = np.maximum(height_sine(times, -20.0, 0.0), 0.0)
    distance = 1 + 0.033 * np.cos(2 * np.pi / 365 * 246)
    assert SOLAR_CONSTANT_MJ_M2_MIN * distance * float(sine.sum()) == pytest.approx(32.2, abs=0.15)


def test_daylight_of_example_9() -> None:
    up = height_sine(minutes_of(2026, 9, 3), -20.0, 0.0) > 0
    assert up.sum() / 60 == pytest.approx(11.7, abs=0.1)


@pytest.mark.parametrize(
    ("date", "degrees"),
    [((2026, 6, 21), 23.4), ((2026, 12, 21), -23.4), ((2026, 3, 21), 0.0), ((2026, 9, 22), 0.0)],
)
def test_declination(date: tuple[int, int, int], degrees: float) -> None:
    day = day_of_year(minutes_of(*date)[:1])
    assert float(np.degrees(declination_rad_fao56(day))[0]) == pytest.approx(degrees, abs=1.0)


def test_noon_height_at_40_north_on_the_solstices() -> None:
    """90 - 40 + 23.4 and 90 - 40 - 23.4 degrees."""
    summer = np.degrees(np.arcsin(height_sine(minutes_of(2026, 6, 21), 40.0, 0.0).max()))
    winter = np.degrees(np.arcsin(height_sine(minutes_of(2026, 12, 21), 40.0, 0.0).max()))
    assert summer == pytest.approx(73.4, abs=0.3)
    assert winter == pytest.approx(26.6, abs=0.3)


def test_noon_follows_the_longitude() -> None:
    times = minutes_of(2026, 6, 21)
    noon = times[int(np.argmax(height_sine(times, 40.0, -90.0)))]
    assert (noon - times[0]) / 3600 == pytest.approx(18.0, abs=0.05)


def test_nights_are_dark_and_an_overhead_sun_is_one() -> None:
    strength = sun_strength(minutes_of(2026, 3, 21), 0.0, 0.0)
    assert strength.min() == 0.0
    assert strength.max() == pytest.approx(1.0, abs=0.002)


def test_darkness_begins_and_ends_with_the_sun_of_astral() -> None:
    """Against the library astral (its own solar equations); the equation of time is up to 16 minutes,
    refraction 4, the step 5."""
    place = Observer(30.27, -97.74)
    for month in (1, 4, 7, 10):
        noon = datetime(2026, month, 15, 18, 30, tzinfo=UTC)
        dark, sunset_at = darkness(noon, place.latitude, place.longitude)
        assert not dark
        assert sunset_at is not None
        down = sunset(place, noon.date(), tzinfo=UTC)
        down += timedelta(days=1) if down < noon else timedelta(0)
        assert abs(sunset_at - down) < timedelta(minutes=30)
        dark, sunrise_at = darkness(sunset_at, place.latitude, place.longitude)
        assert dark
        assert sunrise_at is not None
        assert abs(sunrise_at - sunrise(place, sunrise_at.date(), tzinfo=UTC)) < timedelta(minutes=30)
    assert darkness(datetime(2026, 12, 21, 12, tzinfo=UTC), 75.0, 0.0) == (True, None)

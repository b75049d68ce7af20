"""Free chlorine lost overnight: without sun, what is lost is eaten. What early light took is reckoned off.

Source: overnight-loss.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from math import exp

import numpy as np

from kumpan.core.forecast.sun import SECONDS_AN_HOUR, sun_strength
from kumpan.core.journal import AdditionMade, Entry, TestTaken, value_in
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure

SOURCE = "overnight-loss"

MOST_LOST_MG_L = 1.0
CLEAN_WATER_LOSES = 0.06  # share of what is there, in a night without sun: from memory
LEAST_EVENING_MG_L = 2.0  # with less there is too little to lose for a night to tell anything
HIGHEST_COMBINED_MG_L = 0.5
LEAST_HOURS, MOST_HOURS = 6.0, 15.0
MOST_SUN_HOURS = 1.0  # hours of a sun overhead between the two tests: northern summer nights are short
MIXES_MIN = 30


@dataclass(frozen=True, kw_only=True)
class Night:
    """Free chlorine (mg/L) in the evening and the morning after, with nothing poured between.

    `lost_mg_l` is without what the sun took at both ends of the night, `sun_mg_l`.
    """

    evening_at: datetime
    morning_at: datetime
    evening_mg_l: float
    morning_mg_l: float
    lost_mg_l: float
    sun_mg_l: float
    holds: bool


def night(
    evening_at: datetime,
    morning_at: datetime,
    evening_mg_l: float,
    morning_mg_l: float,
    sun_share: float = 0.0,
) -> Night:
    """One study; it holds where little was lost and something was there to lose.

    `sun_share` (0 to 1) went to the sun.
    """
    by_sun = (
        sun_share * morning_mg_l / (1 - sun_share)
    )  # most of the light falls on what is left in the morning
    lost = max(0.0, evening_mg_l - morning_mg_l - by_sun)
    holds = lost <= MOST_LOST_MG_L + 1e-9 and evening_mg_l >= LEAST_EVENING_MG_L
    return Night(
        evening_at=evening_at,
        morning_at=morning_at,
        evening_mg_l=evening_mg_l,
        morning_mg_l=morning_mg_l,
        lost_mg_l=lost,
        sun_mg_l=by_sun,
        holds=holds,
    )


def nights(
    tests: Sequence[Entry[TestTaken]],
    additions: Sequence[Entry[AdditionMade]],
    latitude_deg: float,
    longitude_deg: float,
    sun_loss_per_h: float = 0.0,
) -> tuple[Night, ...]:
    """Every night between two tests that carries a study, oldest first.

    `sun_loss_per_h` under a sun overhead.
    """
    poured = [e.at for e in additions if e.body.chemical in CHLORINE_CARRIERS]
    read = [(test.at, value) for test in tests if (value := _free(test)) is not None]
    found: list[Night] = []
    for n, (evening_at, evening) in enumerate(read):
        for morning_at, morning in read[n + 1 :]:
            hours = (morning_at - evening_at).total_seconds() / 3600
            if hours > MOST_HOURS:
                break
            light = _sun_hours(evening_at, morning_at, latitude_deg, longitude_deg)
            if hours < LEAST_HOURS or light > MOST_SUN_HOURS:
                continue
            if any(_disturbs(at, evening_at, morning_at) for at in poured):
                continue
            found = [other for other in found if other.morning_at != morning_at]
            share = 1 - exp(-sun_loss_per_h * light)
            found.append(
                night(evening_at, morning_at, evening_mg_l=evening, morning_mg_l=morning, sun_share=share)
            )
    return tuple(found)


def _disturbs(poured: datetime, evening: datetime, morning: datetime) -> bool:
    """A pour between the tests, or so shortly before the evening's that it was not mixed."""
    return (poured - evening).total_seconds() > -MIXES_MIN * 60 and poured < morning


def _free(test: Entry[TestTaken]) -> float | None:
    value = value_in(test.body.values, Measure.FREE_CHLORINE)
    return None if value is None else value.value


def _sun_hours(start: datetime, end: datetime, latitude_deg: float, longitude_deg: float) -> float:
    times = np.arange(start.timestamp(), end.timestamp(), SECONDS_AN_HOUR / 2)
    return float(np.sum(sun_strength(times, latitude_deg, longitude_deg)) / 2)

"""Typed amounts that a message carries: what they are, in inner units. How they are shown is `wording`'s.

Nothing here knows a unit of display, a language or a locale.
"""

from dataclasses import KW_ONLY, dataclass
from datetime import date, datetime
from enum import StrEnum


@dataclass(frozen=True)
class Number:
    """A plain figure: so many `digits` behind the point, or so many `figures` in all, or as short as it is
    exact.
    """

    value: float
    digits: int | None = None
    _: KW_ONLY
    figures: int | None = None
    signed: bool = False


@dataclass(frozen=True)
class Percent:
    """A share, 1 being all of it."""

    share: float
    digits: int = 0


@dataclass(frozen=True)
class PoolWater:
    """A pool's water, or a part of it, L: told to three figures."""

    volume_l: float


@dataclass(frozen=True)
class Liquid:
    """A liquid's amount to be measured, mL."""

    volume_ml: float


@dataclass(frozen=True)
class Mass:
    """A mass to be weighed, g."""

    mass_g: float


@dataclass(frozen=True)
class RoughMass:
    """A mass to buy by or to expect, g: one large unit, two figures."""

    mass_g: float


@dataclass(frozen=True)
class RoughLiquid:
    """A liquid's amount to buy by or to expect, mL: one large unit, two figures."""

    volume_ml: float


@dataclass(frozen=True)
class Pressure:
    """A gauge's pressure over the air's, kPa; `other` shows it in the other system's unit, in brackets."""

    pressure_kpa: float
    other: bool = False


@dataclass(frozen=True)
class Flow:
    """A pump's flow, L/min."""

    flow_l_min: float


@dataclass(frozen=True)
class Temperature:
    """Of water or air, C."""

    temperature_c: float
    digits: int = 0


@dataclass(frozen=True)
class Rain:
    """Rain that fell, mm."""

    rain_mm: float


@dataclass(frozen=True)
class CellOutput:
    """What a chlorinator cell makes at full power, g/h."""

    output_g_per_h: float


@dataclass(frozen=True)
class Money:
    """An amount in the workspace's currency, whole or with cents."""

    amount: float
    currency: str
    digits: int = 0


@dataclass(frozen=True)
class Count:
    """How many of something, in halves, thirds and quarters: 1 1/2 bags."""

    count: float


@dataclass(frozen=True)
class Duration:
    """How long, minutes."""

    minutes: int


@dataclass(frozen=True)
class Weeks:
    """A rough span, days in, told in days or weeks."""

    days: float


class DateForm(StrEnum):
    """How much of a date is told."""

    WEEKDAY = "weekday"
    DAY = "day"
    WEEKDAY_AND_DAY = "weekday_and_day"
    DAY_AND_YEAR = "day_and_year"
    MONTH = "month"


@dataclass(frozen=True)
class Day:
    """A calendar day at the pool."""

    day: date
    form: DateForm = DateForm.DAY


@dataclass(frozen=True)
class Clock:
    """A time of day on the pool's clock: `at` carries the pool's zone."""

    at: datetime


@dataclass(frozen=True)
class Ahead:
    """A moment ahead as far as a forecast can tell it, seen from `now`; both on the pool's clock."""

    at: datetime
    now: datetime


Quantity = (
    Number | Percent | PoolWater | Liquid | Mass | RoughMass | RoughLiquid | Pressure | Flow | Temperature
    | Rain | CellOutput | Money | Count | Duration | Weeks | Day | Clock | Ahead
)  # fmt: skip

"""What controllers and weather stations say."""

from dataclasses import dataclass
from datetime import date


@dataclass(frozen=True, kw_only=True)
class DeviceReading:
    """What a controller or weather station says at a moment; None where it says nothing.

    `rain_mm` is the day's so far; `lamps` the names of those that are lit.
    """

    output_percent: float | None = None
    salinity_mg_l: float | None = None
    water_c: float | None = None
    flow: bool | None = None
    pressure_kpa: float | None = None
    rain_mm: float | None = None
    air_c: float | None = None
    uv_index: float | None = None
    lamps: tuple[str, ...] = ()


@dataclass(frozen=True)
class DeviceLinked:
    """A device that is polled from now on.

    An `address` of "stand-in" is the simulated one; empty unlinks it.
    """

    device: str
    address: str


@dataclass(frozen=True, kw_only=True)
class DeviceDay:
    """A device's day in one entry: how many readings, and what they came to."""

    device: str
    day: date
    readings: int
    output_percent: float | None = None
    salinity_mg_l: float | None = None
    water_c: float | None = None
    pressure_kpa: float | None = None
    rain_mm: float | None = None
    air_low_c: float | None = None
    air_high_c: float | None = None
    uv_index: float | None = None


@dataclass(frozen=True)
class DeviceChanged:
    """A change of lamp, flow or output as the device told it."""

    device: str
    what: str
    before: str
    after: str

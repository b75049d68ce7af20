"""What devices said. As stored; see `base`."""

from datetime import date

from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
from kumpan.storage.wire.base import Wire


class DeviceLinkedV1(Wire):
    core = DeviceLinked

    device: str
    address: str


class DeviceDayV1(Wire):
    core = DeviceDay

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


class DeviceChangedV1(Wire):
    core = DeviceChanged

    device: str
    what: str
    before: str
    after: str

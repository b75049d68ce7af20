"""What a controller or a weather station says: kept sane, summed up by the day, and never above a hand test.

Sources: cell-limits, device-sanity.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import date, datetime

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import DeviceChanged, DeviceDay, DeviceReading, PoolState
from kumpan.core.messages import Message, Verbatim

SOURCES_USED = ("cell-limits", "device-sanity")

# What a reading can be at a pool; outside it the field is nonsense and counts as not said.
POSSIBLE: Mapping[str, tuple[float, float]] = {
    "output_percent": (0, 100),
    "salinity_mg_l": (0, 45_000),
    "water_c": (-2, 50),
    "pressure_kpa": (0, 500),
    "rain_mm": (0, 1000),
    "air_c": (-50, 60),
    "uv_index": (0, 20),
}
BY_HAND = "chlorinator"  # whose lamps a person reads
OUTPUT_STEP_PERCENT = 5.0  # a smaller change of output is the controller's own dithering


@dataclass(frozen=True)
class Lamp:
    """A warning of the unit: what it is called, and the interview that looks into it."""

    key: str
    name: Message
    tree: str


# What units of any make warn of, in our own words. Origin: handbook 06, the fault tree.
LAMPS: tuple[Lamp, ...] = (
    Lamp("low_salt", Message("Low salt"), "low_salt"),
    Lamp("check_cell", Message("Look at the cell"), "check_cell"),
    Lamp("no_flow", Message("No flow"), "check_cell"),
    Lamp("cold_water", Message("Cold water"), "no_chlorine"),
)


def lamps_lit(state: PoolState) -> tuple[str, ...]:
    """The lamps that were lit when somebody, or the device, last told of them."""
    told = [entry.body.after for entry in state.device_changes if entry.body.what == "lamps"]
    lit = told[-1].split(", ") if told else []
    return tuple(name.replace(" ", "_") for name in lit if name != "none")


def lamps_seen(state: PoolState, lit: Sequence[str]) -> DeviceChanged:
    """What the unit shows as a person read it. Raises InvalidInput for a lamp that is none."""
    known = [lamp.key for lamp in LAMPS]
    for key in lit:
        if key not in known:
            raise InvalidInput(
                Message('"{lamp}" is no lamp known here; choose one of the list.', lamp=Verbatim(key)),
                "lamps",
            )
    lit = [key for key in known if key in lit]
    return DeviceChanged(BY_HAND, "lamps", _listed(lamps_lit(state)), _listed(lit))


def sane(reading: DeviceReading) -> DeviceReading:
    """The same reading with what cannot be left out."""
    values = {}
    for name, (low, high) in POSSIBLE.items():
        value = getattr(reading, name)
        values[name] = value if value is not None and low <= value <= high else None
    return DeviceReading(**values, flow=reading.flow, lamps=tuple(sorted(set(reading.lamps)))[:8])


def says_anything(reading: DeviceReading) -> bool:
    """Whether anything of it is left."""
    return any(getattr(reading, field.name) not in (None, ()) for field in fields(reading))


def changes(before: DeviceReading | None, after: DeviceReading, device: str) -> Iterator[DeviceChanged]:
    """Each change of lamp, flow or output since the reading before; none without one."""
    if before is None:
        return
    if after.lamps != before.lamps:
        yield DeviceChanged(device, "lamps", _listed(before.lamps), _listed(after.lamps))
    if None not in (before.flow, after.flow) and after.flow != before.flow:
        yield DeviceChanged(device, "flow", _on(flow=before.flow), _on(flow=after.flow))
    one, other = before.output_percent, after.output_percent
    if one is not None and other is not None and abs(other - one) >= OUTPUT_STEP_PERCENT:
        yield DeviceChanged(device, "output", f"{one:.0f} %", f"{other:.0f} %")


def _listed(lamps: Sequence[str]) -> str:
    return ", ".join(lamp.replace("_", " ") for lamp in lamps) or "none"


def _on(*, flow: bool | None) -> str:
    return "on" if flow else "off"


@dataclass(frozen=True)
class TimedReading:
    """What a device said, and when."""

    at: datetime
    reading: DeviceReading


def day_of(readings: Sequence[TimedReading], day: date, device: str) -> DeviceDay | None:
    """A day in one entry: means of what was said, rain's largest sum, the air's ends.

    None for an empty day.
    """
    said = [one.reading for one in readings]
    if not said:
        return None
    air = [one.air_c for one in said if one.air_c is not None]
    return DeviceDay(
        device=device,
        day=day,
        readings=len(said),
        output_percent=_mean(said, "output_percent"),
        salinity_mg_l=_mean(said, "salinity_mg_l"),
        water_c=_mean(said, "water_c"),
        pressure_kpa=_mean([one for one in said if one.flow], "pressure_kpa"),
        rain_mm=max((one.rain_mm for one in said if one.rain_mm is not None), default=None),
        air_low_c=min(air, default=None),
        air_high_c=max(air, default=None),
        uv_index=max((one.uv_index for one in said if one.uv_index is not None), default=None),
    )


def _mean(said: Sequence[DeviceReading], name: str) -> float | None:
    values = [value for one in said if (value := getattr(one, name)) is not None]
    return sum(values) / len(values) if values else None

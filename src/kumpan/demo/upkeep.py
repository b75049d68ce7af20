"""The care of the demo season: pump, filter and cell as they are, the gauge week by week, what was cleaned
when.

Invented and regular: a backwash of the simulation is a backwash done, tasks come round a little late.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from kumpan.core.journal import (
    Body,
    CareDone,
    CareInterval,
    CareValue,
    CellKind,
    DeviceLinked,
    EventNoted,
    NotedEvent,
    PlantSet,
    PressureRead,
    PumpWindow,
    WaterChange,
    WaterChanged,
)
from kumpan.core.maintenance.device import TimedReading, day_of
from kumpan.core.maintenance.tasks import Preset, preset_for, tasks_for
from kumpan.core.pool.equipment import Chlorination, Filter
from kumpan.core.quantities.units import KPA_PER_PSI, L_PER_US_GAL
from kumpan.core.simulation.controller import reading_at
from kumpan.demo.scenario import DemoPool
from kumpan.demo.season import DAYS, Line

CLEAN_PSI, RISE_PSI_A_DAY = 11.0, 0.21
FILTER_TASK: Mapping[Filter, str] = {
    Filter.SAND: "backwash", Filter.CARTRIDGE: "cartridge_hose", Filter.DE: "de_recharge",
}  # fmt: skip
# Days ago on which each pool's carer last came round to its tasks: the neglected one stopped weeks ago.
LAST_ROUND_DAYS: Mapping[str, int] = {"millrace": 3, "weir": 6, "orchard": 2, "swan": 4, "tannery": 24}
_GPM = L_PER_US_GAL


@dataclass(frozen=True)
class Upkeep:
    """Something told about care at a moment."""

    at: datetime
    body: Body


def upkeep(demo: DemoPool, lines: list[Line], now: datetime) -> list[Upkeep]:
    """What was done at one pool over the season, oldest first."""
    found = [Upkeep(now - timedelta(days=DAYS), _plant(demo, now))]
    found += _filter(demo, lines, now)
    found += _tasks(demo, now)
    if demo.equipment.traits.chlorination is Chlorination.SALT_CELL:
        found += _cell(now)
        found.append(Upkeep(now - timedelta(days=DAYS), DeviceLinked("controller", "stand-in")))
        found += _device_days(now)
    if demo.key != "tannery":  # these carers shock when the water asks for it, not by the calendar
        found.append(Upkeep(now - timedelta(days=DAYS), CareInterval("shock", None, off=True)))
    if demo.key == "orchard":
        found.append(Upkeep(now - timedelta(hours=20), EventNoted(NotedEvent.HEAVY_USE, "a birthday")))
    return sorted(found, key=lambda one: one.at)


def _plant(demo: DemoPool, now: datetime) -> PlantSet:
    """A pump that turns the water over in about nine hours, run in two windows; by day where a cell must
    work.
    """
    salted = demo.equipment.traits.chlorination is Chlorination.SALT_CELL
    flow = round(demo.basin.volume_l / 9 / 60 / _GPM) * _GPM
    windows = (PumpWindow(480, 1080),) if salted else (PumpWindow(300, 540), PumpWindow(1080, 1320))
    return PlantSet(
        pump_flow_l_min=flow,
        pump_kw=1.1 if demo.basin.volume_l > 30_000 else 0.3,
        price_per_kwh=0.16,
        windows=windows,
        clean_pressure_kpa=CLEAN_PSI * KPA_PER_PSI,
        media_since=now - timedelta(days=1100),
        cell_kind=CellKind.SELF_CLEANING,
        cell_since=now - timedelta(days=DAYS) if salted else None,
        cell_rated_h=9000.0 if salted else None,
    )


def _cleanings(demo: DemoPool, lines: list[Line], now: datetime) -> list[datetime]:
    """The simulation's backwashes; where the filter has none, every four weeks until the carer stopped."""
    washed = [
        datetime.fromtimestamp(line.reported.at_s, UTC)
        for line in lines
        if isinstance(line.reported.body, WaterChanged) and line.reported.body.kind is WaterChange.BACKWASH
    ]
    if washed and demo.equipment.traits.filter is Filter.SAND:
        return washed
    stop = LAST_ROUND_DAYS[demo.key]
    every = 14 if demo.basin.volume_l < 30_000 else 28
    return [now - timedelta(days=days) for days in range(DAYS - 5, stop, -every)]


def _filter(demo: DemoPool, lines: list[Line], now: datetime) -> Iterator[Upkeep]:
    """The gauge once a week between cleanings; after each the clean pressure."""
    task = FILTER_TASK[demo.equipment.traits.filter]
    cleanings = _cleanings(demo, lines, now)
    for at in cleanings:
        after = CareValue("pressure_after_kpa", CLEAN_PSI * KPA_PER_PSI)
        yield Upkeep(at + timedelta(minutes=2), CareDone(task, (after,)))
    for days in range(DAYS - 2, LAST_ROUND_DAYS[demo.key] - 1, -7):
        at = now - timedelta(days=days, hours=3)
        since = max((one for one in cleanings if one < at), default=None)
        if since is not None:
            rise = RISE_PSI_A_DAY * (at - since).total_seconds() / 86_400
            wobble = 0.3 * ((days * 7) % 3 - 1)
            yield Upkeep(at, PressureRead((CLEAN_PSI + rise + wobble) * KPA_PER_PSI))


def _tasks(demo: DemoPool, now: datetime) -> Iterator[Upkeep]:
    """Each calendar task as often as its preset says, up to the carer's last round."""
    traits = demo.equipment.traits
    preset: Preset = preset_for(demo.settings.profile, traits, demo.basin.volume_l)
    last = LAST_ROUND_DAYS[demo.key]
    for n, task in enumerate(tasks_for(traits)):
        days = task.days(preset)
        if days is None or task.key in (*FILTER_TASK.values(), "cell", "shock", "sand_new"):
            continue
        ago = last + (n % 3 if days > 3 else 0)
        while ago < min(DAYS, 60):
            yield Upkeep(now - timedelta(days=ago, hours=1 + n % 5), CareDone(task.key))
            ago += max(2, round(days))
    if traits.filter is Filter.SAND:
        yield Upkeep(now - timedelta(days=DAYS), CareDone("sand_new"))


def _cell(now: datetime) -> Iterator[Upkeep]:
    """Looked at about every four weeks; it scales, and twice acid was needed."""
    for n, days in enumerate((118, 92, 66, 40, 19)):
        scale, washes = (1.0, 1.0) if n in (1, 3) else (1.0, 0.0) if n == 2 else (0.0, 0.0)
        values = (CareValue("scale", scale), CareValue("acid_washes", washes))
        yield Upkeep(now - timedelta(days=days, hours=5), CareDone("cell", values))


def _device_days(now: datetime) -> Iterator[Upkeep]:
    """The last two months as the stand-in had them, a day at a time."""
    for ago in range(60, 0, -1):
        noon = (now - timedelta(days=ago)).replace(hour=18, minute=0, second=0, microsecond=0)
        said = [
            TimedReading(at, reading_at(at)) for at in (noon - timedelta(hours=n) for n in range(-4, 12, 2))
        ]
        found = day_of(said, noon.date(), "controller")
        if found is not None:
            yield Upkeep(noon + timedelta(hours=4), found)

"""The pool as it stands, folded from its entries."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
from kumpan.core.journal.entry import Entry, Voided
from kumpan.core.journal.maintenance_entries import (
    CareDone,
    CareInterval,
    CarePutOff,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    PlantSet,
    PressureRead,
)
from kumpan.core.journal.pool_entries import (
    AdditionMade,
    BasinMeasured,
    CellSet,
    EquipmentSet,
    LookTaken,
    SettingsMade,
    SwimmersCounted,
    TestTaken,
    WaterChanged,
)
from kumpan.core.journal.season_entries import ClimateSet, ListTicked, SeasonListKept
from kumpan.core.journal.treatment_entries import SheetStarted, StepTicked
from kumpan.core.journal.workspace_entries import VisitDone


@dataclass(frozen=True)
class PoolState:
    """The pool as it stands at a time: everything here follows from the effective entries."""

    settings: SettingsMade | None
    basin: BasinMeasured | None
    equipment: EquipmentSet | None
    tests: tuple[Entry, ...]
    looks: tuple[Entry, ...]
    additions: tuple[Entry, ...]
    sheets: tuple[Entry, ...]
    ticks: tuple[Entry, ...]
    water_changes: tuple[Entry, ...] = ()
    cell_settings: tuple[Entry, ...] = ()
    swims: tuple[Entry, ...] = ()
    visits: tuple[Entry, ...] = ()
    events: tuple[Entry, ...] = ()
    pressures: tuple[Entry, ...] = ()
    plants: tuple[Entry, ...] = ()
    care: tuple[Entry, ...] = ()
    put_off: tuple[Entry, ...] = ()
    intervals: tuple[Entry, ...] = ()
    interviews: tuple[Entry, ...] = ()
    feeds: tuple[Entry, ...] = ()
    devices: tuple[Entry, ...] = ()
    device_days: tuple[Entry, ...] = ()
    device_changes: tuple[Entry, ...] = ()
    rescues: tuple[Entry, ...] = ()
    season_lists: tuple[Entry, ...] = ()
    list_ticks: tuple[Entry, ...] = ()
    climates: tuple[Entry, ...] = ()

    @property
    def plant(self) -> PlantSet:
        """Pump, filter and cell as they stand."""
        body = self.plants[-1].body if self.plants else None
        return body if isinstance(body, PlantSet) else PlantSet()

    @property
    def rescue_goes_on(self) -> bool:
        """A rescue was begun and not ended."""
        return bool(self.rescues) and isinstance(self.rescues[-1].body, RescueSet)

    @property
    def last_test(self) -> Entry | None:
        return self.tests[-1] if self.tests else None

    @property
    def last_look(self) -> LookTaken | None:
        body = self.looks[-1].body if self.looks else None
        return body if isinstance(body, LookTaken) else None


def in_order(entries: Iterable[Entry]) -> list[Entry]:
    """By the time it happened, then the time it was recorded; entry order does not matter."""
    return sorted(entries, key=lambda entry: (entry.at, entry.recorded_at, str(entry.id)))


def effective(entries: Iterable[Entry], until: datetime | None = None) -> list[Entry]:
    """What counts: superseded entries and voids are gone, and so is what happened after `until`."""
    listed = list(entries)
    replaced = {entry.supersedes for entry in listed if entry.supersedes is not None}
    return in_order(
        entry
        for entry in listed
        if entry.id not in replaced
        and not isinstance(entry.body, Voided)
        and (until is None or entry.at <= until)
    )


def fold(entries: Iterable[Entry], until: datetime | None = None) -> PoolState:
    """The pool as it stands at `until`; the latest settings, basin and equipment count."""
    found: dict[type, list[Entry]] = {}
    for entry in effective(entries, until):
        found.setdefault(type(entry.body), []).append(entry)

    def of(kind: type) -> tuple[Entry, ...]:
        return tuple(found.get(kind, ()))

    settings = [entry.body for entry in of(SettingsMade) if isinstance(entry.body, SettingsMade)]
    basins = [entry.body for entry in of(BasinMeasured) if isinstance(entry.body, BasinMeasured)]
    equipment = [entry.body for entry in of(EquipmentSet) if isinstance(entry.body, EquipmentSet)]
    return PoolState(
        settings=settings[-1] if settings else None,
        basin=basins[-1] if basins else None,
        equipment=equipment[-1] if equipment else None,
        tests=of(TestTaken),
        looks=of(LookTaken),
        additions=of(AdditionMade),
        sheets=of(SheetStarted),
        ticks=of(StepTicked),
        water_changes=of(WaterChanged),
        cell_settings=of(CellSet),
        swims=of(SwimmersCounted),
        visits=of(VisitDone),
        events=of(EventNoted),
        pressures=of(PressureRead),
        plants=of(PlantSet),
        care=of(CareDone),
        put_off=of(CarePutOff),
        intervals=of(CareInterval),
        interviews=of(InterviewHeld),
        feeds=of(FeedOpened),
        devices=of(DeviceLinked),
        device_days=of(DeviceDay),
        device_changes=of(DeviceChanged),
        rescues=tuple(in_order((*of(RescueSet), *of(RescueEnded)))),
        season_lists=of(SeasonListKept),
        list_ticks=of(ListTicked),
        climates=of(ClimateSet),
    )

"""The one table of the kinds of entries: stored name, body, where it is folded to, whether a person may
change it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
from kumpan.core.journal.entry import Body, NotUnderstood, Voided
from kumpan.core.journal.maintenance_entries import (
    CareDone,
    CareInterval,
    CarePutOff,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    MachineSet,
    OwnTask,
    PartReplaced,
    PlantSet,
    PressureRead,
)
from kumpan.core.journal.pool_entries import (
    AdditionMade,
    BasinMeasured,
    CellSet,
    EquipmentSet,
    PhotoTaken,
    SettingsMade,
    SwimmersCounted,
    TestTaken,
    VisualCheck,
    WaterChanged,
)
from kumpan.core.journal.season_entries import ClimateSet, ListItemDone, SeasonListSaved
from kumpan.core.journal.treatment_entries import StepDone, TreatmentStarted
from kumpan.core.journal.workspace_entries import (
    PreferencesSet,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    RoundSet,
    StopMoved,
    StrengthTested,
    TechnicianAway,
    TruckCounted,
    VisitBegun,
    VisitDone,
    WorkOnce,
)

B = TypeVar("B")


@dataclass(frozen=True)
class Kind(Generic[B]):
    """A kind of entry. `name` is what rows are stored under and never changes.

    `folds_into` is the list of `PoolState` it goes to, None for what belongs to no pool; `can_change`
    whether the log offers to correct it or take it back.
    """

    name: str
    body: type[B]
    folds_into: str | None = None
    can_change: bool = False


KINDS: tuple[Kind[Any], ...] = (
    Kind("settings", SettingsMade, "settings"),
    Kind("basin", BasinMeasured, "basins"),
    Kind("equipment", EquipmentSet, "equipments"),
    Kind("test", TestTaken, "tests", can_change=True),
    Kind("look", VisualCheck, "visual_checks", can_change=True),
    Kind("addition", AdditionMade, "additions", can_change=True),
    Kind("sheet", TreatmentStarted, "treatments"),
    Kind("step", StepDone, "steps_done", can_change=True),
    Kind("purchase", ProductBought),
    Kind("placed", ProductPlaced),
    Kind("counted", ProductCounted),
    Kind("water", WaterChanged, "water_changes", can_change=True),
    Kind("cell", CellSet, "cell_settings", can_change=True),
    Kind("swimmers", SwimmersCounted, "swims", can_change=True),
    Kind("strength", StrengthTested),
    Kind("habits", PreferencesSet),
    Kind("round", RoundSet),
    Kind("away", TechnicianAway),
    Kind("once", WorkOnce),
    Kind("stop_moved", StopMoved),
    Kind("truck", TruckCounted),
    Kind("visit_begun", VisitBegun, "visits_begun"),
    Kind("visit", VisitDone, "visits", can_change=True),
    Kind("event", EventNoted, "events", can_change=True),
    Kind("pressure", PressureRead, "pressures", can_change=True),
    Kind("plant", PlantSet, "plants"),
    Kind("care", CareDone, "care", can_change=True),
    Kind("put_off", CarePutOff, "put_off", can_change=True),
    Kind("interval", CareInterval, "intervals"),
    Kind("machine", MachineSet, "machines"),
    Kind("part", PartReplaced, "parts_replaced", can_change=True),
    Kind("photo", PhotoTaken, "photos", can_change=True),
    Kind("own_task", OwnTask, "own_tasks"),
    Kind("interview", InterviewHeld, "interviews", can_change=True),
    Kind("feed", FeedOpened, "feeds"),
    Kind("device", DeviceLinked, "devices"),
    Kind("device_day", DeviceDay, "device_days"),
    Kind("device_change", DeviceChanged, "device_changes"),
    Kind("rescue", RescueSet, "rescues", can_change=True),
    Kind("rescue_end", RescueEnded, "rescue_ends", can_change=True),
    Kind("season_list", SeasonListSaved, "season_lists"),
    Kind("list_tick", ListItemDone, "list_items_done", can_change=True),
    Kind("climate", ClimateSet, "climates"),
    Kind("void", Voided),
)
BY_BODY: Mapping[type, Kind[Any]] = {kind.body: kind for kind in KINDS}


def kind_of(body: Body) -> str:
    """The stored name of a body's kind."""
    return body.kind if isinstance(body, NotUnderstood) else BY_BODY[type(body)].name


def can_change(body: Body) -> bool:
    """Whether the log offers to correct it or take it back."""
    return not isinstance(body, NotUnderstood) and BY_BODY[type(body)].can_change

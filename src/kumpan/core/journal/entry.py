"""One line of the journal, and the kinds of bodies that it can have."""

from dataclasses import dataclass
from datetime import datetime
from typing import Generic
from uuid import UUID

from typing_extensions import TypeVar

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
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


@dataclass(frozen=True)
class Voided:
    """Takes the superseded entry back."""

    reason: str = ""


@dataclass(frozen=True)
class NotUnderstood:
    """An entry that this version cannot read: its kind, its row as JSON, and why.

    Kept and shown, never dropped.
    """

    kind: str
    stored: str
    why: str


Body = (
    SettingsMade
    | BasinMeasured
    | EquipmentSet
    | TestTaken
    | VisualCheck
    | AdditionMade
    | TreatmentStarted
    | StepDone
    | ProductBought
    | ProductCounted
    | ProductPlaced
    | WaterChanged
    | CellSet
    | SwimmersCounted
    | StrengthTested
    | PreferencesSet
    | RoundSet
    | TechnicianAway
    | WorkOnce
    | StopMoved
    | TruckCounted
    | VisitBegun
    | VisitDone
    | EventNoted
    | PressureRead
    | PlantSet
    | CareDone
    | CarePutOff
    | CareInterval
    | OwnTask
    | MachineSet
    | PartReplaced
    | PhotoTaken
    | InterviewHeld
    | FeedOpened
    | DeviceLinked
    | DeviceDay
    | DeviceChanged
    | RescueSet
    | RescueEnded
    | SeasonListSaved
    | ListItemDone
    | ClimateSet
    | Voided
    | NotUnderstood
)


B_co = TypeVar("B_co", covariant=True, default=Body)


@dataclass(frozen=True, kw_only=True)
class Entry(Generic[B_co]):
    """One line of the journal: what happened `at` a time, told by someone, recorded at another time.

    Times carry a zone. `pool_id` is None for what belongs to the shelf. `supersedes` names the entry
    that this one corrects or voids.
    """

    id: UUID
    pool_id: UUID | None
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    body: B_co
    supersedes: UUID | None = None

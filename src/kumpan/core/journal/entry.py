"""One line of the journal, and the kinds of bodies that it can have."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.journal.algae_entries import RescueEnded, RescueSet
from kumpan.core.journal.device_entries import DeviceChanged, DeviceDay, DeviceLinked
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
from kumpan.core.journal.workspace_entries import (
    HabitsSet,
    ProductBought,
    RoundSet,
    StrengthTested,
    TruckCounted,
    VisitDone,
)


@dataclass(frozen=True)
class Voided:
    """Takes the superseded entry back."""

    reason: str = ""


Body = (
    SettingsMade
    | BasinMeasured
    | EquipmentSet
    | TestTaken
    | LookTaken
    | AdditionMade
    | SheetStarted
    | StepTicked
    | ProductBought
    | WaterChanged
    | CellSet
    | SwimmersCounted
    | StrengthTested
    | HabitsSet
    | RoundSet
    | TruckCounted
    | VisitDone
    | EventNoted
    | PressureRead
    | PlantSet
    | CareDone
    | CarePutOff
    | CareInterval
    | InterviewHeld
    | FeedOpened
    | DeviceLinked
    | DeviceDay
    | DeviceChanged
    | RescueSet
    | RescueEnded
    | SeasonListKept
    | ListTicked
    | ClimateSet
    | Voided
)


KINDS: dict[type, str] = {
    SettingsMade: "settings",
    BasinMeasured: "basin",
    EquipmentSet: "equipment",
    TestTaken: "test",
    LookTaken: "look",
    AdditionMade: "addition",
    SheetStarted: "sheet",
    StepTicked: "step",
    ProductBought: "purchase",
    WaterChanged: "water",
    CellSet: "cell",
    SwimmersCounted: "swimmers",
    StrengthTested: "strength",
    HabitsSet: "habits",
    RoundSet: "round",
    TruckCounted: "truck",
    VisitDone: "visit",
    EventNoted: "event",
    PressureRead: "pressure",
    PlantSet: "plant",
    CareDone: "care",
    CarePutOff: "put_off",
    CareInterval: "interval",
    InterviewHeld: "interview",
    FeedOpened: "feed",
    DeviceLinked: "device",
    DeviceDay: "device_day",
    DeviceChanged: "device_change",
    RescueSet: "rescue",
    RescueEnded: "rescue_end",
    SeasonListKept: "season_list",
    ListTicked: "list_tick",
    ClimateSet: "climate",
    Voided: "void",
}


@dataclass(frozen=True)
class Entry:
    """One line of the journal: what happened `at` a time, told by someone, recorded at another time.

    Times carry a zone. `pool_id` is None for what belongs to the shelf. `supersedes` names the entry
    that this one corrects or voids.
    """

    id: UUID
    pool_id: UUID | None
    at: datetime
    recorded_at: datetime
    person_id: UUID | None
    body: Body
    supersedes: UUID | None = None

    @property
    def kind(self) -> str:
        return KINDS[type(self.body)]

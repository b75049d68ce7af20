"""Care of the pool. As stored; see `base`."""

from datetime import date, datetime
from uuid import UUID

from kumpan.core.journal.maintenance_entries import (
    CareDone,
    CareInterval,
    CarePutOff,
    CareValue,
    EventNoted,
    FeedOpened,
    InterviewHeld,
    MachineKind,
    MachineSet,
    OwnTask,
    PartReplaced,
    PlantSet,
    PressureRead,
    PumpWindow,
)
from kumpan.storage.wire.base import Wire
from kumpan.storage.wire.words import CellKindWord, NotedEventWord


class EventNotedV1(Wire):
    core = EventNoted

    kind: NotedEventWord
    note: str = ""


class PressureReadV1(Wire):
    core = PressureRead

    pressure_kpa: float


class PumpWindowV1(Wire):
    core = PumpWindow

    start_min: int
    end_min: int


class PlantSetV1(Wire):
    core = PlantSet

    pump_flow_l_min: float | None = None
    pump_kw: float | None = None
    price_per_kwh: float | None = None
    windows: tuple[PumpWindowV1, ...] = ()
    clean_pressure_kpa: float | None = None
    filter_area_m2: float | None = None
    media_since: datetime | None = None
    cell_kind: CellKindWord = "self_cleaning"
    cell_since: datetime | None = None
    cell_rated_h: float | None = None
    solar: bool = False


class CareValueV1(Wire):
    core = CareValue

    name: str
    value: float


class CareDoneV1(Wire):
    core = CareDone

    task: str
    values: tuple[CareValueV1, ...] = ()
    note: str = ""


class CarePutOffV1(Wire):
    core = CarePutOff

    task: str
    until: date | None
    reason: str = ""


class CareIntervalV1(Wire):
    core = CareInterval

    task: str
    days: float | None = None
    off: bool = False


class MachineSetV1(Wire):
    core = MachineSet

    machine_id: UUID
    kind: MachineKind
    label: str = ""
    since: date | None = None
    note: str = ""
    gone: bool = False


class PartReplacedV1(Wire):
    core = PartReplaced

    part: str
    machine_id: UUID | None = None
    note: str = ""


class OwnTaskV1(Wire):
    core = OwnTask

    task: str
    title: str
    days: float | None = None
    weekday: int | None = None
    after: NotedEventWord | None = None
    months: tuple[int, ...] = ()
    note: str = ""


class InterviewHeldV1(Wire):
    core = InterviewHeld

    tree: str
    answers: tuple[str, ...]
    outcome: str


class FeedOpenedV1(Wire):
    core = FeedOpened

    secret: str

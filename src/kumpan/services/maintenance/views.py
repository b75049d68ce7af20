"""What is seen of care and equipment."""

from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from kumpan.core.hazards import Hazard
from kumpan.core.journal import (
    CellSet,
    DeviceReading,
    MachineKind,
    PlantSet,
)
from kumpan.core.maintenance.cell import CellBalance
from kumpan.core.maintenance.cell_life import CellLife
from kumpan.core.maintenance.circulation import CirculationView
from kumpan.core.maintenance.due import DueItem
from kumpan.core.maintenance.fault_tree import Tree
from kumpan.core.maintenance.filter_pressure import (
    PressureTrend,
)
from kumpan.core.maintenance.index_history import IndexPoint
from kumpan.core.maintenance.learned import Offer
from kumpan.core.maintenance.tasks import Preset
from kumpan.core.messages import Message


@dataclass(frozen=True)
class TodayView:
    """What is due now and soon at a pool, most pressing first; how many lie later, and the next of those."""

    day: date
    items: tuple[DueItem, ...]
    later: int
    next_later: date | None


@dataclass(frozen=True)
class ProcedureChoice:
    """A procedure to choose."""

    key: str
    title: Message


@dataclass(frozen=True, kw_only=True)
class CareView:
    """Every task with its date; suggestions; procedures; what was taken off; whose intervals hold, and the
    plant.
    """

    items: tuple[DueItem, ...]
    offers: tuple[Offer, ...]
    procedures: tuple[ProcedureChoice, ...]
    off: tuple[ProcedureChoice, ...]
    preset: Preset
    usual_preset: Preset
    season_months: tuple[int, ...]
    plant: PlantSet


@dataclass(frozen=True)
class CalendarDay:
    """What falls on one day."""

    day: date
    items: tuple[DueItem, ...]


@dataclass(frozen=True)
class AskView:
    """A value that a step takes in: its label, the unit that a bare number is read in, or its choices."""

    name: str
    label: Message
    unit: str
    choices: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class StepView:
    """One step of a procedure; a timer from and to, in seconds."""

    text: Message
    hazard: Hazard
    cautions: tuple[Message, ...]
    timer_from_s: int | None
    timer_to_s: int | None
    asks: tuple[AskView, ...]


@dataclass(frozen=True, kw_only=True)
class ProcedureView:
    """A procedure step by step, with what is needed and asked."""

    key: str
    title: Message
    materials: tuple[Message, ...]
    steps: tuple[StepView, ...]
    asks_at_end: tuple[AskView, ...]
    wastes_water: bool


@dataclass(frozen=True)
class FinishedView:
    """What finishing led to: the next dates, and a word on the water that went."""

    entry_id: UUID
    next_dates: tuple[Message, ...]
    water_text: Message


@dataclass(frozen=True)
class LampView:
    """A lamp of the unit, whether it was lit when last told, and the interview that looks into it."""

    key: str
    name: Message
    lit: bool
    tree: str


@dataclass(frozen=True, kw_only=True)
class CellView:
    """The cell's bench; `setting` None until it is told once. `index_text` is the mean of the last weeks,
    and what it means for the cell.
    """

    setting: CellSet | None
    balance: CellBalance | None
    life: CellLife | None
    index: tuple[IndexPoint, ...]
    index_text: Message | None
    washes: int
    trees: tuple[Tree, ...]
    lamps: tuple[LampView, ...]


@dataclass(frozen=True, kw_only=True)
class FilterView:
    """The filter's gauge over time, kPa; `doubt` is a word on the gauge itself."""

    trend: PressureTrend | None
    clean_kpa: float
    clean_known: bool
    limit_kpa: float
    uncertainty: Message
    media_age_days: int | None
    media_due: bool


@dataclass(frozen=True, kw_only=True)
class DeviceView:
    """A device as it stands: its last reading and how long ago; `address` empty where none is linked."""

    device: str
    address: str
    last: DeviceReading | None
    last_at: datetime | None
    silent_min: int | None


@dataclass(frozen=True)
class PartView:
    """A part that was replaced, when, and a word on it."""

    entry_id: UUID
    at: datetime
    part: str
    note: str


@dataclass(frozen=True)
class MachineChoice:
    """A kind of machine to choose."""

    kind: MachineKind
    name: Message


@dataclass(frozen=True, kw_only=True)
class MachineView:
    """A machine of the pool: its kind by name, its label, since when, and its parts replaced."""

    machine_id: UUID
    kind: MachineKind
    name: Message
    label: str
    since: date | None
    note: str
    parts: tuple[PartView, ...]


@dataclass(frozen=True, kw_only=True)
class EquipmentView:
    """Cell, filter, circulation and device of one pool, and what to ask of pump, filter, cleaner, heater."""

    cell: CellView | None
    filter: FilterView
    circulation: CirculationView
    device: DeviceView
    trees: tuple[Tree, ...]
    machines: tuple[MachineView, ...]
    kinds: tuple[MachineChoice, ...]
    parts: tuple[PartView, ...]

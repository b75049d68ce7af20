"""Care: events, pressure, the plant, what was done, put off or looked for."""

from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum
from uuid import UUID


class NotedEvent(StrEnum):
    """What happens to a pool from outside, and what the judge of the water has to know of."""

    STORM = "storm"
    HEAVY_USE = "heavy_use"
    HOT_SPELL = "hot_spell"
    LEAVES = "leaves"
    PLASTERED = "plastered"
    FILLED = "filled"
    FLOOD = "flood"
    POWER_CUT = "power_cut"
    COVER_ON = "cover_on"
    COVER_OFF = "cover_off"
    NOTE = "note"  # in somebody's own words only


@dataclass(frozen=True)
class EventNoted:
    """Something that happened at the pool."""

    kind: NotedEvent
    note: str = ""


@dataclass(frozen=True)
class PressureRead:
    """The filter's gauge while the pump runs, kPa over the air's."""

    pressure_kpa: float


class CellKind(StrEnum):
    """Whether the cell cleans its plates itself."""

    PLAIN = "plain"
    SELF_CLEANING = "self_cleaning"


@dataclass(frozen=True)
class PumpWindow:
    """When the timer runs the pump, minutes of the local day; an end before its start goes over midnight."""

    start_min: int
    end_min: int


@dataclass(frozen=True, kw_only=True)
class PlantSet:
    """Pump, filter and cell as they are from now on; None where nobody knows.

    `clean_pressure_kpa` is the start pressure after a cleaning; `price_per_kwh` in the workspace's currency.
    """

    pump_flow_l_min: float | None = None
    pump_kw: float | None = None
    price_per_kwh: float | None = None
    windows: tuple[PumpWindow, ...] = ()
    clean_pressure_kpa: float | None = None
    filter_area_m2: float | None = None
    media_since: datetime | None = None
    cell_kind: CellKind = CellKind.SELF_CLEANING
    cell_since: datetime | None = None
    cell_rated_h: float | None = None
    solar: bool = False


@dataclass(frozen=True)
class CareValue:
    """One value taken in during a piece of care: its name from the procedure, in inner units."""

    name: str
    value: float


@dataclass(frozen=True)
class CareDone:
    """A piece of care that was done: its task, what was read on the way, by whom is the entry's."""

    task: str
    values: tuple[CareValue, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class CarePutOff:
    """A task put off to a day, or (`until` None) left out this time with the reason."""

    task: str
    until: date | None
    reason: str = ""


@dataclass(frozen=True)
class CareInterval:
    """The user's own interval of a task, days; None takes the preset's again; `off` takes it off the list."""

    task: str
    days: float | None = None
    off: bool = False


class MachineKind(StrEnum):
    """What stands at a pool beside its pump, its filter and its cell."""

    SUCTION_CLEANER = "suction_cleaner"
    PRESSURE_CLEANER = "pressure_cleaner"
    ROBOT = "robot"
    FEEDER = "feeder"
    FLOATER = "floater"
    COVER = "cover"
    SOLAR_BLANKET = "solar_blanket"
    GAS_HEATER = "gas_heater"
    HEAT_PUMP = "heat_pump"
    SOLAR_HEATER = "solar_heater"
    AUTOMATION = "automation"
    SECOND_FILTER = "second_filter"
    SECOND_PUMP = "second_pump"


@dataclass(frozen=True, kw_only=True)
class MachineSet:
    """A machine at a pool by its own id, as it is from now on; `label` without a make. `gone`: it is there no
    more.
    """

    machine_id: UUID
    kind: MachineKind
    label: str = ""
    since: date | None = None
    note: str = ""
    gone: bool = False


@dataclass(frozen=True)
class PartReplaced:
    """A part of a machine, or of the pump, the filter or the cell (no id), that was replaced."""

    part: str
    machine_id: UUID | None = None
    note: str = ""


@dataclass(frozen=True, kw_only=True)
class OwnTask:
    """A task that a person added to a pool's care, by its key; told again it replaces the one before.

    One of `days` (every so many), `weekday` (0 is Monday) and `after` says when it is due; `months` in which
    it is, none for all.
    """

    task: str
    title: str
    days: float | None = None
    weekday: int | None = None
    after: NotedEvent | None = None
    months: tuple[int, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class InterviewHeld:
    """A fault that was looked for: the tree, the answers in order, and what it came to."""

    tree: str
    answers: tuple[str, ...]
    outcome: str


@dataclass(frozen=True)
class FeedOpened:
    """A calendar feed under a secret name; taken back, the name opens nothing any more."""

    secret: str

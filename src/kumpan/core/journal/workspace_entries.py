"""What belongs to the shelf, the habits of the house and the round."""

from dataclasses import KW_ONLY, dataclass
from datetime import date
from enum import StrEnum
from uuid import UUID

from kumpan.core.records.containers import Container


@dataclass(frozen=True)
class ProductBought:
    """Packages of a product that came onto the shelf. Stock is bought minus poured."""

    product_id: str
    packages: float
    price: float | None = None


@dataclass(frozen=True)
class StrengthTested:
    """A product's strength as tested on a day; from then on it ages from this."""

    product_id: str
    strength_percent: float


class Place(StrEnum):
    """Where a product stands. GONE: it is on no shelf any more; what was poured of it stays in the log."""

    HERE = "here"
    POOL = "pool"
    TRUCK = "truck"
    STORE = "store"
    GONE = "gone"


@dataclass(frozen=True)
class ProductPlaced:
    """Where a product stands from now on (`pool_id` with POOL, `technician_id` whose truck it is with TRUCK),
    and the date printed on it, if any.
    """

    product_id: str
    place: Place
    _: KW_ONLY
    pool_id: UUID | None = None
    technician_id: UUID | None = None
    best_before: date | None = None


@dataclass(frozen=True)
class ProductCounted:
    """What was left of a product, g, as counted; the books go on from there."""

    product_id: str
    mass_g: float


@dataclass(frozen=True, kw_only=True)
class PreferencesSet:
    """What holds for the whole workspace: containers, money, how warm the store is, what water costs.

    `currency` is a sign or a code; `water_price` is per cubic meter; the rates are liters an hour.
    """

    containers: tuple[Container, ...] = ()
    currency: str = "$"
    storage_c: float = 24.0
    water_price: float | None = None
    drain_l_per_h: float = 7000.0
    fill_l_per_h: float = 1500.0


@dataclass(frozen=True)
class RoundSet:
    """The stops of one technician's round on a weekday (0 is Monday), in order; it holds every week.

    `technician_id` None: of the person who says it.
    """

    weekday: int
    stops: tuple[UUID, ...]
    technician_id: UUID | None = None


@dataclass(frozen=True)
class TechnicianAway:
    """A technician who does not drive, both days included."""

    technician_id: UUID
    first: date
    last: date
    note: str = ""

    def covers(self, technician_id: UUID, day: date) -> bool:
        """Whether this one is away on a day."""
        return technician_id == self.technician_id and self.first <= day <= self.last


@dataclass(frozen=True, kw_only=True)
class WorkOnce:
    """Work at a pool on one day, by a technician where one is named; beside the weekly stops."""

    pool_id: UUID
    day: date
    technician_id: UUID | None = None
    minutes: float = 20.0
    what: str = ""


@dataclass(frozen=True, kw_only=True)
class StopMoved:
    """One stop of a round that is driven to on another day, this once, by whom."""

    pool_id: UUID
    from_day: date
    to_day: date
    technician_id: UUID


@dataclass(frozen=True)
class TruckCounted:
    """What the technician's truck holds of a product, g, as counted; what the same hand pours then comes
    off.
    """

    product_id: str
    mass_g: float


class VisitKind(StrEnum):
    """The owner's weekly hour, a technician's stop, a look after a storm, the first visit at a pool, a day of
    its opening or closing.
    """

    HOUR = "hour"
    STOP = "stop"
    STORM = "storm"
    FIRST = "first"
    SEASON = "season"


@dataclass(frozen=True)
class VisitBegun:
    """Somebody is at the pool. What is done from now on belongs to the visit, until it is ended."""

    kind: VisitKind


@dataclass(frozen=True)
class VisitDone:
    """A stop that is finished.

    `needs_return` and `trade` make it an exception: come back, or a licensed trade. `note` is for the
    owner; `internal_note` stays with the workspace that wrote it.
    """

    note: str = ""
    needs_return: bool = False
    trade: str = ""
    internal_note: str = ""

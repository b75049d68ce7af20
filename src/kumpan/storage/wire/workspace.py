"""The shelf, the house, the round. As stored; see `base`."""

from datetime import date
from uuid import UUID

from kumpan.core.journal.workspace_entries import (
    Place,
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
    VisitKind,
    WorkOnce,
)
from kumpan.storage.wire.base import Wire, later_fields
from kumpan.storage.wire.parts import ContainerV1


class ProductBoughtV1(Wire):
    core = ProductBought

    product_id: str
    packages: float
    price: float | None = None


class ProductPlacedV1(Wire):
    core = ProductPlaced

    product_id: str
    place: Place
    pool_id: UUID | None = None
    technician_id: UUID | None = None
    best_before: date | None = None
    _later = later_fields("technician_id")


class ProductCountedV1(Wire):
    core = ProductCounted

    product_id: str
    mass_g: float


class StrengthTestedV1(Wire):
    core = StrengthTested

    product_id: str
    strength_percent: float


class HabitsSetV1(Wire):
    core = PreferencesSet

    containers: tuple[ContainerV1, ...] = ()
    currency: str = "$"
    storage_c: float = 24.0
    water_price: float | None = None
    drain_l_per_h: float = 7000.0
    fill_l_per_h: float = 1500.0


class RoundSetV1(Wire):
    core = RoundSet

    weekday: int
    stops: tuple[UUID, ...]
    technician_id: UUID | None = None
    _later = later_fields("technician_id")


class TechnicianAwayV1(Wire):
    core = TechnicianAway

    technician_id: UUID
    first: date
    last: date
    note: str = ""


class WorkOnceV1(Wire):
    core = WorkOnce

    pool_id: UUID
    day: date
    technician_id: UUID | None = None
    minutes: float = 20.0
    what: str = ""


class StopMovedV1(Wire):
    core = StopMoved

    pool_id: UUID
    from_day: date
    to_day: date
    technician_id: UUID


class TruckCountedV1(Wire):
    core = TruckCounted

    product_id: str
    mass_g: float


class VisitBegunV1(Wire):
    core = VisitBegun

    kind: VisitKind


class VisitDoneV1(Wire):
    core = VisitDone

    note: str = ""
    needs_return: bool = False
    trade: str = ""
    internal_note: str = ""

    _later = later_fields("internal_note")

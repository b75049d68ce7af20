"""The shelf, the house, the round. As stored; see `base`."""

from uuid import UUID

from kumpan.core.journal.workspace_entries import (
    PreferencesSet,
    ProductBought,
    RoundSet,
    StrengthTested,
    TruckCounted,
    VisitDone,
)
from kumpan.storage.wire.base import Wire, later_fields
from kumpan.storage.wire.parts import ContainerV1


class ProductBoughtV1(Wire):
    core = ProductBought

    product_id: str
    packages: float
    price: float | None = None


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


class TruckCountedV1(Wire):
    core = TruckCounted

    product_id: str
    mass_g: float


class VisitDoneV1(Wire):
    core = VisitDone

    note: str = ""
    needs_return: bool = False
    trade: str = ""
    internal_note: str = ""

    _later = later_fields("internal_note")

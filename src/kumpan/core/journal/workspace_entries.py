"""What belongs to the shelf, the habits of the house and the round."""

from dataclasses import dataclass
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
    """The stops of one technician's round on a weekday (0 is Monday), in order; it holds every week."""

    weekday: int
    stops: tuple[UUID, ...]


@dataclass(frozen=True)
class TruckCounted:
    """What the technician's truck holds of a product, g, as counted; what the same hand pours then comes
    off.
    """

    product_id: str
    mass_g: float


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

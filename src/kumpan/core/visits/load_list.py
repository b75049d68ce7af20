"""What the day's sheets need, tray by tray, against what the truck has. Source: truck-trays.

Acids and oxidizers ride in separate secured trays, ventilated.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import chemical as chemical_row
from kumpan.core.products.product import Product

SOURCE = "truck-trays"


class Tray(StrEnum):
    """Where on the truck a product rides, apart from what it must not meet."""

    ACIDS = "acids"
    OXIDIZERS = "oxidisers"
    REST = "rest"


@dataclass(frozen=True)
class TrayRow:
    """One tray: its name, and what is said on the load list above it."""

    tray: Tray
    title: Message
    caution: Message


TRAYS: tuple[TrayRow, ...] = (
    TrayRow(
        Tray.ACIDS,
        Message("Acid tray"),
        Message("Secured, upright, aired; never beside or above the oxidizers."),
    ),
    TrayRow(
        Tray.OXIDIZERS,
        Message("Oxidizer tray"),
        Message("Secured, dry, aired; a clean scoop for each kind, calcium hypochlorite and trichlor apart."),
    ),
    TrayRow(Tray.REST, Message("Dry goods"), Message("Bags closed and dry, away from both trays.")),
)
_TRAY_OF: Mapping[Hazard, Tray] = {
    Hazard.ACID: Tray.ACIDS,
    Hazard.OXIDIZER_LIQUID: Tray.OXIDIZERS,
    Hazard.OXIDIZER_GRANULES: Tray.OXIDIZERS,
    Hazard.TABLETS: Tray.OXIDIZERS,
}


@dataclass(frozen=True)
class LoadLine:
    """One product to load. `on_truck_g` None means the truck was never counted for it."""

    product: Product
    tray: Tray
    need_g: float
    on_truck_g: float | None

    @property
    def short_g(self) -> float:
        """What must be loaded, g."""
        return max(0.0, self.need_g - max(0.0, self.on_truck_g or 0.0))


def tray_of(chemical: str) -> Tray:
    """The tray that a chemical rides in."""
    return _TRAY_OF.get(chemical_row(chemical).hazard, Tray.REST)


def load_list(needs: Mapping[Product, float], on_truck_g: Mapping[str, float]) -> tuple[LoadLine, ...]:
    """What to load, tray by tray. `needs` in g by product, `on_truck_g` by product id."""
    lines = [
        LoadLine(product, tray_of(product.chemical), grams, on_truck_g.get(product.id))
        for product, grams in needs.items()
        if grams > 0
    ]
    order = [row.tray for row in TRAYS]
    return tuple(sorted(lines, key=lambda line: (order.index(line.tray), line.product.label)))

"""What the pool is made of and runs on, and what this program must refuse.

Source: scope.
"""

from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.errors import OutOfScope
from kumpan.core.messages import Message

SOURCE = "scope"


class Surface(StrEnum):
    """What the pool's shell is made of."""

    PLASTER = "plaster"
    TILE = "tile"
    VINYL = "vinyl"
    FIBERGLASS = "fibreglass"
    PAINTED = "painted"

    @property
    def is_cement(self) -> bool:
        """Calcium matters to it."""
        return self in (Surface.PLASTER, Surface.TILE, Surface.PAINTED)


class Chlorination(StrEnum):
    """Where the pool's chlorine comes from."""

    LIQUID = "liquid"
    GRANULES = "granules"
    TABLETS = "tablets"
    SALT_CELL = "salt_cell"
    MINERAL = "mineral"


class Filter(StrEnum):
    """What filters the water."""

    SAND = "sand"
    CARTRIDGE = "cartridge"
    DE = "de"


SURFACES = {
    Surface.PLASTER: Message("plaster"),
    Surface.TILE: Message("tile"),
    Surface.VINYL: Message("vinyl"),
    Surface.FIBERGLASS: Message("fiberglass"),
    Surface.PAINTED: Message("painted"),
}
CHLORINATIONS = {
    Chlorination.LIQUID: Message("liquid"),
    Chlorination.GRANULES: Message("granules"),
    Chlorination.TABLETS: Message("tablets"),
    Chlorination.SALT_CELL: Message("salt cell"),
    Chlorination.MINERAL: Message("mineral"),
}
FILTERS = {
    Filter.SAND: Message("sand filter"),
    Filter.CARTRIDGE: Message("cartridge filter"),
    Filter.DE: Message("de filter"),
}


@dataclass(frozen=True, kw_only=True)
class Traits:
    """The traits of a pool that ranges and doses depend on; `spa_apart`: its spa can be valved off."""

    surface: Surface
    chlorination: Chlorination
    filter: Filter
    indoor: bool = False
    covered: bool = False
    spa_apart: bool = False


REFUSED: dict[str, Message] = {
    "bromine": Message("Bromine pools are out of scope: the ranges and doses here are for chlorine only."),
    "biguanide": Message(
        "Biguanide pools are out of scope: chlorine on biguanide turns the water to sludge and does harm."
    ),
    "spa": Message(
        "A spa by itself is out of scope: it is small, hot and dosed differently. "
        "Add a spa only as a part of a pool that shares its water."
    ),
}


def refuse_if_out_of_scope(kind: str) -> None:
    """Raises OutOfScope, with the reason, for a kind of water that must not be advised on."""
    if kind in REFUSED:
        raise OutOfScope(REFUSED[kind], "chlorination")

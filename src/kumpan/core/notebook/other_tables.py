"""Rows of stock, pools and rounds: what stands on a shelf, which pools there are, who drives where.

The words are common practice.
"""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.notebook.columns import Column, ColumnRole, chemical_in, in_plain_digits, number_in
from kumpan.core.pool.equipment import Chlorination, Filter, Surface
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.typed import Dimension, read_quantity
from kumpan.core.quantities.units import Units

T = TypeVar("T")
LEAST_L, MOST_L, MOST_CELL = 500.0, 50_000_000.0, 200

_SURFACES: tuple[tuple[Surface, str], ...] = (
    (Surface.VINYL, "vinyl|liner"),
    (Surface.FIBERGLASS, "fiberglass|fibreglass|gelcoat"),
    (Surface.TILE, "tile|mosaic"),
    (Surface.PAINTED, "paint"),
    (Surface.PLASTER, "plaster|pebble|quartz|concrete|gunite|marcite"),
)
_CHLORINATIONS: tuple[tuple[Chlorination, str], ...] = (
    (Chlorination.SALT_CELL, "salt|swg|cell|generator"),
    (Chlorination.MINERAL, "mineral"),
    (Chlorination.TABLETS, "tab|puck|trichlor|feeder|floater"),
    (Chlorination.GRANULES, "gran|shock|cal hypo|cal-hypo|dichlor|powder"),
    (Chlorination.LIQUID, "liquid|bleach|chlorine"),
)
_FILTERS: tuple[tuple[Filter, str], ...] = (
    (Filter.CARTRIDGE, "cart"),
    (Filter.DE, "de|d.e.|diatom|earth"),
    (Filter.SAND, "sand|glass|media"),
)
_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")


@dataclass(frozen=True, kw_only=True)
class StockRow:
    """A product, and what was bought of it: packages, and what all of them cost."""

    product: Product
    packages: float | None
    price: float | None


@dataclass(frozen=True, kw_only=True)
class PoolRow:
    """A pool by its name and volume; `assumed` names what the table does not say."""

    name: str
    volume_l: float
    surface: Surface
    chlorination: Chlorination
    filter: Filter
    place: str
    assumed: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class StopRow:
    """A pool on somebody's weekday, 0 for Monday."""

    pool: str
    weekday: int
    technician: str


def by_role(columns: Sequence[Column], cells: Sequence[str]) -> dict[ColumnRole, tuple[Column, str]]:
    """The cells that hold something, by what their column is for."""
    found = ((column, cells[n].strip() if n < len(cells) else "") for n, column in enumerate(columns))
    return {
        column.role: (column, cell[:MOST_CELL])
        for column, cell in found
        if cell and column.role is not ColumnRole.SKIP
    }


def read_stock(cells: Mapping[ColumnRole, tuple[Column, str]], *, units: Units) -> StockRow:
    """A row of a shelf. Raises InvalidInput for a product that is not known by its name."""
    name = _needed(cells, ColumnRole.PRODUCT, Message("This row names no product."))
    key = chemical_in(name)
    if key is None:
        raise InvalidInput(
            Message(
                '"{name}" is no product that is known by this name; add it under Shelf.',
                name=Verbatim(name[:60]),
            )
        )
    row, percent = CATALOGUE[key], _number(cells, ColumnRole.STRENGTH)
    inside = re.search(r"(\d+(?:\.\d+)?)\s*%", name)
    strength = percent or (float(inside[1]) if inside else row.usual_strength_percent)
    if 0 < strength < 1:
        strength *= 100.0  # a spreadsheet's percent
    if not 0 < strength <= 100:
        raise InvalidInput(Message("Strength must be over 0 and at most 100 percent."))
    package = cells[ColumnRole.PACKAGE][1] if ColumnRole.PACKAGE in cells else ""
    size_ml = size_g = None
    if package and row.is_liquid:
        default = "l" if units is Units.METRIC else "gal"
        size_ml = read_quantity(package, Dimension.VOLUME, default).value * 1000.0
    elif package:
        size_g = read_quantity(package, Dimension.MASS, "kg" if units is Units.METRIC else "lb").value
    product = Product("", key, strength, package_g=size_g, package_ml=size_ml, name=name[:120])
    return StockRow(
        product=product, packages=_number(cells, ColumnRole.PACKAGES), price=_number(cells, ColumnRole.PRICE)
    )


def read_pool(cells: Mapping[ColumnRole, tuple[Column, str]], *, units: Units) -> PoolRow:
    """A row of a list of pools. Raises InvalidInput for one without a name or a volume."""
    name = _needed(cells, ColumnRole.POOL, Message("This row names no pool."))
    typed = _needed(cells, ColumnRole.VOLUME, Message("This row says no volume; everything is dosed by it."))
    column = cells[ColumnRole.VOLUME][0]
    default = column.unit or ("l" if units is Units.METRIC else "gal")
    digits = re.sub(
        r"\d[\d.,]*", lambda one: in_plain_digits(one[0], decimal_comma=column.decimal_comma), typed, count=1
    )
    volume_l = read_quantity(digits, Dimension.VOLUME, default).value
    if not LEAST_L <= volume_l <= MOST_L:
        raise InvalidInput(
            Message('"{typed}" is no volume of a pool; check the unit.', typed=Verbatim(typed[:40]))
        )
    assumed: list[str] = []

    def one_of(role: ColumnRole, table: Sequence[tuple[T, str]], usual: T) -> T:
        words = cells[role][1] if role in cells else ""
        found = _in_words(words, table)
        if found is None:
            assumed.append(role.value)
        return usual if found is None else found

    return PoolRow(
        name=name[:120],
        volume_l=volume_l,
        surface=one_of(ColumnRole.SURFACE, _SURFACES, Surface.PLASTER),
        chlorination=one_of(ColumnRole.CHLORINATION, _CHLORINATIONS, Chlorination.LIQUID),
        filter=one_of(ColumnRole.FILTER, _FILTERS, Filter.SAND),
        place=cells[ColumnRole.PLACE][1][:120] if ColumnRole.PLACE in cells else "",
        assumed=tuple(assumed),
    )


def read_stop(cells: Mapping[ColumnRole, tuple[Column, str]]) -> StopRow:
    """A row of a round. Raises InvalidInput for one without a pool or a day of the week."""
    pool = _needed(cells, ColumnRole.POOL, Message("This row names no pool."))
    day = _needed(cells, ColumnRole.WEEKDAY, Message("This row names no day of the week.")).lower()
    if day[:3] not in _WEEKDAYS:
        raise InvalidInput(
            Message('"{day}" is no day of the week; write it like Monday.', day=Verbatim(day[:20]))
        )
    who = cells[ColumnRole.PERSON][1] if ColumnRole.PERSON in cells else ""
    return StopRow(pool=pool, weekday=_WEEKDAYS.index(day[:3]), technician=who[:120])


def _needed(cells: Mapping[ColumnRole, tuple[Column, str]], role: ColumnRole, missing: Message) -> str:
    if role not in cells:
        raise InvalidInput(missing)
    return cells[role][1]


def _number(cells: Mapping[ColumnRole, tuple[Column, str]], role: ColumnRole) -> float | None:
    if role not in cells:
        return None
    column, cell = cells[role]
    found = number_in(re.sub(r"^[^\d.,+-]+", "", cell), decimal_comma=column.decimal_comma)
    if found is None or not 0 <= found <= 10_000_000:
        raise InvalidInput(Message('"{cell}" is no number.', cell=Verbatim(cell[:40])))
    return found


def _in_words(words: str, table: Sequence[tuple[T, str]]) -> T | None:
    lower = words.lower()
    return (
        next((found for found, names in table if any(name in lower for name in names.split("|"))), None)
        if lower
        else None
    )

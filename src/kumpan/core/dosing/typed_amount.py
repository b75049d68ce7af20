"""An amount of a product as it is typed at the poolside: a weight, a volume, or in the words of the sheet.

A sheet tells amounts in packages and in the user's own measures ("2 bags of 40 lb", "1½ × blue cup (12 fl
oz)"), so both are read back. Source: mass-balance.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from kumpan.core.dosing.rounding import measures, package_noun
from kumpan.core.errors import InvalidInput, UnreadableQuantity
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.product import Product, mass_from_volume_g, volume_from_mass_ml
from kumpan.core.quantities.typed import UNITS, Dimension, read_number, read_quantity, spelled
from kumpan.core.quantities.units import Units
from kumpan.core.records.containers import Container, ContainerKind

SOURCE = "mass-balance"

MOST_G = 1e7
PACKAGE_WORDS = frozenset(
    [
        "package",
        "pack",
        "bag",
        "sack",
        "box",
        "bucket",
        "pail",
        "tub",
        "drum",
        "jug",
        "bottle",
        "carton",
        "tablet",
        "pouch",
    ]
)
_IN_BRACKETS = re.compile(r"\s*\([^)]*\)\s*$")  # a sheet's second telling of the same
_SIZED = re.compile(
    r"(?:(?P<count>[\d.,/½¼¾⅓⅔\s]*[\d½¼¾⅓⅔])\s*(?:[x×]\s*|\s)(?=[\d½¼¾⅓⅔]))?"
    r"(?P<size>[\d.,/½¼¾⅓⅔\s]*[\d½¼¾⅓⅔]\s*-?\s*(?:fl\.?\s*)?[a-z]+)[\s-]+(?P<name>[a-z]+)",
    re.IGNORECASE,
)
_OF_SIZE = re.compile(
    r"(?P<count>[\d.,/½¼¾⅓⅔\s]*[\d½¼¾⅓⅔])\s*(?P<name>[a-z]+)\s+of\s+(?P<size>\d.*)", re.IGNORECASE
)
_COUNTED = re.compile(
    r"(?P<count>[\d.,/½¼¾⅓⅔\s]*[\d½¼¾⅓⅔])\s*(?P<times>[x×]\s)?\s*(?P<name>[^\W\d]\D*?)\s*(\bof\s+\d.*)?",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class AmountRead:
    """A read amount; `volume_ml` for liquids only."""

    mass_g: float
    volume_ml: float | None


def read_amount(product: Product, text: str, *, units: Units, boxes: Sequence[Container] = ()) -> AmountRead:
    """A typed amount of a product: a volume for liquids, a weight for the rest, packages or own measures
    for both.

    Raises UnreadableQuantity with what to write instead, InvalidInput for nothing or far too much.
    """
    words = spelled(_IN_BRACKETS.sub("", text)).strip()
    try:
        mass_g = _sized_g(product, words)
        if mass_g is None:
            mass_g = _counted_g(product, words, boxes)
        read = _plain(product, words, units) if mass_g is None else _of_mass(product, mass_g)
    except UnreadableQuantity as trouble:
        raise UnreadableQuantity(trouble.message, "amount") from trouble
    if not 0 < read.mass_g <= MOST_G:
        raise InvalidInput(Message("The amount must be over 0; type what was really poured."), "amount")
    return read


def _of_mass(product: Product, mass_g: float) -> AmountRead:
    return AmountRead(mass_g, volume_from_mass_ml(product, mass_g))


def _plain(product: Product, text: str, units: Units) -> AmountRead:
    if product.row.is_liquid:
        ml = read_quantity(text, Dimension.VOLUME, "ml" if units is Units.METRIC else "floz").value * 1000.0
        return AmountRead(mass_from_volume_g(product, ml), ml)
    return AmountRead(read_quantity(text, Dimension.MASS, "g" if units is Units.METRIC else "lb").value, None)


def _sized_g(product: Product, text: str) -> float | None:
    """Packages whose size is typed with them, "six 1 lb bags" or "2 bags of 40 lb"; None for other words."""
    found = _OF_SIZE.fullmatch(text) or _SIZED.fullmatch(text)
    if found is None or _singular(found["name"].lower()) not in PACKAGE_WORDS | {package_noun(product)}:
        return None
    if re.sub(r"[^a-z]", "", found["size"].lower()) not in UNITS:
        return None
    size = _plain(product, found["size"].replace("-", " "), Units.US).mass_g
    if found["count"] is None and found["name"].lower() != _singular(found["name"].lower()):
        raise UnreadableQuantity(
            Message('How many? Write it like "3 bags of {size}".', size=Verbatim(found["size"].strip()))
        )
    return size * (read_number(found["count"].strip()) if found["count"] else 1.0)


def _counted_g(product: Product, text: str, boxes: Sequence[Container]) -> float | None:
    """So many packages or fillings of an own measure; None where the words name neither."""
    found = _COUNTED.fullmatch(text.strip())
    if found is None or (found["name"].lower() in UNITS and not found["times"]):
        return None
    name = found["name"].lower()
    size_g = _box_g(product, name, boxes)
    if size_g is None and _singular(name) in PACKAGE_WORDS | {package_noun(product)}:
        size_g = _package_g(product)
    return None if size_g is None else read_number(found["count"].strip()) * size_g


def _singular(name: str) -> str:
    if name.endswith(("xes", "ches", "shes")):
        return name[:-2]
    return name.removesuffix("s")


def _box_g(product: Product, name: str, boxes: Sequence[Container]) -> float | None:
    """What one filling of the measure of this name holds of the product."""
    for box in boxes:
        own = box.name.lower()
        if box.kind is ContainerKind.SCALE or not measures(box, product):
            continue
        if own not in (name, _singular(name)):
            continue
        if product.row.is_liquid and box.volume_ml:
            return mass_from_volume_g(product, box.volume_ml)
        return box.mass_g
    return None


def _package_g(product: Product) -> float:
    if product.package_g is not None:
        return product.package_g
    if product.package_ml is not None:
        return mass_from_volume_g(product, product.package_ml)
    like = "3 qt" if product.row.is_liquid else "2 lb"
    raise UnreadableQuantity(
        Message(
            'How large a package of {label} is stands nowhere; type an amount, like "{like}".',
            label=Verbatim(product.label),
            like=Verbatim(like),
        )
    )

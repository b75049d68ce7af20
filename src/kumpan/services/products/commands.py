"""Put a product on the shelf, buy it, test it; how amounts are measured."""

from collections.abc import Mapping
from dataclasses import replace
from uuid import uuid5

from kumpan.core.errors import InvalidInput, NotFound, UnreadableQuantity
from kumpan.core.journal import (
    Place,
    PreferencesSet,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    StrengthTested,
)
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.catalogue import chemical
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import Units
from kumpan.core.records.containers import ContainerKind
from kumpan.services.journal.ledger import Scope, Stamp, record, require_person, require_pool
from kumpan.services.journal.queries import read_typed
from kumpan.services.products.queries import products, roughly_text
from kumpan.services.products.views import CountedLine
from kumpan.services.treatments.at_hand import stocked, store

AS_BY_THE_BOOKS = 0.02  # share; nobody counts closer
NONE_LEFT = ("0", "none", "empty")
NOT_ON_THE_SHELF = Message("This product is not on the shelf; add it first.")


async def add_product(scope: Scope, product: Product) -> Product:
    """Put a product on the shelf; the same id again is answered, not doubled. Raises InvalidInput."""
    row = chemical(product.chemical)
    if not 0 < product.strength_percent <= 100:
        raise InvalidInput(Message("Strength must be over 0 and at most 100 percent."), "strength_percent")
    if product.package_ml is not None and not row.is_liquid:
        raise InvalidInput(
            Message("{name} is a solid: give the package's weight.", name=Verbatim(row.name)), "package_ml"
        )
    known = {other.id: other for other in await products(scope)}
    if product.id not in known:
        named = replace(product, name=product.name.strip()[:120])
        await scope.tx.workspace.add_product(scope.workspace_id, named, scope.now)
        await scope.tx.workspace.stock_changed(scope.workspace_id)
        return named
    return known[product.id]


async def buy(scope: Scope, stamp: Stamp, product_id: str, packages: float, price: float | None) -> None:
    """Note packages bought; `price` is what all of them cost.

    Raises NotFound for a product not on the shelf.
    """
    if not 0 < packages <= 10_000:
        raise InvalidInput(Message("Packages must be over 0; type how many were bought."), "packages")
    await _must_exist(scope, product_id)
    await record(scope, None, stamp, ProductBought(product_id, packages, price))


async def note_strength(scope: Scope, stamp: Stamp, product_id: str, strength_percent: float) -> None:
    """A strength test of what stands there; it overrides what aging would have made of it."""
    await _must_exist(scope, product_id)
    await record(scope, None, stamp, StrengthTested(product_id, strength_percent))


async def place(scope: Scope, stamp: Stamp, placed: ProductPlaced) -> None:
    """Say where a product stands, and the date printed on it. Raises NotFound, InvalidInput."""
    await _must_exist(scope, placed.product_id)
    if (placed.place is Place.POOL) != (placed.pool_id is not None):
        raise InvalidInput(Message("Say at which pool it stands."), "pool_id")
    if (placed.place is Place.TRUCK) != (placed.technician_id is not None):
        raise InvalidInput(Message("Say on whose truck it rides."), "technician_id")
    if placed.technician_id is not None:
        await require_person(scope, placed.technician_id)
    if placed.pool_id is not None:
        await require_pool(scope, placed.pool_id)
    await record(scope, None, stamp, placed)


async def count(
    scope: Scope, stamp: Stamp, left: Mapping[str, str], *, units: Units
) -> tuple[CountedLine, ...]:
    """What is left of some products, as counted in one pass: all of them or none are noted.

    Raises NotFound for a product not on the shelf, UnreadableQuantity for an amount, by its product.
    """
    found = await store(scope)
    known = {product.id: product for product in found.products}
    counted: list[tuple[Product, float]] = []
    for product_id, text in left.items():
        if product_id not in known:
            raise NotFound(NOT_ON_THE_SHELF)
        none_left = text.strip() in NONE_LEFT
        try:
            read = None if none_left else await read_typed(scope, known[product_id], text, units=units)
        except (InvalidInput, UnreadableQuantity) as trouble:
            raise InvalidInput(trouble.message, product_id) from trouble
        counted.append((known[product_id], read.mass_g if read is not None else 0.0))
    lines = tuple(
        CountedLine(
            product_id=one.id,
            text=_against_the_books(one, stocked(found, one, scope.now), grams, units),
        )
        for one, grams in counted
    )
    for product, grams in counted:
        of_it = replace(stamp, id=uuid5(stamp.id, product.id))
        await record(scope, None, of_it, ProductCounted(product.id, grams))
    return lines


def _against_the_books(product: Product, books: Stocked, grams: float, units: Units) -> Message:
    """How a count differs from what was bought less what was poured."""
    if books.stock_g is None:
        return Message("Counted for the first time.")
    more = grams - books.stock_g
    if abs(more) <= AS_BY_THE_BOOKS * max(grams, abs(books.stock_g)):
        return Message("As by the books.")
    amount = roughly_text(product, abs(more), units)
    if more > 0:
        return Message("{amount} more than by the books.", amount=amount)
    return Message("{amount} less than by the books: poured and not noted?", amount=amount)


async def _must_exist(scope: Scope, product_id: str) -> None:
    if product_id not in {product.id for product in await products(scope)}:
        raise NotFound(NOT_ON_THE_SHELF)


async def set_preferences(scope: Scope, stamp: Stamp, given: PreferencesSet) -> None:
    """Containers, currency, store and water. Raises InvalidInput for a container that measures nothing."""
    for box in given.containers:
        liquid = box.kind in (ContainerKind.CUP, ContainerKind.JUG)
        if not (box.volume_ml if liquid else box.mass_g):
            named = Verbatim(box.name) if box.name else Message("This measure")
            raise InvalidInput(
                Message("{measure}: say the steps it shows.", measure=named)
                if box.kind is ContainerKind.SCALE
                else Message("{measure}: say how much it holds.", measure=named),
                "containers",
            )
        if box.kind is ContainerKind.SCOOP and box.product_id is None:
            raise InvalidInput(
                Message(
                    "{scoop}: a scoop weighs something else with every powder; say which product.",
                    scoop=Verbatim(box.name) if box.name else Message("This scoop"),
                ),
                "containers",
            )
    await record(scope, None, stamp, given)

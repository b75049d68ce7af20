"""Put a product on the shelf, buy it, test it; how amounts are measured."""

from dataclasses import replace

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.journal import PreferencesSet, ProductBought, StrengthTested
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.catalogue import chemical
from kumpan.core.products.product import Product
from kumpan.core.records.containers import ContainerKind
from kumpan.services.journal.ledger import Scope, Stamp, record
from kumpan.services.products.queries import products


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


async def _must_exist(scope: Scope, product_id: str) -> None:
    if product_id not in {product.id for product in await products(scope)}:
        raise NotFound(Message("This product is not on the shelf; add it first."))


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

"""The shelf: products, purchases, and stock as bought minus poured."""

from dataclasses import replace

from kumpan.core.dosing.additions import Product, mass_from_volume_g, volume_from_mass_ml
from kumpan.core.dosing.catalogue import chemical
from kumpan.core.dosing.rounding import mass_text, volume_text
from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.journal import AdditionMade, ProductBought, effective
from kumpan.services.ledger import Scope, Stamp, record, to_entry
from kumpan.services.views import ShelfLine

_KINDS = ("purchase", "addition", "void")


async def products(scope: Scope) -> list[Product]:
    return await scope.tx.workspace.products(scope.workspace_id)


async def add_product(scope: Scope, product: Product) -> Product:
    """Put a product on the shelf; the same id again is answered, not doubled. Raises InvalidInput."""
    row = chemical(product.chemical)
    if not 0 < product.strength_percent <= 100:
        raise InvalidInput("Strength must be over 0 and at most 100 percent.", "strength_percent")
    if product.package_ml is not None and not row.is_liquid:
        raise InvalidInput(f"{row.name} is a solid: give the package's weight.", "package_ml")
    known = {other.id: other for other in await products(scope)}
    if product.id not in known:
        named = replace(product, name=product.name.strip()[:120])
        await scope.tx.workspace.add_product(scope.workspace_id, named, scope.now)
        return named
    return known[product.id]


async def buy(scope: Scope, stamp: Stamp, product_id: str, packages: float, price: float | None) -> None:
    """Note packages bought. Raises NotFound for a product that is not on the shelf."""
    if not 0 < packages <= 10_000:
        raise InvalidInput("Packages must be over 0; type how many were bought.", "packages")
    if product_id not in {product.id for product in await products(scope)}:
        raise NotFound("This product is not on the shelf; add it first.")
    await record(scope, None, stamp, ProductBought(product_id, packages, price))


async def shelf(scope: Scope, metric: bool) -> list[ShelfLine]:
    """Every product with what should be left of it."""
    stored = await scope.tx.journal.entries_of_workspace(scope.workspace_id, _KINDS)
    counted = effective(to_entry(row) for row in stored)
    bought: dict[str, float] = {}
    poured: dict[str, float] = {}
    for entry in counted:
        body = entry.body
        if isinstance(body, ProductBought):
            bought[body.product_id] = bought.get(body.product_id, 0.0) + body.packages
        elif isinstance(body, AdditionMade) and body.product_id:
            poured[body.product_id] = poured.get(body.product_id, 0.0) + body.mass_g
    return [_line(p, bought.get(p.id), poured.get(p.id, 0.0), metric) for p in await products(scope)]


def _line(product: Product, packages: float | None, poured_g: float, metric: bool) -> ShelfLine:
    package = product.package_g
    if product.package_ml is not None:
        package = mass_from_volume_g(product, product.package_ml)
    stock = packages * package - poured_g if packages is not None and package is not None else None
    return ShelfLine(
        product.id,
        product.label,
        product.chemical,
        product.strength_percent,
        product.package_g,
        product.package_ml,
        stock,
        None if stock is None else volume_from_mass_ml(product, stock),
        _stock_text(product, stock, metric),
        amount_text(product, poured_g, metric) if poured_g else "",
    )


def _stock_text(product: Product, stock_g: float | None, metric: bool) -> str:
    if stock_g is None:
        return "not counted yet"
    if stock_g <= 0:
        return "none left by the books"
    return amount_text(product, stock_g, metric)


def amount_text(product: Product, mass_g: float, metric: bool) -> str:
    """A mass of a product in words: by volume for liquids, by weight else."""
    ml = volume_from_mass_ml(product, mass_g)
    return mass_text(mass_g, metric) if ml is None else volume_text(ml, metric)

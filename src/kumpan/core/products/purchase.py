"""What a plan lacks, and the cheapest way to buy it in whole packages. Source: mass-balance."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from kumpan.core.products.product import Product, moles_per_g
from kumpan.core.products.stock import Stocked

SOURCE = "mass-balance"

MOST_PACKAGES = 1000


@dataclass(frozen=True)
class Buy:
    """So many packages of a product. `cost` is None where its price is not told."""

    product: Product
    packages: int
    cost: float | None


@dataclass(frozen=True)
class Missing:
    """What is short of a product (g), and what to buy for it; nothing where no package is known."""

    product: Product
    short_g: float
    buy: tuple[Buy, ...]


def missing(needs: Mapping[Product, float], inventory: Sequence[Stocked]) -> tuple[Missing, ...]:
    """What the plan needs beyond the stock. A product whose stock is not counted counts as there."""
    found = []
    for product, need_g in needs.items():
        here = next((item for item in inventory if item.product.id == product.id), None)
        if here is None or here.stock_g is None:
            continue
        short = need_g - max(0.0, here.stock_g)
        if short > 1e-6 * need_g:
            found.append(Missing(product, short, cheapest(product, short, inventory)))
    return tuple(found)


def cheapest(product: Product, short_g: float, inventory: Sequence[Stocked]) -> tuple[Buy, ...]:
    """Whole packages of the same chemical, in any strength on the list, that cost least together.

    Without any price the fewest packages; products without a price are then left to those with one.
    """
    from scipy.optimize import Bounds, LinearConstraint, milp

    same = [item for item in inventory if item.product.chemical == product.chemical and item.package_g]
    priced = [item for item in same if item.price is not None] or same
    if not priced:
        return ()
    brings = np.array([(item.package_g or 0.0) * moles_per_g(item.product) for item in priced])
    costs = np.array([item.price if item.price is not None else 1.0 for item in priced])
    need = short_g * moles_per_g(product)
    result = milp(
        costs + 1e-6,
        constraints=LinearConstraint(brings / need, 1.0 - 1e-9, np.inf),
        integrality=np.ones(len(priced), dtype=int),
        bounds=Bounds(0, MOST_PACKAGES),
    )
    if not result.success:
        return ()
    counts = [round(float(count)) for count in result.x]
    return tuple(
        Buy(item.product, count, None if item.price is None else item.price * count)
        for item, count in zip(priced, counts, strict=True)
        if count
    )

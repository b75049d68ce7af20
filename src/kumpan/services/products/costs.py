"""What the pouring cost: by product, pool, month and round, at the last prices; what has none is named."""

from collections import defaultdict
from datetime import timedelta
from uuid import UUID

from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope
from kumpan.services.journal.rounds import rounds
from kumpan.services.products.queries import roughly_text
from kumpan.services.products.views import CostLine, CostsView
from kumpan.services.treatments.at_hand import stocked, store


async def costs(scope: Scope, days: int, units: Units) -> CostsView:
    """What was poured over the last `days` days."""
    found, since = await store(scope), scope.now - timedelta(days=days)
    shelf = {product.id: stocked(found, product, scope.now) for product in found.products}
    labels = {product.id: product.label for product in found.products}  # without today's strength
    used: dict[str, float] = defaultdict(float)
    by_pool: dict[UUID, float] = defaultdict(float)
    by_month: dict[str, float] = defaultdict(float)
    for product_id, pool_id, month, grams in await scope.tx.poured.by_pool_and_month(
        scope.workspace_id, since
    ):
        if product_id not in shelf:
            continue
        used[product_id] += grams
        cost = grams * (shelf[product_id].price_per_g or 0.0)
        by_pool[pool_id] += cost
        by_month[month] += cost
    products = [
        _of_product(shelf[key], labels[key], grams, units) for key, grams in used.items() if grams > 0
    ]
    names = await _names(scope, list(by_pool))
    return CostsView(
        since=since,
        currency=found.preferences.currency,
        total=sum(by_pool.values()),
        products=_dearest(products),
        pools=_dearest([_plain(str(key), names.get(key, ""), cost) for key, cost in by_pool.items()]),
        months=tuple(_plain(key, key, cost) for key, cost in sorted(by_month.items())),
        rounds=_dearest(await _rounds(scope, by_pool)),
        gaps=tuple(
            Message(
                "{product} has no price: note what was paid with the next purchase.",
                product=Verbatim(one.name),
            )
            for one in products
            if one.cost is None
        ),
    )


def _of_product(item: Stocked, label: str, grams: float, units: Units) -> CostLine:
    price = item.price_per_g
    return CostLine(
        key=item.product.id,
        name=label,
        used_text=roughly_text(item.product, grams, units),
        cost=None if price is None else grams * price,
    )


async def _names(scope: Scope, pools: list[UUID]) -> dict[UUID, str]:
    """As the list of pools has them; nothing of one that is no longer here."""
    listed = await scope.tx.summaries.some(scope.workspace_id, pools)
    return {one.pool_id: one.summary.name for one in listed if one.summary is not None}


async def _rounds(scope: Scope, by_pool: dict[UUID, float]) -> list[CostLine]:
    """By technician and weekday; a pool on two rounds counts with both."""
    found = await rounds(scope.tx, scope.workspace_id, scope.now)
    people = {one.id: one.name for one in await scope.tx.workspace.people(scope.workspace_id)}
    return [
        _plain(
            f"{person}/{weekday}",
            people.get(person, "") if person else "",
            sum(by_pool.get(stop, 0.0) for stop in stops),
        )
        for (person, weekday), stops in found.items()
        if stops
    ]


def _plain(key: str, name: str, cost: float) -> CostLine:
    return CostLine(key=key, name=name, used_text=NOTHING, cost=cost)


def _dearest(lines: list[CostLine]) -> tuple[CostLine, ...]:
    return tuple(sorted(lines, key=lambda line: (-(line.cost or 0.0), line.name, line.key)))

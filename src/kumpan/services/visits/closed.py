"""A technician's day once it is driven: what was used, what each pool cost, whose owner can be told."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.journal import VisitDone, effective, of_kind
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.units import Units
from kumpan.services.assessment.summaries import Renewal, some
from kumpan.services.journal.ledger import Scope, pool_ids, to_entry
from kumpan.services.products.queries import roughly_text
from kumpan.services.treatments.at_hand import stocked, store
from kumpan.services.visits.queries import zone_of_rounds
from kumpan.services.visits.views import DayClosed, PoolOfDay, UsedOnDay

ENDED = ("visit", "void")


async def day_closed(scope: Scope, person_id: UUID | None, *, renewal: Renewal, units: Units) -> DayClosed:
    """Of today, on the clock of the rounds: of whoever was there, on whosever round the pool stands."""
    here = await pool_ids(scope)
    local = scope.now.astimezone(await zone_of_rounds(scope, here))
    midnight = local.replace(hour=0, minute=0, second=0, microsecond=0)
    ended = effective(
        [to_entry(row) for row in await scope.tx.journal.entries_since(scope.workspace_id, ENDED, midnight)]
    )
    visited = [
        entry.pool_id
        for entry in of_kind(ended, VisitDone)
        if entry.pool_id in here and entry.person_id == person_id
    ]
    found, poured = await store(scope), await _poured(scope, person_id, midnight, here)
    rows = [pool for pool in dict.fromkeys([*visited, *poured.cost]) if pool is not None]
    names = {one.pool_id: one.name for one in await some(scope, rows, renewal)}
    return DayClosed(
        currency=found.preferences.currency,
        used=tuple(
            UsedOnDay(product.id, product.label, roughly_text(product, grams, units))
            for product, grams in poured.used.items()
            if grams > 0
        ),
        pools=tuple(
            PoolOfDay(pool, names.get(pool, ""), poured.cost.get(pool, 0.0), pool in visited) for pool in rows
        ),
        left_out=Message("What has no price is left out; note it with the next purchase.")
        if None in poured.cost.values()
        else None,
    )


@dataclass(frozen=True)
class _Poured:
    """By product, g; and its worth by pool, None where a price is missing."""

    used: Mapping[Product, float]
    cost: Mapping[UUID, float | None]


async def _poured(scope: Scope, person_id: UUID | None, after: datetime, here: Collection[UUID]) -> _Poured:
    found = await store(scope)
    shelf = {product.id: stocked(found, product, scope.now) for product in found.products}
    used: dict[Product, float] = {}
    cost: dict[UUID, float | None] = {}
    for pool, product_id, grams in await scope.tx.poured.of_person(scope.workspace_id, person_id, after):
        if product_id not in shelf or pool not in here:
            continue
        item = shelf[product_id]
        used[item.product] = used.get(item.product, 0.0) + grams
        before, price = cost.get(pool, 0.0), item.price_per_g
        cost[pool] = None if price is None or before is None else before + grams * price
    return _Poured(dict(sorted(used.items(), key=lambda row: row[0].label)), cost)

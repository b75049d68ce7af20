"""What a plan is made with: the shelf as it stands, its prices and strengths now, and the user's habits."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from uuid import UUID

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.journal import (
    Entry,
    Place,
    PreferencesSet,
    ProductBought,
    ProductCounted,
    ProductPlaced,
    SettingsMade,
    StrengthTested,
    effective,
    of_kind,
)
from kumpan.core.products.aging import strength_now
from kumpan.core.products.places import serves
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.disagreements import answer
from kumpan.core.records.display import DisplayOptions
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope, entries_in
from kumpan.services.journal.rounds import drivers_of, rounds
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.row_cache import CachedRows

_KINDS = ("purchase", "placed", "counted", "strength", "habits", "void")


@dataclass(frozen=True, kw_only=True)
class Store:
    """The shelf's own story: what was bought, counted and tested of each product, and where it stands.

    `poured_g`: since it was counted; in all where it never was.
    """

    products: tuple[Product, ...]
    bought: Mapping[str, tuple[Entry[ProductBought], ...]]
    poured_g: Mapping[str, float]
    placed: Mapping[str, ProductPlaced]
    counted: Mapping[str, Entry[ProductCounted]]
    tested: Mapping[str, Entry[StrengthTested]]
    preferences: PreferencesSet


@dataclass(frozen=True)
class AtHand:
    """Products with stock and price, strengths as they are now; `standard` for want of an own shelf."""

    stocked: tuple[Stocked, ...]
    standard: bool
    preferences: PreferencesSet

    @property
    def products(self) -> tuple[Product, ...]:
        """What the plan may pour."""
        return tuple(item.product for item in self.stocked)


async def store(scope: Scope) -> Store:
    """Read once a request: the workspace's purchases, what was poured, tests of strength and habits."""
    if "store" not in scope.cached:
        products = await scope.tx.workspace.products(scope.workspace_id)
        rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, _KINDS)
        found = _sorted(tuple(products), rows)
        poured_g = dict(await scope.tx.poured.totals(scope.workspace_id))
        at = {key: entry.at for key, entry in found.counted.items()}
        poured_g |= await scope.tx.poured.since_each(scope.workspace_id, at)
        found = replace(found, poured_g=poured_g)
        scope.cached["store"] = found if scope.staff else _without_prices(found)
    read = scope.cached["store"]
    assert isinstance(read, Store)
    return read


def _without_prices(found: Store) -> Store:
    """What a customer or a guest sees of it: what a workspace pays is its own affair."""
    bought = {
        key: tuple(replace(entry, body=replace(entry.body, price=None)) for entry in entries)
        for key, entries in found.bought.items()
    }
    return replace(found, bought=bought)


@remembered(most=64)
def _sorted(products: tuple[Product, ...], rows: CachedRows[StoredEntry]) -> Store:
    """What was entered about each product, without what was poured; the same rows are sorted once."""
    entries = effective(entries_in(rows))
    bought: dict[str, list[Entry[ProductBought]]] = {}
    for purchase in of_kind(entries, ProductBought):
        bought.setdefault(purchase.body.product_id, []).append(purchase)
    placed = {entry.body.product_id: entry.body for entry in of_kind(entries, ProductPlaced)}
    tested = {test.body.product_id: test for test in of_kind(entries, StrengthTested)}
    preferences = next((entry.body for entry in reversed(of_kind(entries, PreferencesSet))), PreferencesSet())
    return Store(
        products=products,
        bought={key: tuple(rows) for key, rows in bought.items()},
        poured_g={},
        placed=placed,
        counted={entry.body.product_id: entry for entry in of_kind(entries, ProductCounted)},
        tested=tested,
        preferences=preferences,
    )


async def at_hand(scope: Scope, pool_id: UUID | None) -> AtHand:
    """What a plan may be made with now: at a pool, what stands there and on the shelf of all; without one,
    everything that is not gone, the store too.
    """
    found = await store(scope)
    drivers: frozenset[UUID] = frozenset()
    if pool_id is not None and any(one.place is Place.TRUCK for one in found.placed.values()):
        drivers = drivers_of(await rounds(scope.tx, scope.workspace_id, scope.now), pool_id)
    products = [one for one in found.products if serves(found.placed.get(one.id), pool_id, drivers)]
    if not products:
        return AtHand(
            tuple(Stocked(product) for product in STANDARD_INVENTORY),
            standard=True,
            preferences=found.preferences,
        )
    return AtHand(
        tuple(stocked(found, product, scope.now) for product in products),
        standard=False,
        preferences=found.preferences,
    )


def stocked(found: Store, product: Product, now: datetime) -> Stocked:
    """A product as it stands now: aged, with what should be left of it and its last price."""
    purchases, counted = found.bought.get(product.id, ()), found.counted.get(product.id)
    item = Stocked(product)
    packages = sum(e.body.packages for e in purchases if counted is None or e.at > counted.at)
    begun_g = counted.body.mass_g if counted is not None else 0.0
    known = counted is not None or (purchases and item.package_g)
    came_g = packages * (item.package_g or 0.0)
    stock = begun_g + came_g - found.poured_g.get(product.id, 0.0) if known else None
    prices = [e.body.price / e.body.packages for e in purchases if e.body.price is not None]
    return Stocked(aged(found, product, now), stock, prices[-1] if prices else None)


def aged(found: Store, product: Product, now: datetime) -> Product:
    """The product at the strength it has by now: from its last purchase, or from a later test of it."""
    purchases, test = found.bought.get(product.id, ()), found.tested.get(product.id)
    since = purchases[-1].at if purchases else None
    fresh = product
    if test is not None and (since is None or test.at >= since):
        fresh, since = replace(product, strength_percent=test.body.strength_percent), test.at
    if since is None:
        return product
    percent = strength_now(fresh, (now - since).total_seconds() / 86_400, found.preferences.storage_c)
    if abs(percent - product.strength_percent) < 0.05:
        return product
    return replace(product, strength_percent=percent, name=f"{product.label}, now {percent:.1f} %")


def display_options(settings: SettingsMade, preferences: PreferencesSet, *, units: Units) -> DisplayOptions:
    """How amounts are said at this pool."""
    return DisplayOptions(units, preferences.containers, answer(settings.choices, "salt"))

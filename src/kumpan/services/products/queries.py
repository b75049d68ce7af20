"""The shelf: products, purchases, tests of strength, stock as bought minus poured, and what to buy."""

from collections.abc import Mapping
from datetime import datetime, timedelta

from kumpan.core.journal import AdditionMade, Entry, PreferencesSet
from kumpan.core.messages import NOTHING, Message, joined
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.products.purchase import Missing, cheapest, missing
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import G_PER_OZ, ML_PER_FL_OZ, Units
from kumpan.core.quantity import Liquid, Mass, Number
from kumpan.services.journal.ledger import Scope
from kumpan.services.products.views import BuyLine, InventoryLine
from kumpan.services.treatments.at_hand import Store, at_hand, stocked, store

SEASON = timedelta(days=365)
PACE_OVER = timedelta(days=28)
LASTS_AT_LEAST = timedelta(days=14)


async def products(scope: Scope) -> list[Product]:
    """Every product of the shelf, stocked or not."""
    return await scope.tx.workspace.products(scope.workspace_id)


async def preferences(scope: Scope) -> PreferencesSet:
    """How this workspace measures, stores and pays."""
    return (await store(scope)).preferences


async def inventory(scope: Scope, units: Units) -> list[InventoryLine]:
    """Every product with what should be left of it, what it costs and what the season used."""
    found = await store(scope)
    order = list(CATALOGUE)
    listed = sorted(found.products, key=lambda product: order.index(product.chemical))
    return [_line(found, product, scope.now, units) for product in listed]


def _line(found: Store, product: Product, now: datetime, units: Units) -> InventoryLine:
    item = stocked(found, product, now)
    poured = found.poured.get(product.id, ())
    used_g = _poured_since(poured, now - SEASON)
    stock = item.stock_g
    purchases = found.bought.get(product.id, ())
    return InventoryLine(
        id=product.id,
        label=product.label,
        chemical=product.chemical,
        form=product.row.form,
        strength_percent=product.strength_percent,
        strength_now_percent=item.product.strength_percent,
        package_g=product.package_g,
        package_ml=product.package_ml,
        package_text=(amount_text(product, item.package_g) if item.package_g else NOTHING),
        price=item.price,
        bought_at=purchases[-1].at if purchases else None,
        stock_g=stock,
        stock_ml=None if stock is None else volume_from_mass_ml(product, stock),
        stock_text=_stock_text(product, stock, units),
        used_text=(roughly_text(product, used_g, units) if used_g else NOTHING),
        used_cost=used_g * item.price_per_g if item.price_per_g is not None and used_g else None,
        days_left=_days_left(stock, poured, now),
    )


def _poured_since(entries: tuple[Entry[AdditionMade], ...], since: datetime) -> float:
    return sum(e.body.mass_g for e in entries if e.at > since)


def _days_left(stock_g: float | None, poured: tuple[Entry[AdditionMade], ...], now: datetime) -> int | None:
    """How long the stock lasts at the last four weeks' pace; None where nothing was poured or counted."""
    pace = _poured_since(poured, now - PACE_OVER) / PACE_OVER.days
    return int(max(0.0, stock_g) / pace) if stock_g is not None and pace > 0 else None


async def to_buy(scope: Scope, needs: Mapping[Product, float], *, units: Units) -> list[BuyLine]:
    """What the plans lack (`needs` in g), then what will not last two weeks at the last weeks' pace."""
    hand, found = await at_hand(scope), await store(scope)
    lacking = missing(needs, hand.stocked)
    lines = [buy_line(short, Message("for the sheets offered now"), units) for short in lacking]
    named = {short.product.id for short in lacking}
    for item in hand.stocked:
        poured = found.poured.get(item.product.id, ())
        days = _days_left(item.stock_g, poured, scope.now)
        if days is not None and days < LASTS_AT_LEAST.days and item.product.id not in named:
            lines.append(
                _running_out(item, poured, days=days, inventory_=hand.stocked, now=scope.now, units=units)
            )
    return lines


def _running_out(
    item: Stocked,
    poured: tuple[Entry[AdditionMade], ...],
    days: int,
    inventory_: tuple[Stocked, ...],
    now: datetime,
    units: Units,
) -> BuyLine:
    """As much as the last four weeks took."""
    short_g = max(1.0, _poured_since(poured, now - PACE_OVER) - max(0.0, item.stock_g or 0.0))
    short = Missing(item.product, short_g, cheapest(item.product, short_g, inventory_))
    why = (
        Message("none left at the last weeks' pace")
        if days == 0
        else Message("{days} days left at the last weeks' pace", days=Number(days))
    )
    return buy_line(short, why, units)


def buy_line(short: Missing, why: Message, units: Units) -> BuyLine:
    """One line of the shopping list: packages, money, and what for."""
    packages = [
        Message(
            "{count} × {package}",
            count=Number(buy.packages),
            package=amount_text(buy.product, Stocked(buy.product).package_g or 0.0),
        )
        for buy in short.buy
    ]
    costs = [buy.cost for buy in short.buy]
    return BuyLine(
        product_id=short.product.id,
        label=short.product.label,
        short_text=roughly_text(short.product, short.short_g, units),
        packages_text=Message("{packages}", packages=joined(packages, " and ")) if packages else NOTHING,
        cost=None if not costs or any(cost is None for cost in costs) else sum(cost or 0.0 for cost in costs),
        why=why,
    )


def _stock_text(product: Product, stock_g: float | None, units: Units) -> Message:
    if stock_g is None:
        return Message("not counted yet")
    if stock_g <= 0:
        return Message("none left by the books")
    return roughly_text(product, stock_g, units)


def roughly_text(product: Product, mass_g: float, units: Units) -> Message:
    """An amount by the books, in whole ounces or tens of grams: they are no finer."""
    ml = volume_from_mass_ml(product, mass_g)
    step = 10.0 if units is Units.METRIC else G_PER_OZ if ml is None else ML_PER_FL_OZ
    amount = mass_g if ml is None else ml
    rounded = max(1, round(amount / step)) * step
    return Message("{amount}", amount=Mass(rounded) if ml is None else Liquid(rounded))


def amount_text(product: Product, mass_g: float) -> Message:
    """A mass of a product in words: by volume for liquids, by weight else."""
    ml = volume_from_mass_ml(product, mass_g)
    return Message("{amount}", amount=Mass(mass_g) if ml is None else Liquid(ml))

"""The shelf: products, purchases, tests of strength, stock as bought minus poured, and what to buy."""

from collections.abc import Mapping
from datetime import datetime, timedelta

from kumpan.core.journal import Entry, Place, PreferencesSet, ProductBought, ProductPlaced
from kumpan.core.messages import NOTHING, Message, Plural, joined
from kumpan.core.products.by_label import KINDS, PER_L, LabelKind, repeat_days
from kumpan.core.products.catalogue import BY_LABEL, CATALOGUE
from kumpan.core.products.product import Product, volume_from_mass_ml
from kumpan.core.products.purchase import Missing, cheapest, missing
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.units import G_PER_OZ, ML_PER_FL_OZ, Units
from kumpan.core.quantity import Liquid, Mass, Number
from kumpan.services.journal.ledger import Scope
from kumpan.services.products.views import BuyLine, InventoryLine, LabelKindView, PurchaseLine
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
    order = [*CATALOGUE, *BY_LABEL]
    listed = sorted(found.products, key=lambda product: order.index(product.chemical))
    season, lately = await _used(scope, SEASON), await _used(scope, PACE_OVER)
    used = {product.id: (season.get(product.id, 0.0), lately.get(product.id, 0.0)) for product in listed}
    return [_line(found, product, used[product.id], now=scope.now, units=units) for product in listed]


async def _used(scope: Scope, over: timedelta) -> Mapping[str, float]:
    """What was poured of each product lately, g."""
    return await scope.tx.poured.since(scope.workspace_id, scope.now - over)


def _line(
    found: Store, product: Product, used: tuple[float, float], *, now: datetime, units: Units
) -> InventoryLine:
    item = stocked(found, product, now)
    used_g, lately_g = used
    stock = item.stock_g
    purchases = found.bought.get(product.id, ())
    placed = found.placed.get(product.id, ProductPlaced(product.id, Place.HERE))
    return InventoryLine(
        id=product.id,
        label=product.label,
        chemical=product.chemical,
        form=product.row.form,
        strength_percent=product.strength_percent,
        strength_now_percent=item.product.strength_percent,
        package_g=product.package_g,
        package_ml=product.package_ml,
        package_text=_package(product),
        price=item.price,
        bought_at=purchases[-1].at if purchases else None,
        stock_g=stock,
        stock_ml=None if stock is None else volume_from_mass_ml(product, stock),
        stock_text=_stock_text(product, stock, units),
        used_text=(roughly_text(product, used_g, units) if used_g else NOTHING),
        used_cost=used_g * item.price_per_g if item.price_per_g is not None and used_g else None,
        days_left=_days_left(stock, lately_g),
        by_label=product.chemical in KINDS,
        label_text=label_text(product),
        repeat_days=repeat_days(product.chemical, product.label_dose),
        place=placed.place.value,
        place_pool_id=placed.pool_id,
        place_technician_id=placed.technician_id,
        best_before=placed.best_before,
        past_date=placed.best_before is not None and placed.best_before < now.date(),
        counted_at=found.counted[product.id].at if product.id in found.counted else None,
        purchases=tuple(_bought(one) for one in reversed(purchases)),
    )


def _package(product: Product) -> Message:
    """As it stands on the label, whatever the strength has come to."""
    if product.package_ml is not None:
        return Message("{amount}", amount=Liquid(product.package_ml))
    return Message("{amount}", amount=Mass(product.package_g)) if product.package_g else NOTHING


def _bought(entry: Entry[ProductBought]) -> PurchaseLine:
    body = entry.body
    price = None if body.price is None else body.price / body.packages
    return PurchaseLine(at=entry.at, packages=body.packages, price=price)


def label_text(product: Product) -> Message:
    """What its label says, in one line; nothing for a chemical with an equation."""
    kind = KINDS.get(product.chemical)
    if kind is None:
        return NOTHING
    dose = product.label_dose or kind.usual()
    if dose is None:
        return kind.where
    first = _for_10_000_gal(product, dose.first_per_l)
    usual = product.label_dose is None
    if dose.upkeep_per_l is None:
        if usual:
            return Message("Usually {first} for each 10,000 gal; type what yours says.", first=first)
        return Message("{first} for each 10,000 gal.", first=first)
    upkeep = _for_10_000_gal(product, dose.upkeep_per_l)
    if usual:
        return Message(
            "Usually {first} first, then {upkeep}, for each 10,000 gal; type what yours says.",
            first=first,
            upkeep=upkeep,
        )
    return Message("{first} first, then {upkeep}, for each 10,000 gal.", first=first, upkeep=upkeep)


def _for_10_000_gal(product: Product, per_l: float) -> Liquid | Mass:
    amount = per_l * PER_L
    return Liquid(amount) if product.row.is_liquid else Mass(amount)


def label_kinds() -> tuple[LabelKindView, ...]:
    """What is dosed by its label, with what such labels usually say."""
    return tuple(
        LabelKindView(
            key=kind.key,
            name=kind.name,
            is_liquid=kind.is_liquid,
            usual_strength_percent=BY_LABEL[kind.key].usual_strength_percent,
            use=kind.use,
            know=kind.know or NOTHING,
            first_text=_typed(kind, kind.first and kind.first[0]),
            upkeep_text=_typed(kind, kind.upkeep and kind.upkeep[0]),
            most_text=_typed(kind, kind.first and kind.first[1]),
            repeat_days=kind.repeat_days,
            swim_wait_min=kind.swim_wait_min,
            into_the_pool=kind.into_the_pool,
        )
        for kind in KINDS.values()
    )


def _typed(kind: LabelKind, amount: float | None) -> str:
    """As it is typed into the form."""
    return "" if amount is None else f"{amount:g} {'fl oz' if kind.is_liquid else 'lb'}"


def _days_left(stock_g: float | None, lately_g: float) -> int | None:
    """How long the stock lasts at the last four weeks' pace; None where nothing was poured or counted."""
    pace = lately_g / PACE_OVER.days
    return int(max(0.0, stock_g) / pace) if stock_g is not None and pace > 0 else None


async def to_buy(scope: Scope, needs: Mapping[Product, float], *, units: Units) -> list[BuyLine]:
    """What the plans lack (`needs` in g), then what will not last two weeks at the last weeks' pace."""
    hand, lately = await at_hand(scope, None), await _used(scope, PACE_OVER)
    lacking = missing(needs, hand.stocked)
    lines = [buy_line(short, Message("for the plans offered now"), units) for short in lacking]
    named = {short.product.id for short in lacking}
    for item in hand.stocked:
        lately_g = lately.get(item.product.id, 0.0)
        days = _days_left(item.stock_g, lately_g)
        if days is not None and days < LASTS_AT_LEAST.days and item.product.id not in named:
            lines.append(_running_out(item, lately_g, days=days, inventory_=hand.stocked, units=units))
    return lines


def _running_out(
    item: Stocked,
    lately_g: float,
    *,
    days: int,
    inventory_: tuple[Stocked, ...],
    units: Units,
) -> BuyLine:
    """As much as the last four weeks took."""
    short_g = max(1.0, lately_g - max(0.0, item.stock_g or 0.0))
    short = Missing(item.product, short_g, cheapest(item.product, short_g, inventory_))
    why = (
        Message("none left at the last weeks' pace")
        if days == 0
        else Message("{days} left at the last weeks' pace", days=Plural("{n} day", "{n} days", days))
    )
    return buy_line(short, why, units)


def buy_line(short: Missing, why: Message, units: Units) -> BuyLine:
    """One line of the shopping list: packages, money, and what for."""
    packages = [
        Message(
            "{count} × {package}",
            count=Number(buy.packages),
            package=_package(buy.product),
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

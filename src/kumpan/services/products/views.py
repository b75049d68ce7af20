"""What is seen of the shelf."""

from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from kumpan.core.messages import Message


@dataclass(frozen=True, kw_only=True)
class PurchaseLine:
    """Packages that were bought on a day, and what one of them cost; None where that was not told."""

    at: datetime
    packages: float
    price: float | None


@dataclass(frozen=True, kw_only=True)
class InventoryLine:
    """A product with its stock (bought minus poured) in g, mL for liquids; None when never bought.

    `strength_now_percent` is aged; `price` is one package's; `used_text`, `used_cost` the last year's;
    `days_left` at the pace of the last four weeks. `by_label`: dosed by its label, as `label_text` says.
    `place` where it stands, `place_pool_id` with its own pool,
    `place_technician_id` with the truck it rides on;
    `past_date`: over the date printed on it. `purchases` the latest first.
    """

    id: str
    label: str
    chemical: str
    form: str
    strength_percent: float
    strength_now_percent: float
    package_g: float | None
    package_ml: float | None
    package_text: Message
    price: float | None
    bought_at: datetime | None
    stock_g: float | None
    stock_ml: float | None
    stock_text: Message
    used_text: Message
    used_cost: float | None
    days_left: int | None
    by_label: bool
    label_text: Message
    repeat_days: int | None
    place: str
    place_pool_id: UUID | None
    place_technician_id: UUID | None
    best_before: date | None
    past_date: bool
    counted_at: datetime | None
    purchases: tuple[PurchaseLine, ...]


@dataclass(frozen=True, kw_only=True)
class CountedLine:
    """What a count found: `text` how it differs from the books."""

    product_id: str
    text: Message


@dataclass(frozen=True, kw_only=True)
class CostLine:
    """What was spent on one thing: a product, a pool, a month or a round. `cost` None without any price."""

    key: str
    name: str
    used_text: Message
    cost: float | None


@dataclass(frozen=True, kw_only=True)
class CostsView:
    """What was poured since `since`, at the last prices; `gaps` is what no price is known of."""

    since: datetime
    currency: str
    total: float
    products: tuple[CostLine, ...]
    pools: tuple[CostLine, ...]
    months: tuple[CostLine, ...]
    rounds: tuple[CostLine, ...]
    gaps: tuple[Message, ...]


@dataclass(frozen=True, kw_only=True)
class LabelKindView:
    """A kind of product that is dosed by its label; doses for 10 000 gal, as they are typed back."""

    key: str
    name: str
    is_liquid: bool
    usual_strength_percent: float
    use: Message
    know: Message
    first_text: str
    upkeep_text: str
    most_text: str
    repeat_days: int | None
    swim_wait_min: int
    into_the_pool: bool


@dataclass(frozen=True, kw_only=True)
class BuyLine:
    """What to buy and why; `packages_text` empty where no package is known, `cost` None without a price."""

    product_id: str
    label: str
    short_text: Message
    packages_text: Message
    cost: float | None
    why: Message

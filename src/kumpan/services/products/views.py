"""What is seen of the shelf."""

from dataclasses import dataclass
from datetime import datetime

from kumpan.core.messages import Message


@dataclass(frozen=True, kw_only=True)
class InventoryLine:
    """A product with its stock (bought minus poured) in g, mL for liquids; None when never bought.

    `strength_now_percent` is aged; `price` is one package's; `used_text`, `used_cost` the last year's;
    `days_left` at the pace of the last four weeks.
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


@dataclass(frozen=True, kw_only=True)
class BuyLine:
    """What to buy and why; `packages_text` empty where no package is known, `cost` None without a price."""

    product_id: str
    label: str
    short_text: Message
    packages_text: Message
    cost: float | None
    why: Message

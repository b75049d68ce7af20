"""How liquid chlorine loses strength in the store: second order in its concentration, faster when warm.

The half-lives of a fresh jug at three temperatures are the table; between them the logarithm of the rate
runs straight, beyond them it goes on. Source: chlorine-aging.
"""

from collections.abc import Mapping
from math import exp, log

from kumpan.core.products.product import Product

SOURCE = "chlorine-ageing"

# Days until half is gone, by trade percent when fresh and by temperature in C (75, 85, 95 F).
HALF_LIFE_DAYS: Mapping[float, Mapping[float, float]] = {
    12.5: {23.9: 218, 29.4: 101, 35.0: 48},
    10.0: {23.9: 348, 29.4: 160, 35.0: 76},
}
AGES = "sodium_hypochlorite"
SHOWN_STEP_PERCENT = 0.1


def half_life_days(fresh_percent: float, storage_c: float) -> float:
    """Days until half of the strength is gone; longer for weaker and for cooler jugs."""
    strong, weak = (_at(HALF_LIFE_DAYS[percent], storage_c) for percent in (12.5, 10.0))
    slope = log(weak / strong) / log(10.0 / 12.5)
    return float(strong * (fresh_percent / 12.5) ** slope)


def _at(row: Mapping[float, float], storage_c: float) -> float:
    points = sorted(row.items())
    first, second = points[:2] if storage_c <= points[1][0] else points[1:]
    share = (storage_c - first[0]) / (second[0] - first[0])
    return float(exp(log(first[1]) + share * (log(second[1]) - log(first[1]))))


def aged_percent(fresh_percent: float, days: float, storage_c: float) -> float:
    """The strength after so many days: 1/C grows evenly. Days before the purchase count as none."""
    return fresh_percent / (1.0 + max(0.0, days) / half_life_days(fresh_percent, storage_c))


def strength_now(product: Product, days: float, storage_c: float) -> float:
    """Percent, in steps of a tenth: an older jug is known no better. Only liquid chlorine ages here."""
    if product.chemical != AGES:
        return product.strength_percent
    aged = aged_percent(product.strength_percent, days, storage_c)
    return max(SHOWN_STEP_PERCENT, round(aged / SHOWN_STEP_PERCENT) * SHOWN_STEP_PERCENT)

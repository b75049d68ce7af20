"""Liquid chlorine in the store."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.products.aging import HALF_LIFE_DAYS, aged_percent, half_life_days, strength_now
from kumpan.core.products.product import Product

LIQUID = Product("l", "sodium_hypochlorite", 12.5)


@pytest.mark.parametrize(("percent", "fahrenheit", "days"), [
    (12.5, 75, 218), (12.5, 85, 101), (12.5, 95, 48), (10.0, 75, 348), (10.0, 85, 160), (10.0, 95, 76),
])  # fmt: skip
def test_half_lives_of_the_handbook(percent: float, fahrenheit: float, days: float) -> None:
    """Handbook 04, "Aging" (from memory there): after its half-life a fresh jug holds half."""
    storage_c = (fahrenheit - 32) / 1.8
    assert half_life_days(percent, storage_c) == pytest.approx(days, rel=0.01)
    assert aged_percent(percent, days, storage_c) == pytest.approx(percent / 2, rel=0.01)


def test_second_order_means_the_next_half_takes_twice_as_long() -> None:
    once = half_life_days(12.5, 29.4)
    assert aged_percent(12.5, 3 * once, 29.4) == pytest.approx(12.5 / 4)


@given(st.floats(5, 14), st.floats(0, 400), st.floats(0, 400), st.floats(5, 40))
def test_older_is_weaker_and_warmer_is_weaker(
    percent: float, one: float, more: float, storage_c: float
) -> None:
    assert aged_percent(percent, one + more, storage_c) <= aged_percent(percent, one, storage_c) <= percent
    assert aged_percent(percent, one, storage_c + 5) <= aged_percent(percent, one, storage_c)


def test_only_liquid_chlorine_ages_and_a_purchase_to_come_counts_as_fresh() -> None:
    assert strength_now(Product("g", "calcium_hypochlorite", 65.0), 300, 35) == 65.0
    assert strength_now(LIQUID, -3, 24) == 12.5
    assert strength_now(LIQUID, 9, 24) == pytest.approx(12.0), "in steps of a tenth"
    assert set(HALF_LIFE_DAYS) == {12.5, 10.0}

"""What may not go into a pool now, until when and why: one place for plan and judge.

Sources: mixing, order.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime, timedelta

from kumpan.core.journal import NotedEvent, PoolState
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CHLORINE_CARRIERS

SOURCES_USED = ("mixing", "order")

FRESH_PLASTER = timedelta(days=30)
BARE_PLASTER = timedelta(days=3)
COLD_C = 10.0  # 50 F: stabilizer hardly dissolves


@dataclass(frozen=True, kw_only=True)
class NotNow:
    """Chemicals that wait, why, and until when where that is known."""

    chemicals: tuple[str, ...]
    reason: Message
    until: datetime | None = None


def not_now(state: PoolState, now: datetime, water_c: float | None) -> tuple[NotNow, ...]:
    """All that may not be dosed now. `water_c` is the water's temperature, None where it is not known."""
    return (*_plaster(state, now), *_cold(water_c))


def _plaster(state: PoolState, now: datetime) -> Iterator[NotNow]:
    plastered = [entry.at for entry in state.events if entry.body.kind is NotedEvent.PLASTERED]
    if not plastered or now - plastered[-1] >= FRESH_PLASTER:
        return
    yield NotNow(
        chemicals=("sodium_chloride", "calcium_hypochlorite", "sodium_dichlor", "trichlor"),
        reason=Message("New plaster: no salt, no cell and no granules till day 30."),
        until=plastered[-1] + FRESH_PLASTER,
    )
    if now - plastered[-1] < BARE_PLASTER:
        yield NotNow(
            chemicals=CHLORINE_CARRIERS,
            reason=Message("New plaster: no chlorine before day 3, or the day that its schedule names."),
            until=plastered[-1] + BARE_PLASTER,
        )


def _cold(water_c: float | None) -> Iterator[NotNow]:
    if water_c is not None and water_c < COLD_C:
        yield NotNow(
            chemicals=("cyanuric_acid",),
            reason=Message("Under 50 F (10 C) stabilizer hardly dissolves: wait for warmer water."),
        )

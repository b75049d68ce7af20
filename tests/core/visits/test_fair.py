"""Fairer days: no pool is lost or doubled, the longest day gets no longer, and the way is checked by all orders."""

from itertools import permutations
from random import Random
from uuid import UUID

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.visits.fair import day_min, fair_rounds, measured
from kumpan.core.visits.order import Place, length_km, shorter_drive

A, B = UUID(int=1), UUID(int=2)


def pools(count: int) -> list[UUID]:
    return [UUID(int=100 + n) for n in range(count)]


def town(count: int, seed: int) -> dict[UUID, Place]:
    """Pools about a town of 20 km."""
    where = Random(seed)
    return {
        pool: (41.8 + where.uniform(-0.1, 0.1), -88.1 + where.uniform(-0.12, 0.12)) for pool in pools(count)
    }


@given(seed=st.integers(0, 10_000), count=st.integers(2, 40), days=st.integers(1, 6))
@settings(max_examples=60, deadline=None)
def test_every_pool_stands_on_as_many_days_as_before(seed: int, count: int, days: int) -> None:
    places, cast = town(count, seed), Random(seed)
    rounds: dict[tuple[UUID, int], list[UUID]] = {((A, B)[n % 2], n // 2): [] for n in range(days)}
    for pool in pools(count):
        for slot in cast.sample(sorted(rounds, key=str), 1 + (cast.random() < 0.1 and days > 1)):
            rounds[slot].append(pool)
    found = fair_rounds(rounds, places, {})
    for pool in pools(count):
        before = sum(pool in stops for stops in rounds.values())
        assert sum(list(stops).count(pool) for stops in found.rounds.values()) == before
    assert set(found.rounds) == set(rounds)


def test_days_come_out_even_and_shorter() -> None:
    """Thirty pools thrown on five days of which one has most: the longest day is near the mean afterwards."""
    places, order = town(30, 7), pools(30)
    rounds = {
        (A, 0): order[:16],
        (A, 1): order[16:20],
        (A, 2): order[20:24],
        (A, 3): order[24:27],
        (A, 4): order[27:],
    }
    found = fair_rounds(rounds, places, {})
    mean = sum(day_min(stops, places, {}) for stops in found.rounds.values()) / 5
    assert found.after.longest_min < 1.25 * mean
    assert found.after.longest_min < 0.6 * found.before.longest_min
    assert found.after.km < found.before.km
    assert found.after == measured(found.rounds, places, {})


def test_without_a_round_there_is_nothing_to_make_fairer() -> None:
    found = fair_rounds({}, town(3, 1), {})
    assert found.rounds == {}
    assert found.before == found.after


def test_a_long_stop_counts_as_such() -> None:
    places, order = town(6, 3), pools(6)
    found = fair_rounds({(A, 0): order, (A, 1): []}, places, {order[0]: 120.0})
    (with_it,) = [stops for stops in found.rounds.values() if order[0] in stops]
    assert len(with_it) < 3


@pytest.mark.parametrize("seed", range(8))
def test_the_shorter_drive_is_near_the_shortest_of_all(seed: int) -> None:
    """Seven stops: the shortest of all 720 orders that begin at the first one."""
    places, order = town(7, seed), pools(7)
    shortest = min(length_km((order[0], *rest), places) for rest in permutations(order[1:]))
    assert length_km(shorter_drive(order, places), places) <= 1.1 * shortest


def test_a_pool_without_a_place_stays_at_the_end() -> None:
    order = pools(5)
    places = {pool: place for pool, place in town(5, 1).items() if pool != order[2]}
    found = shorter_drive(order, places)
    assert found[-1] == order[2]
    assert set(found) == set(order)

"""Counts of attempts: one for all processes, anew after the window, nothing readable stored."""

import asyncio
from datetime import UTC, datetime, timedelta

from limits import RateLimitItemPerMinute
from limits.aio.strategies import FixedWindowRateLimiter

from kumpan.storage.transaction import Database

THREE = RateLimitItemPerMinute(3)


async def test_two_processes_count_together_and_a_window_ends(database_url: str) -> None:
    now = [datetime(2026, 6, 1, 12, 0, tzinfo=UTC)]
    databases = [Database(database_url), Database(database_url)]
    one, other = (FixedWindowRateLimiter(each.attempts(lambda: now[0])) for each in databases)
    assert await one.hit(THREE, "ada")
    assert await other.hit(THREE, "ada")
    assert await one.hit(THREE, "ada")
    assert not await other.hit(THREE, "ada")
    assert await other.hit(THREE, "eve")
    assert not await one.test(THREE, "ada")
    now[0] += timedelta(seconds=61)
    assert await one.test(THREE, "ada")
    assert await one.hit(THREE, "ada")
    storage = databases[0].attempts(lambda: now[0])
    await one.clear(THREE, "ada")
    assert await storage.check()
    await storage.reset()
    for each in databases:
        await each.close()


async def test_a_crowd_at_once_is_counted_one_by_one(database_url: str) -> None:
    database = Database(database_url)
    storage = database.attempts(lambda: datetime(2026, 6, 1, tzinfo=UTC))
    counts = await asyncio.gather(*(storage.incr("key", 60) for _ in range(20)))
    assert sorted(counts)[-1] == 20
    assert await storage.get("key") == 20
    await database.close()

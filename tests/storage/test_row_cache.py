"""Rows that are kept between reads: what another writes is seen, what is rolled back is not."""

from collections.abc import AsyncIterator
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

import pytest
import pytest_asyncio

from kumpan.core.journal import SwimmersCounted
from kumpan.services.journal.ledger import Scope, Stamp, pool_state, record
from kumpan.services.people.queries import the_workspace
from kumpan.storage.repositories.journal import JournalRepository, StoredEntry
from kumpan.storage.row_cache import MOST_SETS, CachedRows, RowCache
from kumpan.storage.transaction import Database, Transaction

NOW = datetime(2026, 6, 1, 12, tzinfo=UTC)


@pytest_asyncio.fixture
async def two(database_url: str) -> AsyncIterator[tuple[Database, Database, UUID]]:
    """Two programs on one database, and a pool."""
    one, other = Database(database_url), Database(database_url)
    pool = uuid4()
    async with one.transaction() as tx:
        await tx.journal.add_pool(await the_workspace(tx), pool, NOW)
    yield one, other, pool
    await one.close()
    await other.close()


async def swims(database: Database, pool: UUID) -> int:
    async with database.transaction() as tx:
        return len((await pool_state(await scope(tx), pool)).swims)


async def scope(tx: Transaction) -> Scope:
    return Scope(tx, await the_workspace(tx), NOW + timedelta(days=1))


async def reported(tx: Transaction, pool: UUID) -> None:
    await record(await scope(tx), pool, Stamp(uuid4(), NOW, None), SwimmersCounted(2.0))


async def test_what_another_program_writes_is_seen_at_the_next_read(
    two: tuple[Database, Database, UUID],
) -> None:
    one, other, pool = two
    assert await swims(one, pool) == 0
    async with other.transaction() as tx:
        await reported(tx, pool)
    assert await swims(one, pool) == 1


async def test_what_was_rolled_back_is_not_kept(two: tuple[Database, Database, UUID]) -> None:
    one, _, pool = two

    async def tells_and_stumbles() -> None:
        async with one.transaction() as tx:
            await reported(tx, pool)
            assert len((await pool_state(await scope(tx), pool)).swims) == 1
            raise RuntimeError("stumbled")

    with pytest.raises(RuntimeError):
        await tells_and_stumbles()
    assert await swims(one, pool) == 0
    async with one.transaction() as tx:
        await reported(tx, pool)
    assert await swims(one, pool) == 1


async def test_only_what_is_new_is_read_and_it_stands_in_its_place(
    two: tuple[Database, Database, UUID], monkeypatch: pytest.MonkeyPatch
) -> None:
    """The checksum is the database's own: a wrong one would read all again, and this would count it."""
    one, _, pool = two
    for hours in (3, 1, 2):
        async with one.transaction() as tx:
            at = NOW - timedelta(hours=hours)
            await record(await scope(tx), pool, Stamp(uuid4(), at, None), SwimmersCounted(float(hours)))
        assert await swims(one, pool) >= 1
    read: list[int] = []
    whole = JournalRepository._read

    async def counted(self: JournalRepository, *where: Any) -> tuple[StoredEntry, ...]:
        rows = await whole(self, *where)
        read.append(len(rows))
        return rows

    monkeypatch.setattr(JournalRepository, "_read", counted)
    async with one.transaction() as tx:
        later = Scope(tx, await the_workspace(tx), NOW + timedelta(days=2))
        await record(later, pool, Stamp(uuid4(), NOW - timedelta(hours=2.5), None), SwimmersCounted(2.5))
    async with one.transaction() as tx:
        state = await pool_state(await scope(tx), pool)
    assert read == [1]
    reported = [entry.body.bather_hours for entry in state.swims if isinstance(entry.body, SwimmersCounted)]
    assert reported == [3.0, 2.5, 2.0, 1.0]


async def test_an_unchanged_set_is_read_once_and_the_oldest_is_forgotten() -> None:
    saved: RowCache[int] = RowCache()
    reads: list[int] = []

    async def read() -> tuple[int, ...]:
        reads.append(1)
        return (1, 2)

    first = await saved.get(("a",), (2, 7), read)
    again = await saved.get(("a",), (2, 7), read)
    assert first is again
    assert len(reads) == 1
    assert (await saved.get(("a",), (3, 8), read)) != first
    assert len(reads) == 2
    for n in range(MOST_SETS):
        await saved.get(("b", n), (0,), read)
    count = len(reads)
    await saved.get(("a",), (3, 8), read)
    assert len(reads) == count + 1
    assert CachedRows(("x",), (1,)) == CachedRows(("x",), (2,))


async def test_old_pools_do_not_fill_the_memory_by_their_many_rows() -> None:
    """The bound is on rows, not on sets: a pool of twenty years counts for more than a new one."""
    saved: RowCache[int] = RowCache(most_rows=100)
    reads: list[int] = []

    async def get(name: int, rows: int) -> None:
        async def read() -> tuple[int, ...]:
            reads.append(name)
            return tuple(range(rows))

        await saved.get((name,), (1,), read)

    for name in (1, 2, 3):
        await get(name, 40)  # the third makes it 120: the first goes
    await get(2, 40)
    await get(3, 40)
    assert reads == [1, 2, 3]
    await get(1, 40)
    assert reads == [1, 2, 3, 1]
    await get(4, 500)  # larger than all that may be kept: still answered, and kept alone
    await get(4, 500)
    assert reads == [1, 2, 3, 1, 4]

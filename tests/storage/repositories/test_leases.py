"""A duty is one process's until it runs out; of many that want it at once one has it."""

import asyncio
from datetime import UTC, datetime, timedelta
from uuid import UUID

from kumpan.storage.transaction import Database

NOW = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
LASTS = timedelta(seconds=30)
A, B = UUID(int=1), UUID(int=2)


async def taken(database: Database, holder: UUID, at: datetime) -> bool:
    async with database.transaction() as tx:
        return await tx.leases.take("duty", holder, at, LASTS)


async def test_it_is_kept_by_renewing_and_given_up_by_dying(database_url: str) -> None:
    database = Database(database_url)
    assert await taken(database, A, NOW)
    assert not await taken(database, B, NOW + timedelta(seconds=10))
    assert await taken(database, A, NOW + timedelta(seconds=20))
    assert not await taken(database, B, NOW + timedelta(seconds=40))
    assert await taken(database, B, NOW + timedelta(seconds=50))
    assert not await taken(database, A, NOW + timedelta(seconds=51))
    await database.close()


async def test_of_many_at_once_one_has_it(database_url: str) -> None:
    database = Database(database_url)
    found = await asyncio.gather(*(taken(database, UUID(int=n), NOW) for n in range(12)))
    assert found.count(True) == 1
    await database.close()

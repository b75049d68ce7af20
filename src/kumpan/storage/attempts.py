"""Counts of attempts in MariaDB, as the library `limits` wants its storage: the same for every process."""

import hashlib
from collections.abc import Callable
from datetime import UTC, datetime, timedelta

from limits.aio.storage import Storage
from sqlalchemy import case, delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.ext.asyncio import AsyncSession, async_sessionmaker

from kumpan.storage.tables import AttemptRow


class AttemptStorage(Storage):
    """Each count lives in a transaction of its own, so that a refused request is counted all the same.

    Keys are hashed: the table holds neither logins nor addresses.
    """

    STORAGE_SCHEME = ["kumpan"]  # the library reads it so

    def __init__(self, sessions: async_sessionmaker[AsyncSession], clock: Callable[[], datetime]) -> None:
        super().__init__("kumpan://")
        self._sessions = sessions
        self._clock = clock

    @property
    def base_exceptions(self) -> type[Exception]:
        """What a failing database raises."""
        return SQLAlchemyError

    async def incr(self, key: str, expiry: float, amount: int = 1) -> int:
        """Count on, beginning anew where the window is over; the count."""
        now, ends = self._clock(), self._clock() + timedelta(seconds=expiry)
        over = AttemptRow.expires_at <= now
        statement = insert(AttemptRow).values(key=_hashed(key), count=amount, expires_at=ends)
        # The count is set first: the second assignment already sees what the first made of the row.
        statement = statement.on_duplicate_key_update(
            [
                ("count", case((over, amount), else_=AttemptRow.count + amount)),
                ("expires_at", case((over, ends), else_=AttemptRow.expires_at)),
            ]
        )
        async with self._sessions() as session, session.begin():
            await session.execute(statement)
            found = select(AttemptRow.count).where(AttemptRow.key == _hashed(key))
            return int(await session.scalar(found) or 0)

    async def get(self, key: str) -> int:
        """The count in the window that goes on; 0 without one."""
        async with self._sessions() as session:
            found = select(AttemptRow.count).where(
                AttemptRow.key == _hashed(key), AttemptRow.expires_at > self._clock()
            )
            return int(await session.scalar(found) or 0)

    async def get_expiry(self, key: str) -> float:
        """When the window ends, UTC seconds; now without one."""
        async with self._sessions() as session:
            found = await session.scalar(select(AttemptRow.expires_at).where(AttemptRow.key == _hashed(key)))
        return (found or self._clock()).astimezone(UTC).timestamp()

    async def check(self) -> bool:
        """Whether the database answers."""
        async with self._sessions() as session:
            return await session.scalar(select(func.count()).select_from(AttemptRow)) is not None

    async def reset(self) -> int | None:
        """Forget all counts whose window is over."""
        async with self._sessions() as session, session.begin():
            await session.execute(delete(AttemptRow).where(AttemptRow.expires_at <= self._clock()))
        return None

    async def clear(self, key: str) -> None:
        """Forget one count."""
        async with self._sessions() as session, session.begin():
            await session.execute(delete(AttemptRow).where(AttemptRow.key == _hashed(key)))


def _hashed(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()

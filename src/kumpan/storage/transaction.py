"""One engine a process, one transaction a use case."""

from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from datetime import datetime

from sqlalchemy.ext.asyncio import AsyncEngine, AsyncSession, async_sessionmaker, create_async_engine

from kumpan.storage.attempts import AttemptStorage
from kumpan.storage.repositories.accounts import AccountRepository
from kumpan.storage.repositories.devices import DeviceRepository
from kumpan.storage.repositories.journal import JournalRepository, StoredEntry
from kumpan.storage.repositories.passkeys import PasskeyRepository
from kumpan.storage.repositories.shares import ShareRepository
from kumpan.storage.repositories.workspace import WorkspaceRepository
from kumpan.storage.row_cache import RowCache


class Transaction:
    """The repositories of one transaction; it commits when the block ends well, else rolls back."""

    def __init__(self, session: AsyncSession, row_cache: RowCache[StoredEntry]) -> None:
        self.journal = JournalRepository(session, row_cache)
        self.workspace = WorkspaceRepository(session)
        self.devices = DeviceRepository(session)
        self.accounts = AccountRepository(session)
        self.shares = ShareRepository(session)
        self.passkeys = PasskeyRepository(session)


class Database:
    """The way to MariaDB: `url` is an SQLAlchemy URL with the asyncmy driver."""

    def __init__(self, url: str) -> None:
        self._engine: AsyncEngine = create_async_engine(
            url, pool_pre_ping=True, pool_recycle=600, isolation_level="READ COMMITTED"
        )
        self._sessions = async_sessionmaker(self._engine, expire_on_commit=False)
        self._row_cache: RowCache[StoredEntry] = RowCache()

    @asynccontextmanager
    async def transaction(self) -> AsyncIterator[Transaction]:
        """One transaction: committed at the end, rolled back after an error."""
        async with self._sessions() as session, session.begin():
            yield Transaction(session, self._row_cache)

    def attempts(self, clock: Callable[[], datetime]) -> AttemptStorage:
        """Where attempts are counted."""
        return AttemptStorage(self._sessions, clock)

    async def close(self) -> None:
        """End all connections."""
        await self._engine.dispose()

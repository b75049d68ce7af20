"""One engine a process, one transaction a use case."""

import asyncio
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from datetime import datetime

from sqlalchemy import text
from sqlalchemy.exc import DBAPIError, InterfaceError, OperationalError, PendingRollbackError, SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from sqlalchemy.ext.asyncio import AsyncEngine, AsyncSession, async_sessionmaker, create_async_engine
from sqlalchemy.pool import QueuePool

from kumpan.core.errors import Collided, Unavailable
from kumpan.core.messages import Message
from kumpan.storage.attempts import AttemptStorage
from kumpan.storage.repositories.accounts import AccountRepository
from kumpan.storage.repositories.devices import DeviceRepository
from kumpan.storage.repositories.imports import ImportRepository
from kumpan.storage.repositories.journal import JournalRepository, StoredEntry
from kumpan.storage.repositories.leases import LeaseRepository
from kumpan.storage.repositories.outgoing import OutgoingRepository
from kumpan.storage.repositories.passkeys import PasskeyRepository
from kumpan.storage.repositories.photos import PhotoRepository
from kumpan.storage.repositories.poured import PouredRepository
from kumpan.storage.repositories.push import PushRepository
from kumpan.storage.repositories.shares import ShareRepository
from kumpan.storage.repositories.summaries import SummaryRepository
from kumpan.storage.repositories.workspace import WorkspaceRepository
from kumpan.storage.row_cache import RowCache


class Transaction:
    """The repositories of one transaction; it commits when the block ends well, else rolls back.

    `shared` is what this process remembers of this database between its transactions.
    """

    def __init__(
        self, session: AsyncSession, row_cache: RowCache[StoredEntry], shared: dict[str, object]
    ) -> None:
        self.shared = shared
        self.journal = JournalRepository(session, row_cache)
        self.workspace = WorkspaceRepository(session)
        self.devices = DeviceRepository(session)
        self.accounts = AccountRepository(session)
        self.shares = ShareRepository(session)
        self.summaries = SummaryRepository(session)
        self.passkeys = PasskeyRepository(session)
        self.leases = LeaseRepository(session)
        self.poured = PouredRepository(session)
        self.imports = ImportRepository(session)
        self.photos = PhotoRepository(session)
        self.outgoing = OutgoingRepository(session)
        self.push = PushRepository(session)
        self._session = session

    async def _has_revision(self) -> bool:
        found = (
            "SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = "
        )
        return bool(await self._session.scalar(text(found + "'alembic_version'")))

    async def revision(self) -> str:
        """The version of the last migration; empty before the first."""
        if not await self._has_revision():
            return ""
        found = await self._session.scalar(text("SELECT version_num FROM alembic_version"))
        return str(found or "")


COLLIDED = (1213, 1205)  # ended in favor of another transaction; waited too long for one
ANSWERS_WITHIN_S, CONNECTS_WITHIN_S, WAITS_WITHIN_S = 1.0, 2, 20
POOL, BUSY = 20, 4
GONE = Message("The database does not answer. Nothing was saved; it is tried again by itself.")
FULL = Message("The disk of the database is full. Nothing was saved; make room, then send it again.")
NO_SOCKET = "does not expose socket"
DISK_FULL = (28, 1021, 1030, 1114)
SOMEBODY_ELSE = Message("Somebody else wrote the same in this moment. Nothing was saved; send it again.")


def unavailable(trouble: DBAPIError) -> Unavailable | None:
    """What a failing database means for who asked; None for a fault of ours."""
    number = trouble.orig.args[0] if trouble.orig is not None and trouble.orig.args else 0
    if number in COLLIDED:
        return Collided(SOMEBODY_ELSE)
    if number in DISK_FULL:
        return Unavailable(FULL)
    gone = trouble.connection_invalidated or isinstance(trouble, OperationalError | InterfaceError)
    return Unavailable(GONE) if gone else None


def is_of_the_database(trouble: BaseException) -> bool:
    """Whether it is the database that failed, not what was read from it: the whole request ends then."""
    return isinstance(trouble, SQLAlchemyError | Unavailable)


class Database:
    """The way to MariaDB: `url` is an SQLAlchemy URL with the asyncmy driver."""

    def __init__(self, url: str) -> None:
        self._engine: AsyncEngine = create_async_engine(
            url,
            pool_pre_ping=True,
            pool_recycle=600,
            pool_size=POOL,
            max_overflow=POOL,
            pool_timeout=WAITS_WITHIN_S,
            isolation_level="READ COMMITTED",
            connect_args={"connect_timeout": CONNECTS_WITHIN_S},
        )
        self._sessions = async_sessionmaker(self._engine, expire_on_commit=False)
        self._row_cache: RowCache[StoredEntry] = RowCache()
        self._shared: dict[str, object] = {}

    @asynccontextmanager
    async def transaction(self) -> AsyncIterator[Transaction]:
        """One transaction: committed at the end, rolled back after an error.

        Raises Unavailable where the database is gone, full, or takes this for another one's turn.
        """
        try:
            async with self._begun() as session:
                yield Transaction(session, self._row_cache, self._shared)
        except DBAPIError as trouble:
            meant = unavailable(trouble)
            if meant is None:
                raise
            raise meant from trouble
        except (PoolTimeout, PendingRollbackError) as trouble:
            raise Unavailable(GONE) from trouble

    @asynccontextmanager
    async def _begun(self) -> AsyncIterator[AsyncSession]:
        """A session whose connection answers: a frozen database is noticed here, before any work."""
        async with self._sessions() as session, session.begin():
            try:
                async with asyncio.timeout(self._patience_s()):
                    await session.connection()
            except (TimeoutError, OSError) as trouble:
                raise Unavailable(GONE) from trouble
            except RuntimeError as trouble:
                # asyncmy, where a proxy takes the connection and closes it at once: no node is behind it.
                if NO_SOCKET not in str(trouble):
                    raise
                raise Unavailable(GONE) from trouble
            yield session

    def _patience_s(self) -> float:
        """How long one waits for a connection: two seconds tell that the server is frozen, unless many
        requests are at work, when it may only be their turn.
        """
        pool = self._engine.pool
        busy = isinstance(pool, QueuePool) and pool.checkedout() > BUSY
        return WAITS_WITHIN_S if busy else CONNECTS_WITHIN_S

    async def revision(self) -> str:
        """The version of the database. Raises Unavailable where it does not answer within a second."""
        try:
            async with asyncio.timeout(ANSWERS_WITHIN_S), self.transaction() as tx:
                return await tx.revision()
        except TimeoutError as trouble:
            raise Unavailable(GONE) from trouble

    def attempts(self, clock: Callable[[], datetime]) -> AttemptStorage:
        """Where attempts are counted."""
        return AttemptStorage(self._sessions, clock)

    async def close(self) -> None:
        """End all connections."""
        await self._engine.dispose()

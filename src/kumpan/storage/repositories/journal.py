"""Named queries on pools and their entries. They flush, they never commit; unique keys decide conflicts."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from functools import reduce
from operator import xor
from typing import Any
from uuid import UUID
from zlib import crc32

from sqlalchemy import ColumnElement, func, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.core.errors import Conflict
from kumpan.core.messages import Message
from kumpan.storage.row_cache import CachedRows, RowCache
from kumpan.storage.tables import EntryRow, PoolRow


@dataclass(frozen=True, kw_only=True)
class StoredEntry:
    """An entry as stored: the body still in its open JSON form, tagged by `kind`."""

    id: UUID
    workspace_id: UUID
    pool_id: UUID | None
    person_id: UUID | None
    kind: str
    at: datetime
    recorded_at: datetime
    supersedes: UUID | None
    body: dict[str, object]


# Named as in StoredEntry: plain rows, since a season has hundreds and none of them is changed.
_COLUMNS = (
    EntryRow.id,
    EntryRow.workspace_id,
    EntryRow.pool_id,
    EntryRow.person_id,
    EntryRow.kind,
    EntryRow.at,
    EntryRow.recorded_at,
    EntryRow.supersedes,
    EntryRow.body,
)


class JournalRepository:
    """The rows of the journal, read and added; none is ever changed."""

    def __init__(self, session: AsyncSession, row_cache: RowCache[StoredEntry]) -> None:
        self._session = session
        self._row_cache = row_cache
        self._wrote = False

    async def pool_ids(self, workspace_id: UUID) -> list[UUID]:
        """The workspace's pools, the oldest first."""
        rows = await self._session.scalars(
            select(PoolRow.id)
            .where(PoolRow.workspace_id == workspace_id)
            .order_by(PoolRow.created_at, PoolRow.id)
        )
        return list(rows)

    async def has_pool(self, workspace_id: UUID, pool_id: UUID) -> bool:
        """Whether the pool is one of the workspace's."""
        found = await self._session.scalar(
            select(PoolRow.id).where(PoolRow.workspace_id == workspace_id, PoolRow.id == pool_id)
        )
        return found is not None

    async def add_pool(self, workspace_id: UUID, pool_id: UUID, at: datetime) -> None:
        """A new pool."""
        self._session.add(PoolRow(id=pool_id, workspace_id=workspace_id, created_at=at))
        await self._session.flush()

    async def entries_of_pool(self, workspace_id: UUID, pool_id: UUID) -> CachedRows[StoredEntry]:
        """In the order in which they happened."""
        where = (EntryRow.workspace_id == workspace_id, EntryRow.pool_id == pool_id)
        return await self._entries(("pool", workspace_id, pool_id), where)

    async def entries_of_workspace(
        self, workspace_id: UUID, kinds: tuple[str, ...]
    ) -> CachedRows[StoredEntry]:
        """Those of some kinds, of all pools and of none, in the order in which they happened."""
        where = (EntryRow.workspace_id == workspace_id, EntryRow.kind.in_(kinds))
        return await self._entries(("workspace", workspace_id, kinds), where)

    async def _entries(
        self, name: tuple[object, ...], where: tuple[ColumnElement[bool], ...]
    ) -> CachedRows[StoredEntry]:
        async def read() -> tuple[StoredEntry, ...]:
            return await self._with_the_new(
                self._row_cache.known(name), tuple(mark), where
            ) or await self._read(where)

        mark = (
            await self._session.execute(
                select(
                    func.count(), func.max(EntryRow.recorded_at), func.bit_xor(func.crc32(EntryRow.id))
                ).where(*where)
            )
        ).one()
        if self._wrote:
            return CachedRows((*name, *mark, "not committed"), await self._read(where))
        return await self._row_cache.get(name, tuple(mark), read)

    async def _read(
        self, where: tuple[ColumnElement[bool], ...], *more: ColumnElement[bool]
    ) -> tuple[StoredEntry, ...]:
        rows = await self._session.execute(
            select(*_COLUMNS).where(*where, *more).order_by(EntryRow.at, EntryRow.recorded_at, EntryRow.id)
        )
        return tuple(StoredEntry(**row._mapping) for row in rows)

    async def _with_the_new(
        self,
        known: CachedRows[StoredEntry] | None,
        mark: tuple[Any, ...],
        where: tuple[ColumnElement[bool], ...],
    ) -> tuple[StoredEntry, ...] | None:
        """What is kept and what was recorded since, where the two together have the fingerprint asked for."""
        if known is None or not known.rows:
            return None
        newest = max(row.recorded_at for row in known.rows)
        new = await self._read(where, EntryRow.recorded_at > newest)
        both = (*known.rows, *new)
        if len(both) != mark[0] or _checksum(both) != mark[2]:
            return None
        return tuple(sorted(both, key=lambda row: (row.at, row.recorded_at, str(row.id))))

    async def entry(self, workspace_id: UUID, entry_id: UUID) -> StoredEntry | None:
        """One entry, if it is one of the workspace's."""
        row = await self._session.get(EntryRow, entry_id)
        return _stored(row) if row is not None and row.workspace_id == workspace_id else None

    async def add_entry(self, entry: StoredEntry) -> None:
        """Raises Conflict when the id is taken or the superseded entry was already replaced."""
        self._wrote = True
        self._session.add(
            EntryRow(
                id=entry.id,
                workspace_id=entry.workspace_id,
                pool_id=entry.pool_id,
                person_id=entry.person_id,
                kind=entry.kind,
                at=entry.at,
                recorded_at=entry.recorded_at,
                supersedes=entry.supersedes,
                body=entry.body,
            )
        )
        try:
            await self._session.flush()
        except IntegrityError as trouble:
            raise Conflict(
                Message("This was changed or saved by someone else meanwhile; reload and look again.")
            ) from trouble


def _checksum(rows: Iterable[StoredEntry]) -> int:
    """As the database reckons it: the ids' CRC-32, all of them by exclusive or."""
    return reduce(xor, (crc32(str(row.id).encode()) for row in rows), 0)


def _stored(row: EntryRow) -> StoredEntry:
    return StoredEntry(
        id=row.id,
        workspace_id=row.workspace_id,
        pool_id=row.pool_id,
        person_id=row.person_id,
        kind=row.kind,
        at=row.at,
        recorded_at=row.recorded_at,
        supersedes=row.supersedes,
        body=row.body,
    )

"""Named queries on pools and their entries. They flush, they never commit; unique keys decide conflicts."""

import json
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from functools import reduce
from operator import xor
from typing import Any
from uuid import UUID
from zlib import crc32

from sqlalchemy import ColumnElement, Text, delete, func, insert, or_, select, type_coerce, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.core.errors import Conflict
from kumpan.core.messages import Message
from kumpan.storage.row_cache import CachedRows, RowCache
from kumpan.storage.tables import (
    DeviceReadingRow,
    EntryRow,
    PoolGivenRow,
    PoolRow,
    PoolShareRow,
    SecretLinkRow,
)

AT_ONCE = 500  # rows in one statement


@dataclass(frozen=True, kw_only=True)
class StoredEntry:
    """An entry as stored: the body still as JSON text, tagged by `kind`. Thousands are held, read once each:
    as text they take a sixth of the room. `written_in` names the workspace for one that came with a file.
    """

    id: UUID
    workspace_id: UUID
    pool_id: UUID | None
    person_id: UUID | None
    kind: str
    at: datetime
    recorded_at: datetime
    supersedes: UUID | None
    text: str
    written_in: str | None = None

    @property
    def body(self) -> dict[str, object]:
        """The body in its open form."""
        body: dict[str, object] = json.loads(self.text)
        return body


@dataclass(frozen=True)
class StoredPool:
    """A pool as a row: whose it is, and since when it is archived."""

    id: UUID
    workspace_id: UUID
    archived_at: datetime | None


def works_on(workspace_id: UUID) -> ColumnElement[bool]:
    """The pools of a workspace and those shared with it, as a condition."""
    shared = select(PoolShareRow.pool_id).where(
        PoolShareRow.workspace_id == workspace_id, PoolShareRow.ended_at.is_(None)
    )
    return or_(PoolRow.workspace_id == workspace_id, PoolRow.id.in_(shared))


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
    EntryRow.written_in,
    type_coerce(EntryRow.body, Text).label("text"),
)


class JournalRepository:
    """The rows of the journal, read and added; none is ever changed."""

    def __init__(self, session: AsyncSession, row_cache: RowCache[StoredEntry]) -> None:
        self._session = session
        self._row_cache = row_cache
        self._wrote = False
        self._written_to: set[UUID] = set()
        self._times_marked: dict[UUID, int] = {}

    async def pools(self, workspace_id: UUID, *, archived: bool = False) -> list[StoredPool]:
        """The pools that a workspace works on, the oldest first: its own, and those shared with it."""
        when = PoolRow.archived_at.is_not(None) if archived else PoolRow.archived_at.is_(None)
        rows = await self._session.execute(
            select(PoolRow.id, PoolRow.workspace_id, PoolRow.archived_at)
            .where(works_on(workspace_id), when)
            .order_by(PoolRow.created_at, PoolRow.id)
        )
        return [StoredPool(*row) for row in rows]

    async def pools_with(self, workspace_id: UUID, kind: str) -> list[UUID]:
        """The workspace's own pools in whose journal an entry of a kind stands, whoever wrote it there."""
        own = PoolRow.workspace_id == workspace_id
        guests = (
            select(PoolShareRow.workspace_id).join(PoolRow, PoolRow.id == PoolShareRow.pool_id).where(own)
        )
        writers = [workspace_id, *await self._session.scalars(guests.distinct())]
        return list(
            await self._session.scalars(
                select(EntryRow.pool_id)
                .join(PoolRow, PoolRow.id == EntryRow.pool_id)
                .where(EntryRow.workspace_id.in_(writers), EntryRow.kind == kind, own)
                .where(PoolRow.archived_at.is_(None))
                .distinct()
            )
        )

    async def pool(self, workspace_id: UUID, pool_id: UUID) -> StoredPool | None:
        """A pool that the workspace has or that is shared with it; None for any other."""
        where = (works_on(workspace_id), PoolRow.id == pool_id)
        wanted = select(PoolRow.id, PoolRow.workspace_id, PoolRow.archived_at).where(*where)
        row = (await self._session.execute(wanted)).first()
        return None if row is None else StoredPool(*row)

    async def one_writer(self, pool_id: UUID) -> None:
        """Whoever else writes to this pool waits until this transaction ends, and then reads what it wrote.

        The row is changed, not only locked: on a cluster another node's writer is then refused as well.
        """
        self._written_to.add(pool_id)
        self._times_marked[pool_id] = self._times_marked.get(pool_id, 0) + 1
        await self._session.execute(
            update(PoolRow).where(PoolRow.id == pool_id).values(writes=PoolRow.writes + 1)
        )

    async def archive(self, pool_id: UUID, at: datetime | None) -> None:
        """Archived since `at`, or no longer."""
        await self._session.execute(update(PoolRow).where(PoolRow.id == pool_id).values(archived_at=at))

    async def delete_pool(self, pool_id: UUID, remaining: set[UUID]) -> None:
        """The pool and its journal are gone; the entries named stay, of no pool: the shelf counts them."""
        # An entry may replace another one of the same pool: none refers to any before they go.
        await self._session.execute(
            update(EntryRow).where(EntryRow.pool_id == pool_id).values(supersedes=None)
        )
        await self._session.execute(update(EntryRow).where(EntryRow.id.in_(remaining)).values(pool_id=None))
        for table in (EntryRow, DeviceReadingRow, PoolGivenRow, SecretLinkRow, PoolShareRow):
            await self._session.execute(delete(table).where(table.pool_id == pool_id))
        await self._session.execute(delete(PoolRow).where(PoolRow.id == pool_id))
        self._wrote = True

    async def add_pool(self, workspace_id: UUID, pool_id: UUID, at: datetime) -> None:
        """A new pool."""
        self._session.add(PoolRow(id=pool_id, workspace_id=workspace_id, created_at=at))
        await self._session.flush()

    async def entries_of_pool(self, pool_id: UUID) -> CachedRows[StoredEntry]:
        """Whoever wrote them, in the order in which they happened; ask `pool` first whether one may."""
        name, where = ("pool", pool_id), (EntryRow.pool_id == pool_id,)
        if self._wrote:
            return await self._uncommitted(name, where)

        fresh = False  # whether the rows were read from the database

        async def read() -> tuple[StoredEntry, ...]:
            nonlocal fresh
            fresh, known = True, self._row_cache.known(name)
            both = None if known is None else await self._with_the_new(known, await self._mark(where), where)
            return both or await self._read(where)

        # Every write to a pool counts its row on: one number tells whether anything was entered.
        while True:
            fresh = False
            writes = await self._writes(pool_id)
            found = await self._row_cache.get(name, (writes,), read)
            if not fresh or await self._writes(pool_id) == writes:
                return found
            self._row_cache.forget(name)  # somebody wrote while it was read

    async def _writes(self, pool_id: UUID) -> int:
        """How often a pool was written, without this transaction: it has entered nothing yet."""
        found = await self._session.scalar(select(PoolRow.writes).where(PoolRow.id == pool_id))
        return (found or 0) - self._times_marked.get(pool_id, 0)

    async def entries_of_workspace(
        self, workspace_id: UUID, kinds: tuple[str, ...]
    ) -> CachedRows[StoredEntry]:
        """Those of some kinds, of all pools and of none, in the order in which they happened."""
        where = (EntryRow.workspace_id == workspace_id, EntryRow.kind.in_(kinds))
        return await self._entries(("workspace", workspace_id, kinds), where)

    async def entries_of_no_pool(self, workspace_id: UUID) -> tuple[StoredEntry, ...]:
        """Those of the shelf, the rounds and the house, in the order in which they happened; read anew."""
        return await self._read((EntryRow.workspace_id == workspace_id, EntryRow.pool_id.is_(None)))

    async def entries_since(
        self, workspace_id: UUID, kinds: tuple[str, ...], at: datetime
    ) -> tuple[StoredEntry, ...]:
        """Those of some kinds since a time, of all pools, in their order; read anew each time."""
        where = (EntryRow.workspace_id == workspace_id, EntryRow.kind.in_(kinds), EntryRow.at >= at)
        return await self._read(where)

    async def _entries(
        self, name: tuple[object, ...], where: tuple[ColumnElement[bool], ...]
    ) -> CachedRows[StoredEntry]:
        async def read() -> tuple[StoredEntry, ...]:
            return await self._with_the_new(self._row_cache.known(name), mark, where) or await self._read(
                where
            )

        if self._wrote:
            return await self._uncommitted(name, where)
        mark = await self._mark(where)
        return await self._row_cache.get(name, mark, read)

    async def _mark(self, where: tuple[ColumnElement[bool], ...]) -> tuple[Any, ...]:
        """What tells these rows from any others: how many, the newest, and a checksum of their ids."""
        marks = func.count(), func.max(EntryRow.recorded_at), func.bit_xor(func.crc32(EntryRow.id))
        return tuple((await self._session.execute(select(*marks).where(*where))).one())

    async def _uncommitted(
        self, name: tuple[object, ...], where: tuple[ColumnElement[bool], ...]
    ) -> CachedRows[StoredEntry]:
        """As this transaction sees them, past the cache."""
        return CachedRows((*name, *await self._mark(where), "not committed"), await self._read(where))

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

    async def entry(self, entry_id: UUID) -> StoredEntry | None:
        """One entry, of whatever workspace: who asks sees to it that it may be seen."""
        row = await self._session.get(EntryRow, entry_id)
        return None if row is None else _stored(row)

    async def add_entries(self, entries: Iterable[StoredEntry]) -> None:
        """Many at once, what is replaced before what replaces it. Raises Conflict as `add_entry` does."""
        self._wrote = True
        values = [{**vars(entry), "body": entry.body} for entry in entries]
        for row in values:
            del row["text"]
        try:
            for begin in range(0, len(values), AT_ONCE):
                await self._session.execute(insert(EntryRow), values[begin : begin + AT_ONCE])
        except IntegrityError as trouble:
            raise Conflict(
                Message("This was changed or saved by someone else meanwhile; reload and look again.")
            ) from trouble

    async def of_pools_since(self, pool_ids: Iterable[UUID], kind: str, at: datetime) -> list[StoredEntry]:
        """Entries of a kind at some pools since a time that nothing has replaced, whoever wrote them."""
        wanted = list(pool_ids)
        found: list[StoredEntry] = []
        later = EntryRow.__table__.alias("later")
        replaced = select(later.c.id).where(later.c.supersedes == EntryRow.id).exists()
        for begin in range(0, len(wanted), AT_ONCE):
            some = EntryRow.pool_id.in_(wanted[begin : begin + AT_ONCE])
            found += await self._read((some, EntryRow.kind == kind, EntryRow.at >= at, ~replaced))
        return found

    async def open_entries(self, ids: Iterable[UUID]) -> list[StoredEntry]:
        """Those of some entries that nothing has replaced."""
        wanted = list(ids)
        found: list[StoredEntry] = []
        later = EntryRow.__table__.alias("later")
        for begin in range(0, len(wanted), AT_ONCE):
            some = EntryRow.id.in_(wanted[begin : begin + AT_ONCE])
            replaced = select(later.c.id).where(later.c.supersedes == EntryRow.id).exists()
            found += await self._read((some, ~replaced))
        return found

    async def set_ups(self, workspace_id: UUID) -> dict[UUID, dict[str, object]]:
        """The settings of each pool that a workspace works on, as stored last; no archived one."""
        rows = await self._session.execute(
            select(EntryRow.pool_id, EntryRow.body)
            .join(PoolRow, PoolRow.id == EntryRow.pool_id)
            .where(EntryRow.kind == "settings", works_on(workspace_id), PoolRow.archived_at.is_(None))
            .order_by(EntryRow.at, EntryRow.recorded_at)
        )
        return {row[0]: row[1] for row in rows if row[0] is not None}

    async def whose(self, pool_id: UUID) -> UUID | None:
        """The workspace that a pool belongs to, whoever asks; None where there is no such pool."""
        found: UUID | None = await self._session.scalar(
            select(PoolRow.workspace_id).where(PoolRow.id == pool_id)
        )
        return found

    async def taken_ids(self, ids: Iterable[UUID]) -> dict[UUID, UUID | None]:
        """Those of some entries' ids that stand for an entry already, with its pool."""
        wanted = list(ids)
        found: dict[UUID, UUID | None] = {}
        for begin in range(0, len(wanted), AT_ONCE):
            where = EntryRow.id.in_(wanted[begin : begin + AT_ONCE])
            rows = await self._session.execute(select(EntryRow.id, EntryRow.pool_id).where(where))
            found |= {row[0]: row[1] for row in rows}
        return found

    async def add_entry(self, entry: StoredEntry) -> None:
        """Raises Conflict when the id is taken or the superseded entry was already replaced."""
        self._wrote = True
        if entry.pool_id is not None and entry.pool_id not in self._written_to:
            await self.one_writer(entry.pool_id)  # what is kept of a pool elsewhere is now out of date
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
        text=json.dumps(row.body),
        written_in=row.written_in,
    )

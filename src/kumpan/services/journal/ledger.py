"""Reading and writing the journal: stored rows on one side, the core's entries on the other."""

from dataclasses import KW_ONLY, dataclass, field
from datetime import datetime
from typing import TypeVar, cast
from uuid import UUID

from kumpan.core.errors import Conflict, InvalidInput, NotFound
from kumpan.core.journal import Body, Entry, PoolState, Voided, effective, fold, kind_of
from kumpan.core.messages import Message, Verbatim
from kumpan.services.cache import remembered
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.row_cache import CachedRows
from kumpan.storage.transaction import Transaction
from kumpan.storage.wire.kinds import read_body, write_body

B = TypeVar("B", bound=Body)
FUTURE_ALLOWED_MIN = 10
NO_SUCH_POOL = Message("There is no such pool here; go back to the list of pools.")
NO_SUCH_ENTRY = Message("There is no such entry here; reload the log.")


@dataclass(frozen=True)
class Stamp:
    """Who tells, when it happened, and the id that the client chose."""

    id: UUID
    at: datetime
    person_id: UUID | None


@dataclass(frozen=True)
class Scope:
    """Where a use case runs: one transaction, one workspace, one moment, and who acts there.

    `person_id` is who acts, None for the program itself. `pools` are the only ones that this person may see,
    None for all of the workspace. `for_others`: may enter what somebody else did.
    """

    tx: Transaction
    workspace_id: UUID
    now: datetime
    _: KW_ONLY
    person_id: UUID | None = None
    pools: frozenset[UUID] | None = None
    for_others: bool = True
    address: str = ""
    cached: dict[str, object] = field(default_factory=dict, compare=False)  # read once a request


@remembered(most=20_000, key=lambda stored: (stored.id, stored.recorded_at))
def to_entry(stored: StoredEntry) -> Entry:
    """A season is read at every request; its bodies are parsed once."""
    return Entry(
        id=stored.id,
        pool_id=stored.pool_id,
        at=stored.at,
        recorded_at=stored.recorded_at,
        person_id=stored.person_id,
        body=read_body(stored.kind, stored.body),
        supersedes=stored.supersedes,
    )


@remembered(most=512)
def entries_in(cached: CachedRows[StoredEntry]) -> tuple[Entry, ...]:
    """Stored rows as entries, once for each set of rows."""
    return tuple(to_entry(row) for row in cached.rows)


@remembered(most=512)
def _folded(cached: CachedRows[StoredEntry]) -> PoolState:
    return fold(entries_in(cached))


def may_see(scope: Scope, pool_id: UUID) -> bool:
    """Whether a pool is one of those that who acts may see; the database says whether it is here at all."""
    return scope.pools is None or pool_id in scope.pools


async def pool_ids(scope: Scope) -> list[UUID]:
    """The pools of the workspace that who acts may see, the oldest first."""
    found = await scope.tx.journal.pool_ids(scope.workspace_id)
    return [pool_id for pool_id in found if may_see(scope, pool_id)]


async def require_pool(scope: Scope, pool_id: UUID) -> None:
    """Raises NotFound for a pool that is not here, or not for who acts."""
    if not may_see(scope, pool_id) or not await scope.tx.journal.has_pool(scope.workspace_id, pool_id):
        raise NotFound(NO_SUCH_POOL)


async def entry_row(scope: Scope, entry_id: UUID) -> StoredEntry:
    """One entry of a pool that who acts may see. Raises NotFound."""
    found = await scope.tx.journal.entry(scope.workspace_id, entry_id)
    if found is None or (found.pool_id is not None and not may_see(scope, found.pool_id)):
        raise NotFound(NO_SUCH_ENTRY)
    return found


async def _author(scope: Scope, stamp: Stamp) -> UUID | None:
    """Who did it: the one who acts, or whom the office names; an unknown name refuses nothing."""
    named = stamp.person_id
    if scope.person_id is None or named == scope.person_id:
        return named
    if named is not None and scope.for_others:
        known = await scope.tx.workspace.person(scope.workspace_id, named)
        return scope.person_id if known is None else named
    return scope.person_id


async def _cached(scope: Scope, pool_id: UUID) -> CachedRows[StoredEntry]:
    if not may_see(scope, pool_id):
        raise NotFound(NO_SUCH_POOL)
    cached = await scope.tx.journal.entries_of_pool(scope.workspace_id, pool_id)
    if not cached.rows and not await scope.tx.journal.has_pool(scope.workspace_id, pool_id):
        raise NotFound(NO_SUCH_POOL)
    return cached


async def pool_entries(scope: Scope, pool_id: UUID) -> list[Entry]:
    """All entries of a pool, superseded ones included. Raises NotFound for a pool that is not here."""
    return list(entries_in(await _cached(scope, pool_id)))


async def pool_state(scope: Scope, pool_id: UUID) -> PoolState:
    """The pool as it stands now. Raises NotFound for a pool that is not here."""
    cached = await _cached(scope, pool_id)
    entries = entries_in(cached)
    if entries and max(entry.at for entry in entries) > scope.now:
        return fold(entries, scope.now)
    return _folded(cached)


async def record(
    scope: Scope, pool_id: UUID | None, stamp: Stamp, body: B, supersedes: UUID | None = None
) -> Entry[B]:
    """Save one entry. The same id with the same content again is answered, not doubled.

    Raises Conflict when the id stands for something else, InvalidInput for a time in the future.
    """
    if (stamp.at - scope.now).total_seconds() > FUTURE_ALLOWED_MIN * 60:
        raise InvalidInput(Message("This time lies in the future; check date and hour."), "at")
    if pool_id is not None:
        await require_pool(scope, pool_id)
    data = write_body(body)
    known = await scope.tx.journal.entry(scope.workspace_id, stamp.id)
    if known is not None:
        same = known.body == data and known.pool_id == pool_id and known.supersedes == supersedes
        if not same:
            raise Conflict(
                Message("This id already stands for another entry; reload and enter it again."), "id"
            )
        return cast("Entry[B]", to_entry(known))
    stored = StoredEntry(
        id=stamp.id,
        workspace_id=scope.workspace_id,
        pool_id=pool_id,
        person_id=await _author(scope, stamp),
        kind=kind_of(body),
        at=stamp.at,
        recorded_at=scope.now,
        supersedes=supersedes,
        body=data,
    )
    await scope.tx.journal.add_entry(stored)
    return cast("Entry[B]", to_entry(stored))


async def correct(scope: Scope, entry_id: UUID, stamp: Stamp, body: Body) -> Entry:
    """Replace an entry by another of the same kind; the old one stays visible in the log."""
    old = await _replaceable(scope, entry_id, stamp.id)
    if old.kind != kind_of(body):
        raise InvalidInput(
            Message("A {kind} is corrected by a {kind}, not by something else.", kind=Verbatim(old.kind)),
            "body",
        )
    return await record(scope, old.pool_id, stamp=stamp, body=body, supersedes=entry_id)


async def void(scope: Scope, entry_id: UUID, stamp: Stamp, reason: str) -> Entry:
    """Take an entry back; it stays visible in the log as taken back."""
    old = await _replaceable(scope, entry_id, stamp.id)
    return await record(scope, old.pool_id, stamp=stamp, body=Voided(reason), supersedes=entry_id)


async def _replaceable(scope: Scope, entry_id: UUID, by: UUID) -> StoredEntry:
    old = await entry_row(scope, entry_id)
    if old.kind == kind_of(Voided()):
        raise InvalidInput(Message("What was taken back stays taken back; enter it again instead."), "id")
    if old.pool_id is not None:
        entries = await pool_entries(scope, old.pool_id)
        counted = {entry.id for entry in effective(entries)}
        replaced_by = next((entry for entry in entries if entry.supersedes == entry_id), None)
        if entry_id not in counted and (replaced_by is None or replaced_by.id != by):
            raise Conflict(Message("This entry was already corrected or taken back; reload the log."))
    return old

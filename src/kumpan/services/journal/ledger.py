"""Reading and writing the journal: stored rows on one side, the core's entries on the other."""

import json
from dataclasses import KW_ONLY, dataclass, field, replace
from datetime import datetime, timedelta
from typing import TypeVar, cast
from uuid import UUID, uuid5

from kumpan.core.errors import Conflict, InvalidInput, NotFound, NotPermitted
from kumpan.core.journal import (
    AdditionMade,
    Body,
    Entry,
    PoolState,
    Voided,
    effective,
    fold,
    for_others,
    kind_of,
)
from kumpan.core.messages import Message, Verbatim
from kumpan.services.cache import remembered
from kumpan.storage.repositories.journal import StoredEntry, StoredPool
from kumpan.storage.repositories.poured import Pour
from kumpan.storage.row_cache import CachedRows
from kumpan.storage.transaction import Transaction
from kumpan.storage.wire.kinds import read_body, write_body

B = TypeVar("B", bound=Body)
FUTURE_ALLOWED_MIN = 10
STOCK_KINDS = (
    "purchase",
    "placed",
    "counted",
    "strength",
    "habits",
    "void",
)  # of no pool: what every plan is made with
NO_SUCH_POOL = Message("There is no such pool here; go back to the list of pools.")
NO_SUCH_ENTRY = Message("There is no such entry here; reload the log.")
SET_UP = ("settings", "basin", "equipment")  # the first of each makes a pool what it is
ARCHIVED = Message("This pool is archived and only read; take it out of the archive to write in it.")


@dataclass(frozen=True)
class Stamp:
    """Who tells, when it happened, and the id that the client chose; `named` where the time was told too."""

    id: UUID
    at: datetime
    person_id: UUID | None
    named: bool = False


@dataclass(frozen=True)
class Scope:
    """Where a use case runs: one transaction, one workspace, one moment, and who acts there.

    `person_id` is who acts, None for the program itself. `pools` are the only ones that this person may see,
    None for all of the workspace. `for_others`: may enter what somebody else did. `staff`: reads what is
    internal to the workspace, costs and notes; its customers and guests do not.
    """

    tx: Transaction
    workspace_id: UUID
    now: datetime
    _: KW_ONLY
    person_id: UUID | None = None
    pools: frozenset[UUID] | None = None
    for_others: bool = True
    staff: bool = True
    address: str = ""
    cached: dict[str, object] = field(default_factory=dict, compare=False)  # read once a request


@remembered(most=15_000, key=lambda stored: (stored.id, stored.recorded_at))
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


@remembered(most=16)
def entries_in(cached: CachedRows[StoredEntry]) -> tuple[Entry, ...]:
    """Stored rows as entries, once for each set of rows."""
    return tuple(to_entry(row) for row in cached.rows)


@remembered(most=16)
def _written_in(cached: CachedRows[StoredEntry]) -> frozenset[UUID]:
    return frozenset(row.workspace_id for row in cached.rows)


@remembered(most=16)
def _without_internal(cached: CachedRows[StoredEntry], own: UUID | None) -> tuple[Entry, ...]:
    """What is internal is left out but where the workspace `own` wrote it."""
    both = zip(cached.rows, entries_in(cached), strict=True)
    return tuple(e if row.workspace_id == own else replace(e, body=for_others(e.body)) for row, e in both)


@dataclass(frozen=True)
class ReadEntries:
    """Entries as one kind of reader sees them; equal where the rows and the reader are."""

    rows: CachedRows[StoredEntry]
    own: UUID | None
    entries: tuple[Entry, ...] = field(compare=False)


@remembered(most=20)
def _folded(reading: ReadEntries) -> PoolState:
    return fold(reading.entries)


def _read_by(scope: Scope, cached: CachedRows[StoredEntry]) -> ReadEntries:
    """The entries as who asks may read them."""
    if scope.staff and _written_in(cached) <= {scope.workspace_id}:
        return ReadEntries(cached, scope.workspace_id, entries_in(cached))
    own = scope.workspace_id if scope.staff else None
    return ReadEntries(cached, own, _without_internal(cached, own))


def may_see(scope: Scope, pool_id: UUID) -> bool:
    """Whether a pool is one of those that who acts may see; the database says whether it is here at all."""
    return scope.pools is None or pool_id in scope.pools


async def pools_of(scope: Scope) -> list[StoredPool]:
    """The pools that the workspace works on and who acts may see, the oldest first; none that is archived."""
    found = await scope.tx.journal.pools(scope.workspace_id)
    known = _known_pools(scope)
    known.update({pool.id: pool for pool in found})
    return [pool for pool in found if may_see(scope, pool.id)]


async def pool_ids(scope: Scope) -> list[UUID]:
    """The same by their ids."""
    return [pool.id for pool in await pools_of(scope)]


async def require_pool(scope: Scope, pool_id: UUID) -> StoredPool:
    """Raises NotFound for a pool that the workspace does not work on, or that is not for who acts."""
    known = _known_pools(scope)
    if may_see(scope, pool_id) and pool_id not in known:
        known[pool_id] = await scope.tx.journal.pool(scope.workspace_id, pool_id)
    found = known.get(pool_id)
    if found is None or not may_see(scope, pool_id):
        raise NotFound(NO_SUCH_POOL)
    return found


async def require_person(scope: Scope, person_id: UUID, field: str = "technician_id") -> None:
    """Raises InvalidInput for somebody who is not of this workspace."""
    if await scope.tx.workspace.person(scope.workspace_id, person_id) is None:
        raise InvalidInput(Message("There is no such person here; choose one of the list."), field)


async def own_pool(scope: Scope, pool_id: UUID) -> StoredPool:
    """A pool that the workspace decides about. Raises NotFound, and NotPermitted for one of others."""
    pool = await require_pool(scope, pool_id)
    if pool.workspace_id != scope.workspace_id:
        theirs = await scope.tx.shares.workspace_name(pool.workspace_id)
        raise NotPermitted(
            Message("This pool is shared with you; {home} decides about it.", home=Verbatim(theirs))
        )
    return pool


def forget_pools(scope: Scope) -> None:
    """A pool was made, archived, shared or deleted: ask the database again."""
    _known_pools(scope).clear()


def _known_pools(scope: Scope) -> dict[UUID, StoredPool | None]:
    known = scope.cached.setdefault("pools", {})
    return cast("dict[UUID, StoredPool | None]", known)


async def entry_row(scope: Scope, entry_id: UUID) -> StoredEntry:
    """One entry of a pool that who acts may see, to be changed.

    Raises NotFound, and NotPermitted for one that another workspace wrote in a pool that both work on.
    """
    found = await scope.tx.journal.entry(entry_id)
    if found is None or (found.pool_id is None and found.workspace_id != scope.workspace_id):
        raise NotFound(NO_SUCH_ENTRY)
    if found.pool_id is not None:
        try:
            await require_pool(scope, found.pool_id)
        except NotFound as trouble:
            raise NotFound(NO_SUCH_ENTRY) from trouble
    if found.workspace_id != scope.workspace_id:
        theirs = await scope.tx.shares.workspace_name(found.workspace_id)
        raise NotPermitted(
            Message(
                "{others} wrote this; ask them to correct it, or enter what is right beside it.",
                others=Verbatim(theirs),
            )
        )
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
    await require_pool(scope, pool_id)
    return await scope.tx.journal.entries_of_pool(pool_id)


async def pool_entries(scope: Scope, pool_id: UUID) -> list[Entry]:
    """All entries of a pool, superseded ones included. Raises NotFound for a pool that is not here."""
    return list(_read_by(scope, await _cached(scope, pool_id)).entries)


async def time_of_turn(scope: Scope, pool_id: UUID | None, clock: datetime) -> datetime:
    """The time at which a writer works: that of its turn, not of when it began to wait, and never before what
    was written to the pool last. Else it would not see that a step was ticked a moment ago, by a request that
    came in later or by a machine whose clock is ahead.
    """
    if pool_id is None:
        return clock
    rows = (await scope.tx.journal.entries_of_pool(pool_id)).rows
    last = max((row.recorded_at for row in rows), default=clock)
    return last if clock < last <= clock + timedelta(minutes=FUTURE_ALLOWED_MIN) else clock


async def pool_rows(scope: Scope, pool_id: UUID) -> tuple[StoredEntry, ...]:
    """The same as stored, with the workspace in which each was written. Raises NotFound."""
    return (await _cached(scope, pool_id)).rows


async def pool_state(scope: Scope, pool_id: UUID) -> PoolState:
    """The pool as it stands now. Raises NotFound for a pool that is not here."""
    cached = await _cached(scope, pool_id)
    reading = _read_by(scope, cached)
    if reading.entries and max(entry.at for entry in reading.entries) > scope.now:
        return fold(reading.entries, scope.now)
    return _folded(reading)


async def record(
    scope: Scope, pool_id: UUID | None, stamp: Stamp, body: B, supersedes: UUID | None = None
) -> Entry[B]:
    """Save one entry. The same id with the same content again is answered, not doubled.

    Raises Conflict when the id stands for something else, InvalidInput for a time in the future.
    """
    if (stamp.at - scope.now).total_seconds() > FUTURE_ALLOWED_MIN * 60:
        raise InvalidInput(Message("This time lies in the future; check date and hour."), "at")
    if pool_id is not None and (await require_pool(scope, pool_id)).archived_at is not None:
        raise Conflict(ARCHIVED)
    data = write_body(body)
    known = await scope.tx.journal.entry(stamp.id)
    if known is not None:
        same = known.body == data and known.pool_id == pool_id and known.supersedes == supersedes
        same = same and known.workspace_id == scope.workspace_id
        # What waited on a device is sent again with that device's own time for it; no clock is that far off.
        same = same and not (stamp.named and abs(known.at - stamp.at) > timedelta(minutes=FUTURE_ALLOWED_MIN))
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
        text=json.dumps(data),
    )
    await scope.tx.journal.add_entry(stored)
    await _keep_the_books(scope, stored, body)
    await _tell_others(scope, stored)
    return cast("Entry[B]", to_entry(stored))


async def _tell_others(scope: Scope, stored: StoredEntry) -> None:
    """Programs that are told of entries: queued with the entry, in its own transaction."""
    for hook in await scope.tx.outgoing.hooks(scope.workspace_id):
        about = {
            "event": "entry",
            "id": str(stored.id),
            "kind": stored.kind,
            "pool": None if stored.pool_id is None else str(stored.pool_id),
            "at": stored.at.isoformat(),
            "supersedes": None if stored.supersedes is None else str(stored.supersedes),
        }
        await scope.tx.outgoing.call(uuid5(hook.id, str(stored.id)), hook.id, json.dumps(about), scope.now)


async def _keep_the_books(scope: Scope, stored: StoredEntry, body: Body) -> None:
    """What follows from an entry for the stock and for stored summaries, in its own transaction."""
    if stored.pool_id is None and stored.kind in STOCK_KINDS:
        await scope.tx.workspace.stock_changed(scope.workspace_id)
    if stored.supersedes is not None:
        await scope.tx.poured.take_back(stored.supersedes)
    if isinstance(body, AdditionMade) and body.product_id and stored.pool_id is not None:
        await scope.tx.poured.add(
            Pour(
                entry_id=stored.id,
                workspace_id=stored.workspace_id,
                pool_id=stored.pool_id,
                person_id=stored.person_id,
                product_id=body.product_id,
                at=stored.at,
                mass_g=body.mass_g,
            )
        )


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
    """Take an entry back, and the water that went with it; both stay visible in the log as taken back.

    Raises InvalidInput for a set-up: a pool without one cannot be read.
    """
    old = await _replaceable(scope, entry_id, stamp.id)
    if old.kind in SET_UP:
        raise InvalidInput(Message("A pool's set-up is changed on its own page, not taken back."), "id")
    found = await record(scope, old.pool_id, stamp=stamp, body=Voided(reason), supersedes=entry_id)
    water = await scope.tx.journal.entry(water_of(entry_id))
    if water is not None and water.pool_id is not None:
        counted = {entry.id for entry in effective(await pool_entries(scope, water.pool_id))}
        if water.id in counted:
            of_it = replace(stamp, id=water_of(stamp.id))
            await record(scope, water.pool_id, of_it, Voided(reason), supersedes=water.id)
    return found


def water_of(entry_id: UUID) -> UUID:
    """The id of the water that an entry of care sent to waste: what takes one back takes the other."""
    return uuid5(entry_id, "water")


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

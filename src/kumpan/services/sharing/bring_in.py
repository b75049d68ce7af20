"""A pool's journal from its open file: into an instance without it, or joined to what stands there."""

import asyncio
import json
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from graphlib import CycleError, TopologicalSorter
from uuid import UUID

from kumpan.core.errors import Conflict, InvalidInput
from kumpan.core.journal import AdditionMade
from kumpan.core.messages import Message, Verbatim
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, read_journal
from kumpan.services.journal.ledger import (
    ARCHIVED,
    FUTURE_ALLOWED_MIN,
    Scope,
    forget_pools,
    own_pool,
    pool_rows,
    to_entry,
)
from kumpan.services.people.audit import audited
from kumpan.services.people.commands import by_names
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.repositories.poured import Pour

FIRST_DAY = datetime(1990, 1, 1, tzinfo=UTC)  # as for whatever is entered by hand
MOST_ENTRIES = 200_000


@dataclass(frozen=True)
class BroughtIn:
    """Which pool, and how many entries are new here or stood here before."""

    pool_id: UUID
    name: str
    added: int
    known: int


async def bring_in(scope: Scope, content: bytes, pool_id: UUID | None = None) -> BroughtIn:
    """All of a file or nothing. The same file again adds nothing; `pool_id`, where named, must be the file's.

    Ids, times and who did what stay as they are in the file. Who is not known here by name is added as
    somebody who has left. Raises InvalidInput for a file that cannot be read whole, Conflict where an id
    stands for something else here.
    """
    header, lines = await asyncio.to_thread(read_journal, content)
    if pool_id is not None and header.pool_id != pool_id:
        raise InvalidInput(
            Message("journal: is of another pool; bring it in under the id in its first line."), "journal"
        )
    _check_times(scope.now, lines)
    await _the_pool(scope, header)
    known = {row.id: row for row in await pool_rows(scope, header.pool_id)}
    new = [line for line in lines if line.id not in known]
    await _check_the_known(scope, [line for line in lines if line.id in known], known)
    _check_new(new, known)
    if any(
        place != header.pool_id
        for place in (await scope.tx.journal.taken_ids(line.id for line in new)).values()
    ):
        raise Conflict(
            Message("journal: an entry of it stands in another pool here; nothing was brought in.")
        )
    rows = await written(scope, header.pool_id, new)
    await scope.tx.journal.add_entries(rows)
    await _keep_the_books(scope, header.pool_id, rows, known)
    forget_pools(scope)
    await audited(scope, scope.person_id, "journal_in", pool=str(header.pool_id), entries=len(rows))
    return BroughtIn(header.pool_id, header.name, len(rows), len(lines) - len(rows))


def _check_times(now: datetime, lines: list[JournalLine]) -> None:
    if len(lines) > MOST_ENTRIES:
        raise InvalidInput(
            Message(
                "journal: has over {most} entries; nothing was brought in.", most=Verbatim(str(MOST_ENTRIES))
            ),
            "journal",
        )
    latest = now + timedelta(minutes=FUTURE_ALLOWED_MIN)
    for line in lines:
        if not FIRST_DAY <= line.at <= latest or not FIRST_DAY <= line.recorded_at <= latest:
            raise InvalidInput(
                Message(
                    "journal: entry {id} lies before 1990 or in the future; check the clock of this machine.",
                    id=Verbatim(str(line.id)),
                ),
                "journal",
            )


async def _the_pool(scope: Scope, header: JournalHeader) -> None:
    """The pool of this id, made where it is not here yet."""
    whose = await scope.tx.journal.whose(header.pool_id)
    if whose is None:
        await scope.tx.journal.add_pool(scope.workspace_id, header.pool_id, scope.now)
        forget_pools(scope)
    elif whose != scope.workspace_id:
        raise Conflict(Message("journal: is of a pool that somebody else here has; ask them to share it."))
    await scope.tx.journal.one_writer(header.pool_id)
    if (await own_pool(scope, header.pool_id)).archived_at is not None:
        raise Conflict(ARCHIVED)


async def _check_the_known(scope: Scope, lines: list[JournalLine], known: dict[UUID, StoredEntry]) -> None:
    for line in lines:
        row = known[line.id]
        same = (row.kind, row.at, row.supersedes) == (line.kind, line.at, line.supersedes)
        if not same or (row.workspace_id == scope.workspace_id and row.body != line.body):
            raise Conflict(
                Message(
                    "journal: entry {id} says something else here; nothing was brought in.",
                    id=Verbatim(str(line.id)),
                )
            )


def _check_new(new: list[JournalLine], known: dict[UUID, StoredEntry]) -> None:
    """Each id once; what is replaced is there, and once."""
    ids = {line.id for line in new}
    replaced = [row.supersedes for row in known.values() if row.supersedes is not None]
    replaced += [line.supersedes for line in new if line.supersedes is not None]
    if len(ids) != len(new) or len(set(replaced)) != len(replaced) or not set(replaced) <= ids | known.keys():
        raise InvalidInput(
            Message(
                "journal: an id stands twice, or what an entry replaces is not there; nothing was brought in."
            ),
            "journal",
        )


async def written(scope: Scope, pool_id: UUID | None, lines: list[JournalLine]) -> list[StoredEntry]:
    """Lines as rows of the workspace that acts, what is replaced before what replaces it.

    Raises InvalidInput where entries replace each other in a ring.
    """
    who = await by_names(scope, {line.by for line in lines if line.by})
    own = await scope.tx.shares.workspace_name(scope.workspace_id)
    rows = [
        StoredEntry(
            id=line.id,
            workspace_id=scope.workspace_id,
            pool_id=pool_id,
            person_id=who.get(line.by),
            kind=line.kind,
            at=line.at,
            recorded_at=line.recorded_at,
            supersedes=line.supersedes,
            text=json.dumps(line.body),
            written_in=None if line.workspace == own else line.workspace,
        )
        for line in lines
    ]
    return _replaced_first(rows)


def _replaced_first(rows: list[StoredEntry]) -> list[StoredEntry]:
    """What an entry replaces stands before it: the database checks each as it comes.

    Raises InvalidInput where entries replace each other in a ring.
    """
    by_id = {row.id: row for row in rows}
    before = {row.id: [row.supersedes] if row.supersedes in by_id else [] for row in rows}
    try:
        return [by_id[id_] for id_ in TopologicalSorter(before).static_order() if id_ is not None]
    except CycleError as trouble:
        raise InvalidInput(
            Message("journal: entries replace each other in a ring; nothing was brought in."), "journal"
        ) from trouble


async def _keep_the_books(
    scope: Scope, pool_id: UUID, rows: list[StoredEntry], known: dict[UUID, StoredEntry]
) -> None:
    """What was poured of a product that stands on this shelf is off it; what was taken back is not."""
    shelf = {product.id for product in await scope.tx.workspace.products(scope.workspace_id)}
    gone = {row.supersedes for row in rows if row.supersedes is not None}
    for id_ in gone & known.keys():
        await scope.tx.poured.take_back(id_)
    for row in rows:
        body = to_entry(row).body if row.kind == "addition" else None
        if isinstance(body, AdditionMade) and body.product_id in shelf and row.id not in gone:
            await scope.tx.poured.add(
                Pour(
                    entry_id=row.id,
                    workspace_id=row.workspace_id,
                    pool_id=pool_id,
                    person_id=row.person_id,
                    product_id=body.product_id,
                    at=row.at,
                    mass_g=body.mass_g,
                )
            )

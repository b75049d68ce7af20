"""Files of one's own: taken in with a guess of how to read them, shown as read, queued to be made."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID, uuid5

from kumpan.core.errors import Conflict, InvalidInput, NotFound
from kumpan.core.messages import Message
from kumpan.core.notebook.columns import TableKind
from kumpan.core.notebook.rows import RowVerdict
from kumpan.core.quantities.units import Units
from kumpan.formats.tables import Table, read_tables
from kumpan.services.imports.manner import (
    FileManner,
    Rows,
    checked,
    from_stored,
    guessed,
    guessed_in,
    signature,
)
from kumpan.services.imports.reading import Known, Outcome, outcomes
from kumpan.services.journal.ledger import ARCHIVED, Scope, require_pool
from kumpan.services.tests.queries import kit
from kumpan.services.workers import WORKERS
from kumpan.storage.repositories.imports import StoredImport

MOST_LISTED, PREVIEWED, MOST_SAMPLE = 30, 2_000, 12
NO_SUCH_FILE = Message("There is no such file here; choose it again.")


@dataclass(frozen=True, kw_only=True)
class FileView:
    """A file with the manner in which it would be read, its sheets, and its first rows beside it.

    `as_before`: the manner is that of an earlier file with the same headers.
    """

    file: StoredImport
    manner: FileManner
    as_before: bool
    tabs: tuple[str, ...]
    header: tuple[str, ...]
    sample: tuple[tuple[str, ...], ...]
    rows: int


@dataclass(frozen=True, kw_only=True)
class Preview:
    """What the rows would become: how many of each verdict, and some of them to look at."""

    made: int
    questioned: int
    refused: int
    read: int
    rows: int
    shown: tuple[Outcome, ...]


async def take(scope: Scope, id_: UUID, content: bytes, name: str, *, units: Units) -> FileView:
    """A file that was chosen. The same id again is answered. Raises InvalidInput for what is no table."""
    if await scope.tx.imports.one(scope.workspace_id, id_) is None:
        tables = await WORKERS.run(read_tables, content, name)
        rows = [table.rows for table in tables]
        manner = guessed(rows, units=units)
        new = StoredImport(
            id=id_,
            workspace_id=scope.workspace_id,
            person_id=scope.person_id,
            created_at=scope.now,
            name=name[:200],
            signature=signature(rows, manner),
            manner=None,
            state="open",
        )
        await scope.tx.imports.add(new, [[table.name, table.rows] for table in tables])
    return await view(scope, id_, units=units)


async def view(
    scope: Scope, id_: UUID, kind: TableKind | None = None, tab: int | None = None, *, units: Units
) -> FileView:
    """One file, guessed as another kind or sheet where one is named. Raises NotFound, InvalidInput."""
    file = await require_file(scope, id_)
    tables = await tables_of(scope, id_)
    rows = [table.rows for table in tables]
    if tab is not None and not 0 <= tab < len(rows):
        raise InvalidInput(Message("There is no such sheet in the file."), "tab")
    manner, as_before = guessed(rows, units=units), False
    if kind is not None or tab is not None:
        at = manner.tab if tab is None else tab
        manner = guessed_in(rows[at], at, kind, units=units)
    else:
        before = file.manner or await scope.tx.imports.manner_of(scope.workspace_id, file.signature)
        found = _usable(before, rows)
        manner, as_before = found or manner, found is not None and file.manner is None
    of_sheet = rows[manner.tab]
    below = of_sheet[manner.header_row + 1 :]
    return FileView(
        file=file,
        manner=manner,
        as_before=as_before,
        tabs=tuple(table.name for table in tables),
        header=tuple(of_sheet[manner.header_row]) if manner.header_row >= 0 else (),
        sample=tuple(tuple(row) for row in below[:MOST_SAMPLE]),
        rows=len(below),
    )


def _usable(stored: dict[str, object] | None, rows: Sequence[Rows]) -> FileManner | None:
    """A manner that was stored, where it still fits these rows."""
    if stored is None:
        return None
    try:
        return checked(from_stored(stored), rows)
    except (LookupError, ValueError, TypeError, InvalidInput):
        return None


async def preview(scope: Scope, id_: UUID, manner: FileManner, verdict: RowVerdict | None) -> Preview:
    """What the first rows would become. Raises InvalidInput for a manner that does not fit, NotFound."""
    await require_file(scope, id_)
    rows = await rows_of(scope, id_, manner)
    known = await known_here(scope, manner)
    found = await WORKERS.run(outcomes, rows[:PREVIEWED], manner, known)
    counts = {one: sum(outcome.verdict is one for outcome in found) for one in RowVerdict}
    shown = [one for one in found if verdict is None or one.verdict is verdict]
    if verdict is None:  # what asks to be looked at first
        shown.sort(key=lambda one: one.verdict is RowVerdict.MADE)
    return Preview(
        made=counts[RowVerdict.MADE],
        questioned=counts[RowVerdict.QUESTIONED],
        refused=counts[RowVerdict.REFUSED],
        read=min(len(rows), PREVIEWED),
        rows=len(rows),
        shown=tuple(shown[:100]),
    )


async def queue(scope: Scope, id_: UUID, manner: FileManner) -> StoredImport:
    """Have the file made into entries, in the background. Twice is once. Raises as `preview`."""
    file = await require_file(scope, id_)
    rows = await rows_of(scope, id_, manner)
    await known_here(scope, manner)
    if file.state in ("open", "refused"):
        values = {"state": "queued", "manner": manner.stored(), "done": 0, "total": len(rows), "trouble": ""}
        await scope.tx.imports.change(id_, **values)
    elif file.manner != manner.stored():
        raise Conflict(
            Message("This file was brought in already; take that back first, then choose it again.")
        )
    return await require_file(scope, id_)


async def listed(scope: Scope) -> list[StoredImport]:
    """The last files, the newest first."""
    return await scope.tx.imports.recent(scope.workspace_id, MOST_LISTED)


async def drop(scope: Scope, id_: UUID) -> None:
    """A file that was not made into anything is gone. Raises NotFound."""
    await require_file(scope, id_)
    await scope.tx.imports.drop(scope.workspace_id, id_)


async def require_file(scope: Scope, id_: UUID) -> StoredImport:
    """Raises NotFound."""
    found = await scope.tx.imports.one(scope.workspace_id, id_)
    if found is None:
        raise NotFound(NO_SUCH_FILE)
    return found


async def tables_of(scope: Scope, id_: UUID) -> list[Table]:
    """The rows of a file, by its sheets."""
    return [Table(name, rows) for name, rows in await scope.tx.imports.tables(id_)]


async def rows_of(scope: Scope, id_: UUID, manner: FileManner) -> Rows:
    """The rows below the header, for a manner that fits. Raises InvalidInput."""
    kit(manner.kit)
    rows = [table.rows for table in await tables_of(scope, id_)]
    checked(manner, rows)
    return rows[manner.tab][manner.header_row + 1 :]


async def known_here(scope: Scope, manner: FileManner) -> Known:
    """The pools that rows may name. Raises NotFound for a pool that is not here."""
    set_ups = await scope.tx.journal.set_ups(scope.workspace_id)
    pools = {
        str(body.get("name", "")).strip().casefold(): (id_, str(body.get("time_zone", "UTC")))
        for id_, body in set_ups.items()
    }
    own = None
    if manner.pool_id is not None:
        if (await require_pool(scope, manner.pool_id)).archived_at is not None:
            raise Conflict(ARCHIVED)
        own = (manner.pool_id, str(set_ups.get(manner.pool_id, {}).get("time_zone", "UTC")))
    return Known(pools=pools, own=own, now=scope.now, first=manner.header_row + 2)


def entry_id(file_id: UUID, number: int, what: str) -> UUID:
    """The id of what a row becomes: the same each time."""
    return uuid5(file_id, f"{number}:{what}")

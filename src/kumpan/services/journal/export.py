"""A pool's journal as an open file: every entry, superseded and taken back ones too."""

from dataclasses import dataclass
from hashlib import sha256
from uuid import UUID

from kumpan.core.journal import for_others
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, header_line, journal_line
from kumpan.services.journal.ledger import Scope, pool_rows, pool_state, require_pool, to_entry
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.wire.kinds import write_body


@dataclass(frozen=True)
class JournalFile:
    """The file, and the SHA-256 of its entries alone: the header says when it was made."""

    content: bytes
    sha256: str


async def journal_file(scope: Scope, pool_id: UUID) -> JournalFile:
    """The journal as who acts may read it. Raises NotFound."""
    pool = await require_pool(scope, pool_id)
    rows = await pool_rows(scope, pool_id)
    people = await scope.tx.shares.people_names({row.person_id for row in rows if row.person_id is not None})
    places = await scope.tx.shares.workspace_names({row.workspace_id for row in rows} | {pool.workspace_id})
    lines = [
        journal_line(
            JournalLine(
                id=row.id,
                kind=row.kind,
                at=row.at,
                recorded_at=row.recorded_at,
                by=people.get(row.person_id, "") if row.person_id is not None else "",
                workspace=row.written_in or places.get(row.workspace_id, ""),
                supersedes=row.supersedes,
                body=_body(scope, row),
            )
        )
        for row in rows
    ]
    header = JournalHeader(
        pool_id=pool_id,
        name=await pool_name(scope, pool_id),
        workspace=places.get(pool.workspace_id, ""),
        exported_at=scope.now,
        entries=len(lines),
    )
    body = "".join(lines).encode()
    return JournalFile(header_line(header).encode() + body, sha256(body).hexdigest())


async def pool_name(scope: Scope, pool_id: UUID) -> str:
    """What a pool is called; empty before it is set up."""
    settings = (await pool_state(scope, pool_id)).settings
    return settings.name if settings is not None else ""


def _body(scope: Scope, row: StoredEntry) -> dict[str, object]:
    """As stored; what is internal to others is left out, and nothing else is touched."""
    if scope.staff and row.workspace_id == scope.workspace_id:
        return row.body
    body = to_entry(row).body
    open_ = for_others(body)
    return row.body if open_ == body else write_body(open_)

"""The open journal format: JSON Lines (UTF-8, one JSON object a line), a header first, then the entries.

Entries stand in the order in which they happened, with the body in the stored form of its kind and version.
"""

import json
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

FORMAT, VERSION = "kumpan-journal", 1


@dataclass(frozen=True, kw_only=True)
class JournalHeader:
    """Which pool, as it is called now, whose it is, and how many entries follow."""

    pool_id: UUID
    name: str
    workspace: str
    exported_at: datetime
    entries: int


@dataclass(frozen=True, kw_only=True)
class JournalLine:
    """One entry; `by` is a person's name, `workspace` where it was written."""

    id: UUID
    kind: str
    at: datetime
    recorded_at: datetime
    by: str
    workspace: str
    supersedes: UUID | None
    body: dict[str, object]


def header_line(header: JournalHeader) -> str:
    """The first line, with its end."""
    return _line(
        {
            "format": FORMAT,
            "version": VERSION,
            "pool": str(header.pool_id),
            "name": header.name,
            "workspace": header.workspace,
            "exported_at": _time(header.exported_at),
            "entries": header.entries,
        }
    )


def journal_line(line: JournalLine) -> str:
    """One entry's line, with its end."""
    return _line(
        {
            "id": str(line.id),
            "kind": line.kind,
            "at": _time(line.at),
            "recorded_at": _time(line.recorded_at),
            "by": line.by,
            "workspace": line.workspace,
            "supersedes": None if line.supersedes is None else str(line.supersedes),
            "body": line.body,
        }
    )


def _line(data: dict[str, object]) -> str:
    return (
        json.dumps(data, ensure_ascii=False, sort_keys=False, separators=(",", ":"), allow_nan=False) + "\n"
    )


def _time(at: datetime) -> str:
    """In UTC with microseconds, so that a time is written in one way only."""
    return at.astimezone(UTC).isoformat(timespec="microseconds").replace("+00:00", "Z")

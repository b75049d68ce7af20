"""The open journal format: JSON Lines (UTF-8, one JSON object a line), a header first, then the entries.

Entries stand in the order in which they happened, with the body in the stored form of its kind and version.
"""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, ValidationError

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim

FORMAT, VERSION = "kumpan-journal", 1
NAME_LENGTH, KIND_LENGTH = 120, 20
_NOT_OURS = Message(
    "journal: is no journal that Kumpan wrote; choose a file that was downloaded as journal.jsonl."
)


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


class _Line(BaseModel):
    """What every line is checked by: nothing is guessed, nothing converted but ids and times."""

    model_config = ConfigDict(extra="forbid")


class HeaderIn(_Line):
    """The first line."""

    format: str = Field(pattern=f"^{FORMAT}$")
    version: int = Field(ge=1, strict=True)
    pool: UUID
    name: str = Field(max_length=400)
    workspace: str = Field(max_length=NAME_LENGTH)
    exported_at: AwareDatetime
    entries: int = Field(ge=0, strict=True)


class LineIn(_Line):
    """Any other line. The body is stored as it is: what this version does not know of it is kept too."""

    id: UUID
    kind: str = Field(min_length=1, max_length=KIND_LENGTH, pattern="^[a-z][a-z0-9_]*$")
    at: AwareDatetime
    recorded_at: AwareDatetime
    by: str = Field(max_length=NAME_LENGTH)
    workspace: str = Field(max_length=NAME_LENGTH)
    supersedes: UUID | None
    body: dict[str, object]


def read_journal(content: bytes) -> tuple[JournalHeader, list[JournalLine]]:
    """The header and the entries of a file, in its order.

    Raises InvalidInput, naming the line, for what is no journal, is cut short, or is of a newer version.
    """
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as trouble:
        raise InvalidInput(_NOT_OURS, "journal") from trouble
    numbered = _parsed(text)
    header = _header(next(numbered, (1, {})))
    lines = [_entry(number, data) for number, data in numbered]
    if len(lines) != header.entries:
        raise InvalidInput(
            Message(
                "journal: the file says it has {said} entries and has {found}; download it once more.",
                said=Verbatim(str(header.entries)),
                found=Verbatim(str(len(lines))),
            ),
            "journal",
        )
    return header, lines


def _parsed(text: str) -> Iterator[tuple[int, object]]:
    for number, line in enumerate(text.split("\n"), start=1):
        if not line.strip():
            continue
        try:
            data = json.loads(line, parse_constant=_no_number, parse_float=_finite)
            line.encode()
            json.dumps(data, ensure_ascii=False).encode()  # a half of a pair, escaped, is no text
        except (ValueError, RecursionError) as trouble:
            raise InvalidInput(
                _NOT_OURS if number == 1 else _at_line(number, "is no JSON"), "journal"
            ) from trouble
        yield number, data


def _no_number(written: str) -> object:
    raise ValueError(written)


def _finite(written: str) -> float:
    number = float(written)
    if number in (float("inf"), float("-inf")):
        raise ValueError(written)
    return number


def _header(numbered: tuple[int, object]) -> JournalHeader:
    try:
        found = HeaderIn.model_validate(numbered[1])
    except ValidationError as trouble:
        raise InvalidInput(_NOT_OURS, "journal") from trouble
    if found.version > VERSION:
        raise InvalidInput(
            Message("journal: was written by a newer version of Kumpan; bring this one up to date first."),
            "journal",
        )
    return JournalHeader(
        pool_id=found.pool,
        name=found.name,
        workspace=found.workspace,
        exported_at=found.exported_at,
        entries=found.entries,
    )


def _entry(number: int, data: object) -> JournalLine:
    try:
        found = LineIn.model_validate(data)
    except ValidationError as trouble:
        first = trouble.errors(include_url=False, include_input=False)[0]
        what = ".".join(str(part) for part in first["loc"])[:80]
        raise InvalidInput(
            _at_line(number, f"{what} cannot be read" if what else "is no entry"), "journal"
        ) from trouble
    return JournalLine(**dict(found))


def _at_line(number: int, what: str) -> Message:
    return Message(
        "journal: line {line}: {what}; nothing was brought in.",
        line=Verbatim(str(number)),
        what=Verbatim(what.encode("ascii", "backslashreplace").decode()),
    )

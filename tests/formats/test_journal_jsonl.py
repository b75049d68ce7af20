"""The open journal format: what is written is read, and what is no journal is refused by its line."""

import json
from datetime import UTC, datetime
from uuid import UUID

import pytest

from kumpan.core.errors import InvalidInput
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, header_line, journal_line, read_journal

AT = datetime(2026, 6, 1, 18, 40, 0, 250, tzinfo=UTC)
HEADER = JournalHeader(
    pool_id=UUID(int=7), name="Mill pond", workspace="Pools & Co", exported_at=AT, entries=1
)
LINE = JournalLine(
    id=UUID(int=1),
    kind="test",
    at=AT,
    recorded_at=AT,
    by="Åse Ødegård",
    workspace="Pools & Co",
    supersedes=None,
    body={
        "values": [1.0, 1e-300, 10**30],
        "text": "a\nline\u2028and another",
        "none": None,
        "é": {"deep": [[]]},
    },
)
GOOD = header_line(HEADER) + journal_line(LINE)


def test_what_is_written_is_read_and_written_again() -> None:
    header, lines = read_journal(GOOD.encode())
    assert (header, lines) == (HEADER, [LINE])
    assert header_line(header) + journal_line(lines[0]) == GOOD


def test_a_byte_order_mark_and_empty_lines_do_no_harm() -> None:
    assert read_journal(b"\xef\xbb\xbf" + GOOD.replace("\n", "\n\n").encode())[1] == [LINE]


def changed(**fields: object) -> bytes:
    return (header_line(HEADER) + json.dumps({**json.loads(journal_line(LINE)), **fields}) + "\n").encode()


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "no journal that Kumpan wrote"),
        (b"\xff\xfe\x00", "no journal that Kumpan wrote"),
        (b"date,ph\n2026-06-01,7.5\n", "no journal that Kumpan wrote"),
        (b"[" * 100_000, "no journal that Kumpan wrote"),
        (GOOD.replace('"version":1', '"version":2').encode(), "newer version"),
        (header_line(HEADER).encode(), "cut short|says it has"),
        (GOOD.encode() + b"{]\n", "line"),
        (changed(body=[]), "line"),
        (changed(at="2026-06-01T18:40:00"), "line"),
        (changed(kind="x" * 21), "line"),
        (changed(kind="Ä"), "line"),
        (changed(extra=1), "line"),
        (changed(by="\ud800"), "line"),
        (changed(body={"x": float("inf")}), "line"),
        (GOOD.replace("1e-300", "1e999").encode(), "line"),
        (GOOD.replace("1e-300", "9" * 5000).encode(), "line"),
        (GOOD.replace("[[]]", "[" * 5000 + "]" * 5000).encode(), "line"),
    ],
    ids=range(17),
)
def test_what_is_no_journal_is_refused_with_one_sentence(content: bytes, said: str) -> None:
    with pytest.raises(InvalidInput, match=said) as refused:
        read_journal(content)
    assert refused.value.field == "journal"

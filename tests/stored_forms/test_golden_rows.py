"""Rows of every version, as databases hold them: golden files that are only ever added, never changed.

`rows_v1.json` are rows of the demo season as the program wrote them in July 2026; what such a row becomes
stands in `rows_v1_read.json`, as the newest version writes it. Invented data.
`rows_of_november_2026.json` are those of kinds that came then.
"""

import json
from pathlib import Path
from typing import Any

import pytest

from kumpan.core.journal import KINDS, NotUnderstood
from kumpan.storage.wire.kinds import STORED, read_body, write_body

HERE = Path(__file__).parent
FILES = ("rows_v1.json", "rows_of_november_2026.json")
ROWS: list[dict[str, Any]] = [row for name in FILES for row in json.loads((HERE / name).read_text())]


@pytest.mark.parametrize("row", ROWS, ids=lambda row: f"{row['kind']}-{row['n']}")
def test_a_row_of_the_first_version_is_read(row: dict[str, Any]) -> None:
    body = read_body(row["kind"], row["body"])
    assert not isinstance(body, NotUnderstood)
    if len(STORED[row["kind"]].versions) == 1:
        assert write_body(body) == row["body"]
    else:
        assert read_body(row["kind"], write_body(body)) == body


def test_every_kind_of_today_has_a_golden_row() -> None:
    """A kind that came later has its rows in a file of its own version."""
    assert {row["kind"] for row in ROWS} == {kind.name for kind in KINDS}

"""The journal's JSON Schema: it stands in the docs as it is, and says of real journals what is true."""

import json
from typing import Any

import pytest
from jsonschema import Draft202012Validator, ValidationError

from kumpan.core.journal import Body
from kumpan.core.journal.kinds import kind_of
from kumpan.storage.wire.kinds import write_body
from kumpan.tools.journal_schema import journal_schema, journal_schema_text
from kumpan.tools.packages import ROOT
from tests.services.sharing.test_bring_in import ROWS, UNKNOWN
from tests.storage.wire.test_kinds import BODIES

CHECK = Draft202012Validator(journal_schema())
LINE = {
    "id": "00000000-0000-4000-8000-000000000001",
    "at": "2026-06-01T18:40:00.000000Z",
    "recorded_at": "2026-06-01T18:40:00.000000Z",
    "by": "",
    "workspace": "My pools",
    "supersedes": None,
}


def test_the_docs_hold_the_schema_of_today() -> None:
    assert (ROOT / "docs/journal-format.schema.json").read_text() == journal_schema_text()


def test_it_is_a_schema_itself() -> None:
    meta = Draft202012Validator(Draft202012Validator.META_SCHEMA)
    assert list(meta.iter_errors(journal_schema())) == []


@pytest.mark.parametrize("row", [*ROWS, UNKNOWN], ids=lambda row: f"{row['kind']}-{row.get('n', 0)}")
def test_rows_of_every_kind_are_valid(row: dict[str, Any]) -> None:
    CHECK.validate({**LINE, "kind": row["kind"], "body": row["body"]})


@pytest.mark.parametrize("body", BODIES, ids=lambda body: type(body).__name__)
def test_what_is_written_today_is_valid(body: Body) -> None:
    line = {**LINE, "kind": kind_of(body), "body": json.loads(json.dumps(write_body(body)))}
    assert [wrong.message for wrong in CHECK.iter_errors(line)] == []


def test_what_is_wrong_is_not() -> None:
    wrong = [
        {**LINE, "kind": "counted", "body": {"product_id": "x"}},
        {**LINE, "kind": "counted", "body": {"product_id": "x", "mass_g": 1.0, "extra": 1}},
        {"format": "kumpan-journal", "version": 1},
        {**LINE, "kind": "counted"},
    ]
    for line in wrong:
        with pytest.raises(ValidationError):
            CHECK.validate(json.loads(json.dumps(line)))

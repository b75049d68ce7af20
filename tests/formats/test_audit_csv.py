"""The audit as CSV: RFC 4180, and no cell is a formula."""

import csv
import io

from kumpan.formats.audit_csv import audit_csv


def test_it_is_read_back_and_no_cell_is_a_formula() -> None:
    rows = [("2026-06-01", '=cmd("x")', "signed_in", "127.0.0.1", 'a "quoted", part')]
    text = audit_csv(rows)
    assert text.endswith("\r\n")
    read = list(csv.reader(io.StringIO(text)))
    assert read[0] == ["at", "person", "action", "address", "detail"]
    assert read[1] == ["2026-06-01", '\'=cmd("x")', "signed_in", "127.0.0.1", 'a "quoted", part']

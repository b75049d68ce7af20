"""The audit as CSV (RFC 4180). What a spreadsheet would take for a formula begins with an apostrophe."""

import csv
import io
from collections.abc import Iterable, Sequence

FORMULA = ("=", "+", "-", "@", "\t", "\r")


def audit_csv(rows: Iterable[Sequence[str]]) -> str:
    """Time, person, action, address, detail: a line each."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(("at", "person", "action", "address", "detail"))
    for row in rows:
        writer.writerow(["'" + cell if cell.startswith(FORMULA) else cell for cell in row])
    return out.getvalue()

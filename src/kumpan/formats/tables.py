"""Tables in files: CSV (RFC 4180 and its relatives) and XLSX, read into rows of text and written safely.

Reading guesses only what a file cannot say: its encoding and its separator. What it means is not read here.
"""

import csv
import io
import re
import zipfile
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

from python_calamine import CalamineError, CalamineWorkbook

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message, Verbatim

MOST_ROWS, MOST_COLUMNS, MOST_CELL, MOST_TABLES = 50_000, 120, 2_000, 30
MOST_UNPACKED = 400_000_000  # bytes: what a small file may swell to
_SEPARATORS = (",", ";", "\t", "|")
_FORMULA = re.compile(r"^\s*[=+\-@\t\r]")
_NUMBER = re.compile(r"[+-]?\d+(?:\.\d+)?")
FIELD = "file"
NOT_A_TABLE = Message(
    "file: is neither CSV nor XLSX; save the table as one of the two, then choose it again."
)


@dataclass(frozen=True)
class Table:
    """A sheet: its name, empty for CSV, and its rows of text, all of one width."""

    name: str
    rows: tuple[tuple[str, ...], ...]


def read_tables(content: bytes, file_name: str) -> tuple[Table, ...]:
    """Every sheet of a file that holds anything. Raises InvalidInput with the cure."""
    if content[:4] == b"PK\x03\x04":
        tables = _read_xlsx(content)
    elif content[:8] == b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1":
        raise InvalidInput(
            Message("file: is an old spreadsheet or has a password; save it as XLSX or CSV."), FIELD
        )
    else:
        tables = [Table("", _read_csv(content))]
    found = tuple(table for table in tables if table.rows)
    if not found:
        raise InvalidInput(
            Message("file: {name} holds no rows.", name=Verbatim(file_name[:80] or "the file")), FIELD
        )
    return found


def _read_xlsx(content: bytes) -> list[Table]:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            if sum(one.file_size for one in packed.infolist()) > MOST_UNPACKED:
                raise InvalidInput(Message("file: is too large once unpacked; split it."), FIELD)
        with CalamineWorkbook.from_filelike(io.BytesIO(content)) as book:
            return [
                Table(name[:60], _squared(_texts(book.get_sheet_by_name(name).iter_rows())))
                for name in book.sheet_names[:MOST_TABLES]
            ]
    except (CalamineError, zipfile.BadZipFile, OSError, ValueError, NotImplementedError) as trouble:
        raise InvalidInput(NOT_A_TABLE, FIELD) from trouble


def _texts(rows: Iterable[Sequence[object]]) -> Iterable[list[str]]:
    return ([_text(cell) for cell in row] for row in rows)


def _text(cell: object) -> str:
    """A cell as one would type it: days by the calendar, whole numbers without a point."""
    if isinstance(cell, bool):
        return "yes" if cell else "no"
    if isinstance(cell, float):
        return f"{cell:.15g}"
    if isinstance(cell, datetime):
        return cell.date().isoformat() if cell.time() == time() else cell.isoformat(" ", "seconds")
    if isinstance(cell, date | time):
        return cell.isoformat()
    if isinstance(cell, timedelta):
        return f"{cell.total_seconds() / 86_400:.15g}"
    return str(cell)


def _read_csv(content: bytes) -> tuple[tuple[str, ...], ...]:
    text = _decoded(content)
    if "\x00" in text:
        raise InvalidInput(NOT_A_TABLE, FIELD)
    separator = _separator(text)
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator)
    try:
        return _squared(reader)
    except csv.Error as trouble:  # a field of over 128 kB: a quote that nobody closed
        raise InvalidInput(
            Message(
                "file: a quotation mark near line {line} is never closed.",
                line=Verbatim(str(reader.line_num)),
            ),
            FIELD,
        ) from trouble


def _decoded(content: bytes) -> str:
    if content[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return content.decode("utf-16", "replace")
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError:
        return content.decode("cp1252", "replace")


def _separator(text: str) -> str:
    """The one that cuts the first lines into the most columns, and into as many in each."""
    lines = [line for line in text[:20_000].splitlines()[:30] if line.strip()]
    if lines and (named := re.fullmatch(r"sep=(.)", lines[0], re.IGNORECASE)):
        return named[1]

    def fits(separator: str) -> tuple[int, int]:
        widths = [len(row) for row in csv.reader(lines, delimiter=separator) if row]
        usual = max(set(widths), key=widths.count) if widths else 1
        return (widths.count(usual) * (usual > 1), usual)

    try:
        return max(_SEPARATORS, key=fits)
    except csv.Error:
        return ","


def _squared(rows: Iterable[Sequence[str]]) -> tuple[tuple[str, ...], ...]:
    """Rows of one width without empty ends. Raises InvalidInput for more than a table may have."""
    found: list[list[str]] = []
    for row in rows:
        cells = [cell[:MOST_CELL].strip() for cell in row]
        while cells and not cells[-1]:
            cells.pop()
        if len(cells) > MOST_COLUMNS:
            raise InvalidInput(
                Message("file: has over {most} columns.", most=Verbatim(str(MOST_COLUMNS))), FIELD
            )
        if re.fullmatch(r"sep=.?", cells[0] if len(cells) == 1 else "", re.IGNORECASE):
            continue
        found.append(cells)
        if len(found) > MOST_ROWS + 1:
            raise InvalidInput(
                Message("file: has over {most} rows; split it.", most=Verbatim(f"{MOST_ROWS:,}")), FIELD
            )
    while found and not found[-1]:
        found.pop()
    width = max((len(cells) for cells in found), default=0)
    return tuple(tuple(cells + [""] * (width - len(cells))) for cells in found)


def safe(cell: str) -> str:
    """A cell that no spreadsheet runs as a formula; a plain number stays one."""
    return f"'{cell}" if _FORMULA.match(cell) and not _NUMBER.fullmatch(cell.strip()) else cell


def write_csv(header: Sequence[str], rows: Iterable[Sequence[str]]) -> bytes:
    """RFC 4180 in UTF-8 with a byte order mark, which spreadsheets need to read it as such."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([safe(cell) for cell in header])
    writer.writerows([safe(cell) for cell in row] for row in rows)
    return out.getvalue().encode("utf-8-sig")


def write_xlsx(tabs: Sequence[tuple[str, Sequence[str], Iterable[Sequence[str]]]]) -> bytes:
    """A workbook of tabs (name, header, rows): numbers as numbers, all else as text, never as a formula."""
    from openpyxl import Workbook
    from openpyxl.cell import WriteOnlyCell
    from openpyxl.styles import Font

    book = Workbook(write_only=True)
    for name, header, rows in tabs:
        tab = book.create_sheet(re.sub(r"[\[\]:*?/\\]", " ", name)[:31])
        tab.freeze_panes = "A2"
        titles = [WriteOnlyCell(tab, value=title) for title in header]
        for title in titles:
            title.font = Font(bold=True)
        tab.append(titles)
        for row in rows:
            tab.append([_typed(cell) for cell in row])
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _typed(cell: str) -> str | float:
    if _NUMBER.fullmatch(cell) and not re.fullmatch(r"[+-]?0\d+", cell):
        return float(cell)
    return safe(re.sub(r"[\x00-\x08\x0b\x0c\x0e-\x1f]", "", cell))

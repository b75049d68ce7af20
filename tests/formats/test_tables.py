"""Tables in files: CSV by RFC 4180 and as programs really write it, XLSX, and what is neither."""

import csv
import io
import zipfile
from datetime import datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st
from openpyxl import Workbook, load_workbook

from kumpan.core.errors import InvalidInput
from kumpan.formats.tables import MOST_ROWS, read_tables, safe, write_csv, write_xlsx


def rows(content: bytes) -> tuple[tuple[str, ...], ...]:
    (table,) = read_tables(content, "a.csv")
    return table.rows


@pytest.mark.parametrize(
    "content",
    [
        b"a,b\r\n1,2\r\n",
        b"a;b\n1;2\n",
        b"a\tb\n1\t2",
        b"a|b\n1|2\n\n\n",
        b"sep=;\r\na;b\r\n1;2",
        b"\xef\xbb\xbfa,b\n1,2",
        "a,b\n1,2".encode("utf-16"),
        b'"a","b"\r\n"1","2"\r\n',
        b" a , b \n1,2,,,\n",
    ],
    ids=range(9),
)
def test_one_table_in_many_spellings(content: bytes) -> None:
    assert rows(content) == (("a", "b"), ("1", "2"))


def test_quotes_line_ends_and_old_encodings() -> None:
    """RFC 4180, section 2, rules 5 to 7."""
    assert rows(b'a,b\r\n"x ""y"", z","two\r\nlines"\r\n')[1] == ('x "y", z', "two\r\nlines")
    assert rows("Maß;Grün\n1;2".encode("cp1252"))[0] == ("Maß", "Grün")


def test_decimal_commas_do_not_cut_columns() -> None:
    assert rows(b"day;pH\n1.6.26;7,4\n2.6.26;7,5\n")[1] == ("1.6.26", "7,4")


def test_a_workbook_comes_as_one_would_type_it() -> None:
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = "May"
    sheet.append(["Day", "pH", "Count", "Open"])
    sheet.append([datetime.fromisoformat("2026-05-03"), 7.4, 3, True])
    sheet.append([datetime.fromisoformat("2026-05-04T18:40"), 0.1 + 0.2, 3.0, None])
    book.create_sheet("empty")
    out = io.BytesIO()
    book.save(out)
    (table,) = read_tables(out.getvalue(), "b.xlsx")
    assert table.name == "May"
    assert table.rows[1:] == (
        ("2026-05-03", "7.4", "3", "yes"),
        ("2026-05-04 18:40:00", "0.3", "3", ""),
    )


def bomb() -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("xl/workbook.xml", b"\x00" * 410_000_000)
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "said"),
    [
        (b"", "holds no rows"),
        (b"\n\n , ,\n", "holds no rows"),
        (b"PK\x03\x04nonsense", "neither CSV nor XLSX"),
        (b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1rest", "old spreadsheet"),
        (b"\x89PNG\r\n\x1a\n\x00\x00", "neither CSV nor XLSX"),
        (b'a,b\n"' + b"x" * 200_000, "never closed"),
        (b"a," * 200, "columns"),
        (b"1\n" * (MOST_ROWS + 2), "rows"),
    ],
    ids=range(8),
)
def test_what_is_no_table_is_refused_with_the_cure(content: bytes, said: str) -> None:
    with pytest.raises(InvalidInput, match=said) as refused:
        read_tables(content, "x")
    assert refused.value.field == "file"


def test_a_small_file_that_swells_is_refused() -> None:
    with pytest.raises(InvalidInput, match="too large"):
        read_tables(bomb(), "x.xlsx")


@given(content=st.binary(max_size=300) | st.text(max_size=300).map(str.encode))
def test_any_bytes_are_read_or_refused(content: bytes) -> None:
    try:
        tables = read_tables(content, "x")
    except InvalidInput:
        return
    assert all(len({len(row) for row in table.rows}) == 1 for table in tables)


CELLS = st.text(st.characters(exclude_categories=["Cs", "Cc"]), max_size=20)


@given(table=st.lists(st.lists(CELLS, min_size=2, max_size=2), min_size=1, max_size=6))
def test_csv_that_is_written_is_read_by_any_reader_and_runs_nothing(table: list[list[str]]) -> None:
    read = list(csv.reader(io.StringIO(write_csv(["h", "i"], table).decode("utf-8-sig"), newline="")))
    assert read[1:] == [[safe(cell) for cell in row] for row in table]
    for row in read:
        for cell in row:
            assert not cell.lstrip().startswith(("=", "@")) or cell.startswith("'")


@pytest.mark.parametrize("cell", ["=1+1", "+cmd", "-2+3", "@SUM(A1)", "\t=1", " =1"])
def test_no_cell_is_a_formula(cell: str) -> None:
    assert safe(cell) == f"'{cell}"
    sheet = load_workbook(io.BytesIO(write_xlsx([("s", ["h"], [[cell]])])))["s"]
    assert sheet["A2"].data_type == "s"


def test_numbers_stay_numbers_and_codes_stay_codes() -> None:
    sheet = load_workbook(io.BytesIO(write_xlsx([("a/b", ["h"], [["-1.5"], ["007"], ["7"]])])))["a b"]
    assert [sheet[f"A{n}"].value for n in (2, 3, 4)] == [-1.5, "007", 7]
    assert write_csv(["h"], [["-1.5"]]).endswith(b"-1.5\r\n")

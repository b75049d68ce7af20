"""Headers as owners and technicians write them (common practice), and columns told by what stands in them."""

import pytest

from kumpan.core.notebook.columns import (
    ColumnRole,
    TableKind,
    guess_columns,
    guess_kind,
    has_decimal_comma,
    in_plain_digits,
    number_in,
)
from kumpan.core.notebook.dates import DateOrder
from kumpan.core.quantities.readings import Measure


@pytest.mark.parametrize(
    ("header", "measure"),
    [
        ("FC", Measure.FREE_CHLORINE),
        ("Free Cl (ppm)", Measure.FREE_CHLORINE),
        ("Chlorine", Measure.FREE_CHLORINE),
        ("Total Chlorine", Measure.TOTAL_CHLORINE),
        ("CC", Measure.COMBINED_CHLORINE),
        ("pH", Measure.PH),
        ("pH level", Measure.PH),
        ("T. Alk", Measure.TOTAL_ALKALINITY),
        ("TA [mg/L]", Measure.TOTAL_ALKALINITY),
        ("Calcium Hardness", Measure.CALCIUM_HARDNESS),
        ("CYA", Measure.CYANURIC_ACID),
        ("Stabilizer ppm", Measure.CYANURIC_ACID),
        ("Water temp", Measure.TEMPERATURE),
        ("Salt", Measure.SALT),
        ("Water °C", Measure.TEMPERATURE),
        ("PO4 ppb", Measure.PHOSPHATE),
    ],
)  # fmt: skip
def test_measures(header: str, measure: Measure) -> None:
    column = guess_columns([header], [["7"]], TableKind.NOTEBOOK, month_first=True)[0]
    assert (column.role, column.measure) == (ColumnRole.MEASURE, measure)


@pytest.mark.parametrize(
    ("header", "chemical", "strength", "unit"),
    [
        ("Bleach (gal)", "sodium_hypochlorite", 10.0, "gal"),
        ("Liquid chlorine 12.5% gal", "sodium_hypochlorite", 12.5, "gal"),
        ("Muriatic acid fl oz", "hydrochloric_acid", 31.45, "floz"),
        ("Acid added", "hydrochloric_acid", 31.45, ""),
        ("Bicarb lb", "sodium_bicarbonate", 100.0, "lb"),
        ("Salt added (lb)", "sodium_chloride", 100.0, "lb"),
        ("Stabilizer (lbs)", "cyanuric_acid", 100.0, "lbs"),
        ("Tabs", "trichlor", 90.0, ""),
        ("Dry acid g", "sodium_bisulfate", 93.0, "g"),
        ("pH down (kg)", "sodium_bisulfate", 93.0, "kg"),
    ],
)  # fmt: skip
def test_products_that_a_column_counts(header: str, chemical: str, strength: float, unit: str) -> None:
    column = guess_columns([header], [["1"]], TableKind.NOTEBOOK, month_first=True)[0]
    assert (column.role, column.chemical, column.unit) == (ColumnRole.ADDED, chemical, unit)
    assert column.strength_percent == pytest.approx(strength, rel=0.1)


def test_a_notebook_with_two_of_a_kind_gives_each_role_once() -> None:
    header = ["Date", "Chlorine", "Cl2", "pH", "Notes", "More notes", "Color of the gate"]
    rows = [["6/3/26", "2", "2", "7.4", "x", "y", "red"]]
    columns = guess_columns(header, rows, TableKind.NOTEBOOK, month_first=True)
    roles = "date measure skip measure note note skip"
    assert [column.role for column in columns] == roles.split()


def test_dates_are_found_without_a_header() -> None:
    columns = guess_columns(
        ["", "pH"], [["3.6.2026", "7,4"], ["14.6.2026", "7,5"]], TableKind.NOTEBOOK, month_first=True
    )
    assert (columns[0].role, columns[0].dates) == (ColumnRole.DATE, DateOrder.DAY_FIRST)
    assert columns[1].decimal_comma


def test_units_by_header_and_by_content() -> None:
    def unit(header: str, *cells: str) -> str:
        return guess_columns([header], [[cell] for cell in cells], TableKind.NOTEBOOK, month_first=True)[
            0
        ].unit

    assert unit("Hardness (°dH)", "12") == "dh"
    assert unit("Alkalinity mmol/L", "1") == "mmol/l"
    assert unit("Temp", "82", "84") == "f"
    assert unit("Temp", "27", "28") == "c"
    assert unit("Temp (°C)", "82") == "c"
    assert unit("Salt", "3.2") == "g/l"
    assert unit("Salt", "3200") == ""


def test_what_a_table_tells_of() -> None:
    assert guess_kind(["Date", "pH"], [["6/3/26", "7.4"]]) is TableKind.NOTEBOOK
    assert (
        guess_kind(
            ["Product", "Strength %", "Package", "Count", "Price"], [["Acid", "31", "1 gal", "2", "9"]]
        )
        is TableKind.STOCK
    )
    assert (
        guess_kind(["Name", "Gallons", "Surface", "Filter"], [["Mill", "15000", "vinyl", "sand"]])
        is TableKind.POOLS
    )
    assert guess_kind(["Pool", "Weekday", "Technician"], [["Mill", "Monday", "Ann"]]) is TableKind.STOPS


@pytest.mark.parametrize(
    ("cells", "comma"),
    [(["7,4", "7,6"], True), (["7.4"], False), (["1,200"], False), (["1.234,5"], True), (["1,234.5"], False)],
)
def test_the_decimal_sign_of_a_column(cells: list[str], comma: bool) -> None:
    assert has_decimal_comma(cells) is comma


def test_numbers() -> None:
    assert in_plain_digits("1.234,5", decimal_comma=True) == "1234.5"
    assert in_plain_digits("1,234.5", decimal_comma=False) == "1234.5"
    assert in_plain_digits("3 200", decimal_comma=False) == "3200"
    assert number_in("<0.5 ppm", decimal_comma=False) == 0.5
    assert number_in("OK", decimal_comma=False) is None

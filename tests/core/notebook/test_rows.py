"""Rows of notebooks: cells as people write them, each with what becomes of it."""

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.errors import InvalidInput
from kumpan.core.journal import Clarity
from kumpan.core.notebook.columns import NOTEBOOK_UNITS, Column, ColumnRole
from kumpan.core.notebook.dates import DateOrder
from kumpan.core.notebook.rows import Manner, RowVerdict, read_cell, read_row, read_rows
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.testing.kits import kit_by_key

KIT = kit_by_key("drops")
LATEST = datetime(2026, 11, 1, tzinfo=UTC)


def measure(which: Measure, unit: str = "", *, comma: bool = False) -> Column:
    return Column(role=ColumnRole.MEASURE, measure=which, unit=unit, decimal_comma=comma)


def added(chemical: str, unit: str = "", strength: float | None = None) -> Column:
    return Column(role=ColumnRole.ADDED, chemical=chemical, unit=unit, strength_percent=strength)


DATE = Column(role=ColumnRole.DATE, dates=DateOrder.MONTH_FIRST)
FC, PH = measure(Measure.FREE_CHLORINE), measure(Measure.PH)


def manner(*columns: Column) -> Manner:
    return Manner(columns=columns, kit=KIT, units=Units.US, zone="America/Chicago", latest=LATEST)


@pytest.mark.parametrize(
    ("column", "cell", "value", "low", "high"),
    [
        (FC, "<0.5", 0.25, 0.0, 0.5),
        (FC, "3-5", 4.0, 2.8, 5.0),
        (FC, "3 to 5 ppm", 4.0, 2.8, 5.0),
        (FC, "~3", 3.0, 2.8, 3.0),
        (FC, ">10", 10.0, 10.0, 20.0),
        (FC, "10+", 10.0, 10.0, 20.0),
        (measure(Measure.PH, comma=True), "7,4", 7.4, 7.3, 7.5),
        (measure(Measure.SALT, comma=True), "3.200", 3200.0, None, None),
        (measure(Measure.SALT), "3,200 ppm", 3200.0, None, None),
        (measure(Measure.SALT, "g/l"), "3.2", 3200.0, None, None),
        (measure(Measure.SALT, "%"), "0.32", 3200.0, None, None),
        (measure(Measure.CALCIUM_HARDNESS, "dh", comma=True), "12,5", 223.1, None, None),
        (measure(Measure.CALCIUM_HARDNESS, "gpg"), "10", 171.2, None, None),
        (measure(Measure.TOTAL_ALKALINITY, "mmol/l"), "1.0", 100.1, None, None),
        (measure(Measure.TEMPERATURE, "f"), "82", 27.8, None, None),
        (measure(Measure.TEMPERATURE, "c"), "28", 28.0, None, None),
        (measure(Measure.TEMPERATURE, "c"), "82F", 27.8, None, None),
        (measure(Measure.PHOSPHATE, "ppb"), "300", 300.0, None, None),
        (measure(Measure.PHOSPHATE, "mg/l"), "0.3 mg/l", 300.0, None, None),
    ],
    ids=lambda value: str(getattr(value, "measure", value)),
)  # fmt: skip
def test_cells_of_readings(
    column: Column, cell: str, value: float, low: float | None, high: float | None
) -> None:
    """Degrees of hardness: 1 °dH = 17.85, 1 grain = 17.12 mg/L as CaCO3 (common practice)."""
    read = read_cell(column, cell, KIT)
    assert read is not None
    assert read.value == pytest.approx(value, rel=1e-3)
    assert read.typed == cell
    if low is not None:
        assert (read.low, read.high) == pytest.approx((low, high))


@pytest.mark.parametrize("cell", ["OK", "good", "ideal", "?7", "n/t"])
def test_a_word_is_no_reading(cell: str) -> None:
    assert read_cell(FC, cell, KIT) is None
    row = read_row(1, ["6/3/26", cell, "7.4"], manner(DATE, FC, PH))
    assert row.verdict is RowVerdict.QUESTIONED
    assert [value.measure for value in row.values] == [Measure.PH]
    assert "left out" in row.remarks[0].text.template


def test_a_value_that_no_water_has_is_refused_by_itself() -> None:
    with pytest.raises(InvalidInput):
        read_cell(PH, "74", KIT)
    row = read_row(1, ["6/3/26", "2", "74"], manner(DATE, FC, PH))
    assert row.verdict is RowVerdict.QUESTIONED
    assert [value.measure for value in row.values] == [Measure.FREE_CHLORINE]


@pytest.mark.parametrize(
    ("column", "cell", "mass_g", "volume_ml"),
    [
        (added("sodium_hypochlorite", "gal", 10.0), "1", None, 3785.4),
        (added("sodium_hypochlorite", "gal", 10.0), "1/2", None, 1892.7),
        (added("hydrochloric_acid", "floz"), "16", None, 473.2),
        (added("hydrochloric_acid"), "1 qt", None, 946.4),
        (added("sodium_bicarbonate", "lb"), "2.5", 1134.0, None),
        (added("sodium_bicarbonate"), "3", 1360.8, None),
        (added("sodium_chloride", "kg"), "20", 20_000.0, None),
    ],
    ids=lambda value: str(getattr(value, "chemical", value)),
)  # fmt: skip
def test_amounts_of_a_product(
    column: Column, cell: str, mass_g: float | None, volume_ml: float | None
) -> None:
    (poured,) = read_row(1, ["6/3/26", cell], manner(DATE, column)).additions
    if volume_ml is not None:
        assert poured.volume_ml == pytest.approx(volume_ml, rel=1e-3)
    else:
        assert poured.mass_g == pytest.approx(mass_g, rel=1e-3)


def test_zero_and_nothing_are_no_addition() -> None:
    for cell in ("0", "0.0", "-", "", "none"):
        assert read_row(1, ["6/3/26", "2", cell], manner(DATE, FC, added("borax", "lb"))).additions == ()


def test_treatments_in_words() -> None:
    column = Column(role=ColumnRole.TREATMENT)
    row = read_row(1, ["6/3/26", "64 oz bicarb; added 1 gal bleach 12.5% + brushed"], manner(DATE, column))
    assert [(one.chemical, one.strength_percent) for one in row.additions] == [
        ("sodium_bicarbonate", 100.0),
        ("sodium_hypochlorite", 12.5),
    ]
    assert row.note == "brushed"
    assert row.verdict is RowVerdict.QUESTIONED


def test_product_and_amount_in_two_columns() -> None:
    columns = (DATE, Column(role=ColumnRole.PRODUCT), Column(role=ColumnRole.AMOUNT))
    row = read_row(1, ["6/3/26", "Muriatic acid 15%", "1 qt"], manner(*columns))
    assert [(one.chemical, one.strength_percent) for one in row.additions] == [("hydrochloric_acid", 15.0)]
    unknown = read_row(1, ["6/3/26", "Magic dust", "1 qt"], manner(*columns))
    assert (unknown.additions, unknown.note) == ((), "Magic dust 1 qt")


@pytest.mark.parametrize(
    ("cell", "clarity"),
    [
        ("Clear", Clarity.CLEAR),
        ("a bit cloudy", Clarity.CLOUDY),
        ("GREEN!", Clarity.GREEN),
        ("cannot see drain", Clarity.DRAIN_HIDDEN),
    ],
)
def test_what_was_seen(cell: str, clarity: Clarity) -> None:
    seen = read_row(1, ["6/3/26", cell], manner(DATE, Column(role=ColumnRole.CLARITY))).visual_check
    assert seen is not None
    assert seen.clarity is clarity


@pytest.mark.parametrize(
    ("cells", "said"),
    [
        (["", "2"], "no day"),
        (["soon", "2"], "no day"),
        (["6/3/27", "2"], "future"),
        (["6/3/1980", "2"], "1990"),
        (["6/3/26", "OK"], "Nothing"),
    ],
)
def test_rows_that_are_refused(cells: list[str], said: str) -> None:
    row = read_row(7, cells, manner(DATE, FC))
    assert (row.verdict, row.number, row.at) == (RowVerdict.REFUSED, 7, None)
    assert any(said in remark.text.template for remark in row.remarks)


def test_a_day_without_a_time_is_noon_there_and_two_rows_of_it_stand_apart() -> None:
    rows = read_rows([["6/3/26", "2"], ["6/3/26", "3"], ["", ""]], manner(DATE, FC))
    assert [row.at and row.at.astimezone(UTC).isoformat() for row in rows] == [
        "2026-06-03T17:00:00+00:00",
        "2026-06-03T17:01:00+00:00",
        None,
    ]
    assert rows[2].verdict is RowVerdict.EMPTY


def test_what_was_added_went_in_after_the_test_of_its_row() -> None:
    row = read_row(1, ["6/3/26", "2", "1"], manner(DATE, FC, added("borax", "lb")))
    assert row.at is not None
    assert row.added_at is not None
    assert row.added_at > row.at


@given(
    cells=st.lists(st.text(max_size=30), min_size=6, max_size=6),
    comma=st.booleans(),
    unit=st.sampled_from(sorted(NOTEBOOK_UNITS)),
)
def test_whatever_stands_in_a_row_it_is_read_or_said(cells: list[str], comma: bool, unit: str) -> None:
    columns = (
        DATE,
        measure(Measure.CALCIUM_HARDNESS, unit, comma=comma),
        measure(Measure.TEMPERATURE, "f", comma=comma),
        added("hydrochloric_acid", "gal"),
        Column(role=ColumnRole.TREATMENT),
        Column(role=ColumnRole.CLARITY),
    )
    row = read_row(1, ["6/3/26", *cells[1:]], manner(*columns))
    said = row.values or row.additions or row.visual_check or row.note or row.remarks
    assert (
        said
        or row.verdict is RowVerdict.EMPTY
        or all(not one.strip() or one.strip() in "-–—.x?X0" for one in cells[1:])
    )

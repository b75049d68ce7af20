"""Days and times of notebooks. Serial days: 45292 is 2024-01-01 in every spreadsheet (common practice)."""

from datetime import date, time, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.notebook.dates import DateOrder, are_dates, date_order, read_date, read_time

MDY, DMY, YMD = DateOrder.MONTH_FIRST, DateOrder.DAY_FIRST, DateOrder.YEAR_FIRST


@pytest.mark.parametrize(
    ("cell", "order", "day"),
    [
        ("2026-06-03", MDY, date(2026, 6, 3)),
        ("2026/6/3 18:40", DMY, date(2026, 6, 3)),
        ("6/3/26", MDY, date(2026, 6, 3)),
        ("3.6.2026", DMY, date(2026, 6, 3)),
        ("26-06-03", YMD, date(2026, 6, 3)),
        ("June 3rd, 2026", MDY, date(2026, 6, 3)),
        ("Wed, Jun 3 2026 6:40 PM", MDY, date(2026, 6, 3)),
        ("3. Mai 2026", DMY, date(2026, 5, 3)),
        ("03-Jun-98", DMY, date(1998, 6, 3)),
        ("20260603", MDY, date(2026, 6, 3)),
        ("45292", MDY, date(2024, 1, 1)),
        ("45292.75", MDY, date(2024, 1, 1)),
        ("31/2/2026", DMY, None),
        ("13/13/2026", MDY, None),
        ("yesterday", MDY, None),
        ("7.4", DMY, None),
        ("0000-00-00", YMD, None),
        ("99999999", YMD, None),
    ],
    ids=str,
)
def test_days(cell: str, order: DateOrder, day: date | None) -> None:
    assert read_date(cell, order) == day


@pytest.mark.parametrize(
    ("cell", "hour"),
    [
        ("18:40", time(18, 40)),
        ("6:40 pm", time(18, 40)),
        ("12 am", time(0, 0)),
        ("12:05 p.m.", time(12, 5)),
        ("2026-06-03T18:40:05Z", time(18, 40, 5)),
        ("6/3/26 7:05", time(7, 5)),
        ("45292.75", time(18, 0)),
        ("0.5", time(12, 0)),
        ("2026-06-03", None),
        ("25:00", None),
        ("13 pm", None),
    ],
    ids=str,
)
def test_times(cell: str, hour: time | None) -> None:
    assert read_time(cell) == hour


def test_the_order_is_told_by_days_over_twelve_then_by_how_the_days_run() -> None:
    assert date_order(["3/6/26", "13/6/26"], month_first=True) is DMY
    assert date_order(["6/3/26", "6/13/26"], month_first=False) is MDY
    assert date_order(["2026-06-03"], month_first=False) is YMD
    assert date_order(["3/6/26", "4/6/26", "5/6/26"], month_first=True) is DMY  # June, day by day
    assert date_order(["5/6/26"], month_first=True) is MDY
    assert date_order(["5/6/26"], month_first=False) is DMY


@given(
    first=st.dates(date(1990, 1, 1), date(2060, 1, 1)),
    step=st.integers(1, 9),
    order=st.sampled_from([MDY, DMY]),
)
def test_a_year_of_days_written_either_way_comes_back(first: date, step: int, order: DateOrder) -> None:
    days = [first + timedelta(days=step * n) for n in range(40)]
    cells = [day.strftime("%m/%d/%Y" if order is MDY else "%d/%m/%Y") for day in days]
    found = date_order(cells, month_first=order is DMY)
    assert [read_date(cell, found) for cell in cells] == days


def test_numbers_of_a_water_are_no_days() -> None:
    assert not are_dates(["7.4", "7.6", "3"])
    assert not are_dates([])
    assert are_dates(["6/3/26", "6/10/26", "rain"])

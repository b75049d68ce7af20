"""Dates and times as people write them, with the order of day and month told by the whole column."""

import re
from collections.abc import Sequence
from datetime import date, time, timedelta
from enum import StrEnum
from itertools import pairwise

_EXCEL_FIRST = date(1899, 12, 30)  # serial 0, with the leap day that spreadsheets believe in; common practice
_FIRST_SERIAL, _LAST_SERIAL = 32_874, 60_000  # 1990 to 2064
_MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
_OTHER_MONTHS = {"mär": 3, "mai": 5, "okt": 10, "dez": 12, "ene": 1, "abr": 4, "ago": 8, "dic": 12}
_NUMBERS = re.compile(r"(\d{1,4})\s*[-/.\s]\s*(\d{1,2})\s*[-/.\s]\s*(\d{1,4})(?!\d)")
_NAMED_FIRST = re.compile(
    r"(?:[a-z]+,?\s+)?([^\W\d]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{2,4})", re.IGNORECASE
)
_NAMED_MIDDLE = re.compile(
    r"(?:[a-z]+,?\s+)?(\d{1,2})(?:st|nd|rd|th)?\.?[\s-]+([^\W\d]{3,9})\.?,?[\s-]+(\d{2,4})", re.IGNORECASE
)
_CLOCK = re.compile(
    r"(\d{1,2})(?:[:.h](\d{2}))?(?::(\d{2})(?:\.\d+)?)?\s*([ap])\.?m\.?|(\d{1,2})[:h](\d{2})(?::(\d{2}))?",
    re.IGNORECASE,
)
_CENTURY_FROM = 70


class DateOrder(StrEnum):
    """What comes first in a date of numbers. A year of four digits in front is always read so."""

    YEAR_FIRST = "year_first"
    MONTH_FIRST = "month_first"
    DAY_FIRST = "day_first"


def read_date(text: str, order: DateOrder) -> date | None:
    """The day that a cell names; None where it names none."""
    cell = text.strip()
    if (found := _NUMBERS.match(cell)) is not None:
        return _of_numbers(found[1], found[2], found[3], order)
    if (found := _NAMED_FIRST.match(cell)) is not None:
        return _day(_year(found[3]), _month(found[1]), int(found[2]))
    if (found := _NAMED_MIDDLE.match(cell)) is not None:
        return _day(_year(found[3]), _month(found[2]), int(found[1]))
    if re.fullmatch(r"(?:19|20)\d{6}", cell):
        return _day(int(cell[:4]), int(cell[4:6]), int(cell[6:]))
    if re.fullmatch(r"\d{5}(\.\d+)?", cell) and _FIRST_SERIAL <= float(cell) <= _LAST_SERIAL:
        return _EXCEL_FIRST + timedelta(days=int(float(cell)))
    return None


def read_time(text: str) -> time | None:
    """The time of day that stands in a cell, after a date or by itself; None where none does."""
    cell = text.strip()
    if re.fullmatch(r"\d{5}\.\d+|0?\.\d+", cell):
        seconds = round((float(cell) % 1) * 86_400)
        return time(min(seconds, 86_399) // 3600, min(seconds, 86_399) // 60 % 60, min(seconds, 86_399) % 60)
    after = _NUMBERS.sub(" ", cell, count=1) if _NUMBERS.match(cell) else cell
    after = re.sub(r"^\s*T", " ", after)
    found = _CLOCK.search(after)
    if found is None:
        return None
    hour, minute, second = (
        int(found[1] or found[5]),
        int(found[2] or found[6] or 0),
        int(found[3] or found[7] or 0),
    )
    if found[4]:
        if not 1 <= hour <= 12:
            return None
        hour = hour % 12 + (12 if found[4].lower() == "p" else 0)
    return time(hour, minute, second) if hour < 24 and minute < 60 and second < 60 else None


def date_order(cells: Sequence[str], *, month_first: bool) -> DateOrder:
    """What comes first in a column's dates: the order in which all are days, else in which they run on.

    `month_first` decides where both do.
    """
    numbers = [found for cell in cells if (found := _NUMBERS.match(cell.strip())) is not None]
    if not numbers or all(len(found[1]) == 4 for found in numbers):
        return DateOrder.YEAR_FIRST if numbers else _by_habit(month_first=month_first)
    by = {
        order: [_of_numbers(n[1], n[2], n[3], order) for n in numbers]
        for order in (DateOrder.MONTH_FIRST, DateOrder.DAY_FIRST)
    }
    bad = {order: sum(day is None for day in days) for order, days in by.items()}
    if len(set(bad.values())) > 1:
        return min(bad, key=bad.__getitem__)
    jumps = {order: _jumps([day for day in days if day is not None]) for order, days in by.items()}
    if len(set(jumps.values())) > 1:
        return min(jumps, key=jumps.__getitem__)
    return _by_habit(month_first=month_first)


def are_dates(cells: Sequence[str]) -> bool:
    """Whether most of what stands in a column are days."""
    tried = list(cells[:200])
    read = sum(any(read_date(cell, order) is not None for order in DateOrder) for cell in tried)
    return bool(tried) and read >= 0.6 * len(tried)


def _by_habit(*, month_first: bool) -> DateOrder:
    return DateOrder.MONTH_FIRST if month_first else DateOrder.DAY_FIRST


def _jumps(days: Sequence[date]) -> int:
    """How far one has to jump from row to row, in days: a notebook is written from day to day."""
    return sum(abs((b - a).days) for a, b in pairwise(days))


def _of_numbers(a: str, b: str, c: str, order: DateOrder) -> date | None:
    if len(a) == 4:
        return _day(int(a), int(b), int(c)) if len(c) <= 2 else None
    if len(a) > 2 or len(c) == 3:
        return None
    if order is DateOrder.YEAR_FIRST:
        return _day(_year(a), int(b), int(c)) if len(c) <= 2 else _of_numbers(a, b, c, DateOrder.DAY_FIRST)
    month, day = (int(a), int(b)) if order is DateOrder.MONTH_FIRST else (int(b), int(a))
    return _day(_year(c), month, day)


def _month(word: str) -> int:
    short = word[:3].lower()
    return _MONTHS.index(short) + 1 if short in _MONTHS else _OTHER_MONTHS.get(short, 0)


def _year(digits: str) -> int:
    number = int(digits)
    if len(digits) > 2:
        return number
    return number + (1900 if number >= _CENTURY_FROM else 2000)


def _day(year: int, month: int, day: int) -> date | None:
    try:
        return date(year, month, day)
    except ValueError:
        return None

"""One row of a notebook read by its columns: readings, what was added, what was seen, what is doubtful.

Nothing is guessed in silence: a cell that says no number ("OK") is left out and said; a row without a day is
refused; what nobody can tell to be right is questioned.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from enum import StrEnum
from zoneinfo import ZoneInfo

from kumpan.core.dosing.typed_amount import read_amount
from kumpan.core.errors import InvalidInput
from kumpan.core.journal import AdditionMade, Clarity, Level, VisualCheck, readings_of
from kumpan.core.messages import Message, Verbatim
from kumpan.core.notebook.columns import (
    NOTEBOOK_UNITS,
    Column,
    ColumnRole,
    chemical_in,
    in_plain_digits,
    number_in,
)
from kumpan.core.notebook.dates import read_date, read_time
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.testing.kits import Kit
from kumpan.core.testing.methods import Measured
from kumpan.core.testing.plausibility import questions
from kumpan.core.testing.test_line import read_value

NOON = time(12, 0)  # of a day without a time
_DIP = timedelta(minutes=5)  # what was added went in after the test
_EMPTY = frozenset(["", "-", "--", "—", "–", "n/a", "na", "nan", "none", "null", ".", "x", "?"])
_BETWEEN = re.compile(r"\s*(\d[\d.,]*)\s*(?:-|–|to)\s*(\d[\d.,]*)\s*(.*)")
_CLARITY_WORDS: tuple[tuple[Clarity, str], ...] = (
    (Clarity.GREEN, "green algae swamp"),
    (Clarity.DRAIN_HIDDEN, "cannot see|can't see|drain hidden|no drain"),
    (Clarity.CLOUDY, "cloudy milky murky"),
    (Clarity.HAZY, "hazy dull slightly"),
    (Clarity.CLEAR, "clear good ok fine sparkling blue great"),
)
MOST_NOTE, FIRST_YEAR = 500, 1990
LONGEST_NUMBER = 80  # characters of an amount with its unit; what is longer is prose
_DIGITS = re.compile(r"\d[\d.,]*")
_STRENGTH = re.compile(r"(\d+(?:\.\d+)?)\s*%")
_PIECES = re.compile(r"\s*(?:;|\+|&|\band\b|,(?!\d)|\n)\s*", re.IGNORECASE)
_AMOUNT_THEN = re.compile(
    r"(?P<amount>[\d.,/½¼¾\s]+\s*[a-z.]*(?:\s*oz\.?)?)\s+(?:of\s+)?(?P<what>[a-z].*)", re.IGNORECASE
)
_THEN_AMOUNT = re.compile(r"(?P<what>[a-z][^\d]*?)[\s:,-]+(?P<amount>\d.*)", re.IGNORECASE)


class RowVerdict(StrEnum):
    """What becomes of a row."""

    MADE = "made"
    QUESTIONED = "questioned"  # made, and worth a look
    REFUSED = "refused"
    EMPTY = "empty"


@dataclass(frozen=True, kw_only=True)
class Remark:
    """What is to be said about a cell; `column` None for the row."""

    column: int | None
    text: Message


@dataclass(frozen=True, kw_only=True)
class RowRead:
    """What a row says. `at` is None where no day could be read, which refuses it."""

    number: int
    verdict: RowVerdict
    at: datetime | None = None
    pool: str = ""
    person: str = ""
    note: str = ""
    values: tuple[Measured, ...] = ()
    additions: tuple[AdditionMade, ...] = ()
    visual_check: VisualCheck | None = None
    remarks: tuple[Remark, ...] = ()

    @property
    def added_at(self) -> datetime | None:
        """When what was added went in: after the test of the same row."""
        return None if self.at is None else self.at + (_DIP if self.values else timedelta())


@dataclass(frozen=True, kw_only=True)
class Manner:
    """How a whole notebook is read: its columns, kit, the units of bare amounts, and the zone of its days."""

    columns: tuple[Column, ...]
    kit: Kit
    units: Units
    zone: str
    latest: datetime


def read_rows(rows: Sequence[Sequence[str]], manner: Manner, first: int = 1) -> list[RowRead]:
    """All rows, in their order; `first` is the number of the first. Rows of one day stand a minute apart."""
    read = [read_row(number, row, manner) for number, row in enumerate(rows, start=first)]
    seen: dict[tuple[str, datetime], int] = {}
    apart: list[RowRead] = []
    for one in read:
        if one.at is None:
            apart.append(one)
            continue
        times = seen[one.pool, one.at] = seen.get((one.pool, one.at), -1) + 1
        apart.append(replace(one, at=one.at + timedelta(minutes=times)) if times else one)
    return apart


def read_row(number: int, cells: Sequence[str], manner: Manner) -> RowRead:
    """One row, by its columns."""
    if all(cell.strip().lower() in _EMPTY for cell in cells):
        return RowRead(number=number, verdict=RowVerdict.EMPTY)
    return _Row(manner).read(number, cells)


class _Row:
    """What has been read of one row so far."""

    def __init__(self, manner: Manner) -> None:
        self._manner = manner
        self._day: date | None = None
        self._hour: time | None = None
        self._words: dict[ColumnRole, str] = {}
        self._notes: list[str] = []
        self._values: list[Measured] = []
        self._additions: list[AdditionMade] = []
        self._seen: VisualCheck | None = None
        self._remarks: list[Remark] = []

    def read(self, number: int, cells: Sequence[str]) -> RowRead:
        for n, column in enumerate(self._manner.columns):
            cell = cells[n].strip() if n < len(cells) else ""
            if cell.lower() not in _EMPTY and column.role is not ColumnRole.SKIP:
                self._take(n, column, cell)
        self._product_and_amount()
        return self._judged(number)

    def _say(self, column: int | None, text: Message) -> None:
        self._remarks.append(Remark(column=column, text=text))

    def _take(self, n: int, column: Column, cell: str) -> None:
        match column.role:
            case ColumnRole.DATE | ColumnRole.TIME:
                self._when(n, column, cell)
            case ColumnRole.MEASURE:
                self._measure(n, column, cell)
            case ColumnRole.ADDED:
                self._added(n, column, cell)
            case ColumnRole.TREATMENT:
                self._treatment(n, cell)
            case ColumnRole.CLARITY:
                self._seen = _visual_check(cell)
                if self._seen is None:
                    self._notes.append(cell)
            case ColumnRole.NOTE:
                self._notes.append(cell)
            case _:
                self._words[column.role] = cell

    def _when(self, n: int, column: Column, cell: str) -> None:
        shown = Verbatim(cell[:40])
        if column.role is ColumnRole.TIME:
            self._hour = read_time(cell)
            if self._hour is None:
                self._say(n, Message('"{cell}" is no time of day; noon is taken.', cell=shown))
            return
        self._day = read_date(cell, column.dates)
        self._hour = self._hour or read_time(cell)
        if self._day is None:
            self._say(n, Message('"{cell}" is no day; write it like 2026-06-01.', cell=shown))

    def _measure(self, n: int, column: Column, cell: str) -> None:
        try:
            value = read_cell(column, cell, self._manner.kit) if len(cell) <= LONGEST_NUMBER else None
        except InvalidInput as trouble:
            self._say(n, trouble.message)
            return
        if value is not None:
            self._values.append(value)
            return
        self._say(n, Message('"{cell}" is no number; this reading is left out.', cell=Verbatim(cell[:40])))

    def _added(self, n: int, column: Column, cell: str) -> None:
        amount = _DIGITS.sub(
            lambda one: in_plain_digits(one[0], decimal_comma=column.decimal_comma), cell, count=1
        )
        if number_in(amount, decimal_comma=False) == 0.0:
            return
        if re.fullmatch(r"[\d.\s/½¼¾]+", amount) and column.unit:
            amount = f"{amount} {column.unit}"
        self._pour(n, _product(column.chemical, column.strength_percent), amount)

    def _treatment(self, n: int, cell: str) -> None:
        """Amounts and products in words, one or several; what is not understood stays as a note."""
        for piece in _PIECES.split(cell):
            words = re.sub(r"^(added|add|put in|used)\s+", "", piece.strip(), flags=re.IGNORECASE)
            bare = _STRENGTH.sub("", words).strip()
            parts = _AMOUNT_THEN.fullmatch(bare) or _THEN_AMOUNT.fullmatch(bare)
            key = chemical_in(parts["what"]) if parts else None
            if parts is not None and key is not None:
                self._pour(n, _product(key, _strength_in(words)), parts["amount"].strip())
            elif bare:
                self._note_instead(n, piece.strip())

    def _product_and_amount(self) -> None:
        what, amount = self._words.get(ColumnRole.PRODUCT, ""), self._words.get(ColumnRole.AMOUNT, "")
        key = chemical_in(what) if what else None
        if key is not None and amount:
            self._pour(None, _product(key, _strength_in(what)), amount)
        elif what:
            self._note_instead(None, f"{what} {amount}".strip())

    def _note_instead(self, column: int | None, words: str) -> None:
        self._notes.append(words)
        self._say(column, Message('"{words}" stands as a note.', words=Verbatim(words[:60])))

    def _pour(self, column: int | None, product: Product, amount: str) -> None:
        try:
            read = read_amount(product, amount[:LONGEST_NUMBER], units=self._manner.units)
        except InvalidInput as trouble:
            self._say(column, trouble.message)
            self._notes.append(f"{product.label}: {amount}"[:MOST_NOTE])
            return
        self._additions.append(
            AdditionMade(
                chemical=product.chemical,
                strength_percent=product.strength_percent,
                label=product.label,
                mass_g=read.mass_g,
                volume_ml=read.volume_ml,
            )
        )

    def _refused(self, at: datetime | None) -> Message | None:
        if at is None:
            return Message("This row has no day that can be read.")
        if at > self._manner.latest:
            return Message("This day lies in the future; check the order of day and month.")
        if at.year < FIRST_YEAR:
            return Message("This day lies before 1990; check the year.")
        if not (self._values or self._additions or self._seen or self._notes):
            return Message("Nothing of this row could be read.")
        return None

    def _judged(self, number: int) -> RowRead:
        at = None
        if self._day is not None:
            at = datetime.combine(self._day, self._hour or NOON, ZoneInfo(self._manner.zone))
        refused = self._refused(at)
        if refused is not None:
            self._say(None, refused)
        for one in questions(readings_of(self._values), None):
            self._say(None, one.text)
        verdict = RowVerdict.QUESTIONED if self._remarks else RowVerdict.MADE
        return RowRead(
            number=number,
            verdict=RowVerdict.REFUSED if refused else verdict,
            at=None if refused else at,
            pool=self._words.get(ColumnRole.POOL, ""),
            person=self._words.get(ColumnRole.PERSON, "")[:120],
            note="; ".join(self._notes)[:MOST_NOTE],
            values=tuple(self._values),
            additions=tuple(self._additions),
            visual_check=self._seen,
            remarks=tuple(self._remarks),
        )


def _product(key: str, strength_percent: float | None) -> Product:
    return Product("", key, strength_percent or CATALOGUE[key].usual_strength_percent)


def _strength_in(words: str) -> float | None:
    found = _STRENGTH.search(words)
    percent = float(found[1]) if found else 0.0
    return percent if 0 < percent <= 100 else None


def _visual_check(cell: str) -> VisualCheck | None:
    lower = cell.lower()
    for clarity, words in _CLARITY_WORDS:
        if any(word in lower for word in (words.split("|") if "|" in words else words.split())):
            return VisualCheck(clarity, Level.NORMAL)
    return None


def read_cell(column: Column, cell: str, kit: Kit) -> Measured | None:
    """A reading as a notebook has it: "7,4", "<0.5", "3-5", "1.200", ">10", "82F". None for no number.

    "<0.5" is half of it, and may be anything below; "3-5" is the middle. Raises InvalidInput for a value
    that no water has.
    """
    assert column.measure is not None
    if (between := _BETWEEN.fullmatch(cell)) is not None:
        ends = [in_plain_digits(between[k], decimal_comma=column.decimal_comma) for k in (1, 2)]
        low, high = (read_value(column.measure, _typed(column, end), kit, column.unit or "f") for end in ends)
        if low.value < high.value:
            middle = replace(low, value=(low.value + high.value) / 2, typed=cell[:40])
            return replace(middle, low=low.low, high=high.high)
    number = number_in(cell, decimal_comma=column.decimal_comma)
    if number is None:
        return None
    typed = re.sub(
        r"[+-]?\d[\d.,\s']*\d|[+-]?\d",
        lambda one: in_plain_digits(one[0], decimal_comma=column.decimal_comma),
        cell,
        count=1,
    )
    if typed.startswith("<"):
        below = read_value(column.measure, _typed(column, typed.lstrip("<= ")), kit, column.unit or "f")
        return replace(below, value=below.value / 2, low=0.0, high=below.value, typed=cell[:40])
    return replace(
        read_value(column.measure, _typed(column, typed.lstrip("~≈= ")), kit, column.unit or "f"),
        typed=cell[:40],
    )


def _typed(column: Column, cell: str) -> str:
    """A cell in the unit that the test line knows."""
    factor = NOTEBOOK_UNITS.get(column.unit, ("", 1.0))[1]
    if column.measure is Measure.TEMPERATURE or factor in (0.0, 1.0):
        return cell
    beyond = ">" if cell.startswith(">") else ""
    number = number_in(cell, decimal_comma=False)
    if number is None or re.search(r"[a-z%]", cell, re.IGNORECASE):
        return cell
    ppm = number * factor
    if column.measure is Measure.PHOSPHATE:
        return f"{beyond}{ppm * 1000.0:.10g}"
    return f"{beyond}{ppm:.10g}"

"""How a file is read: chosen by whoever brings it in, stored with it, offered for the next one like it."""

from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import sha256
from typing import Any
from uuid import UUID

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.notebook.columns import (
    NOTEBOOK_UNITS,
    Column,
    ColumnRole,
    TableKind,
    guess_columns,
    guess_kind,
    plain,
)
from kumpan.core.notebook.dates import DateOrder
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.typed import UNITS
from kumpan.core.quantities.units import Units

Rows = Sequence[Sequence[str]]
SAMPLE = 400  # rows that a guess reads


@dataclass(frozen=True, kw_only=True)
class FileManner:
    """Which sheet and which row of it is the header (-1: none), what it tells of and by which columns.

    `pool_id`: all rows are of it, where no column names pools. `units`: of bare amounts.
    """

    kind: TableKind
    tab: int
    header_row: int
    columns: tuple[Column, ...]
    pool_id: UUID | None = None
    kit: str = "drops"
    units: Units = Units.US

    def stored(self) -> dict[str, Any]:
        """As plain values."""
        return {
            "kind": self.kind,
            "tab": self.tab,
            "header_row": self.header_row,
            "columns": [dict(vars(column)) for column in self.columns],
            "pool_id": None if self.pool_id is None else str(self.pool_id),
            "kit": self.kit,
            "units": self.units,
        }


def from_stored(stored: dict[str, Any]) -> FileManner:
    """From plain values. Raises LookupError, ValueError or TypeError for what an older program stored."""
    return FileManner(
        kind=TableKind(stored["kind"]),
        tab=int(stored["tab"]),
        header_row=int(stored["header_row"]),
        columns=tuple(_column(one) for one in stored["columns"]),
        pool_id=None if stored["pool_id"] is None else UUID(stored["pool_id"]),
        kit=str(stored["kit"]),
        units=Units(stored["units"]),
    )


def _column(stored: dict[str, Any]) -> Column:
    measure = stored["measure"]
    return Column(
        role=ColumnRole(stored["role"]),
        measure=None if measure is None else Measure(measure),
        chemical=str(stored["chemical"]),
        strength_percent=stored["strength_percent"],
        unit=str(stored["unit"]),
        decimal_comma=bool(stored["decimal_comma"]),
        dates=DateOrder(stored["dates"]),
    )


def guessed(tables: Sequence[Rows], *, units: Units) -> FileManner:
    """The sheet with the most rows, its header where most words stand, what its columns most likely are."""
    tab = max(range(len(tables)), key=lambda n: len(tables[n]))
    return guessed_in(tables[tab], tab, None, units=units)


def guessed_in(rows: Rows, tab: int, kind: TableKind | None, *, units: Units) -> FileManner:
    """The same for one tab, and for one kind where it is named."""
    header_row = _header_row(rows)
    header = rows[header_row] if header_row >= 0 else [""] * len(rows[0])
    below = rows[header_row + 1 : header_row + 1 + SAMPLE]
    found = kind or guess_kind(header, below)
    columns = guess_columns(header, below, found, month_first=units is Units.US)
    return FileManner(kind=found, tab=tab, header_row=header_row, columns=columns, units=units)


def _header_row(rows: Rows) -> int:
    """The first of the top rows in which most cells are words; -1 where none is."""
    for n, row in enumerate(rows[:20]):
        filled = [cell for cell in row if cell.strip()]
        words = [cell for cell in filled if any(c.isalpha() for c in cell) and not cell[0].isdigit()]
        if len(filled) > 1 and len(words) >= 0.7 * len(filled):
            return n
    return -1


def signature(tables: Sequence[Rows], manner: FileManner) -> str:
    """What tells a file's headers from any others."""
    header = tables[manner.tab][manner.header_row] if manner.header_row >= 0 else ()
    return sha256("\n".join(plain(cell) for cell in header).encode()).hexdigest()


def checked(manner: FileManner, tables: Sequence[Rows]) -> FileManner:
    """As it may be used on these rows. Raises InvalidInput, naming the field."""
    if not 0 <= manner.tab < len(tables):
        raise InvalidInput(Message("There is no such sheet in the file."), "tab")
    rows = tables[manner.tab]
    if not -1 <= manner.header_row < len(rows):
        raise InvalidInput(Message("There is no such row in the sheet."), "header_row")
    if len(manner.columns) > len(rows[0]):
        raise InvalidInput(Message("The sheet has fewer columns; choose the file again."), "columns")
    for column in manner.columns:
        _check_column(column)
    roles = {column.role for column in manner.columns}
    if manner.kind is TableKind.NOTEBOOK:
        if ColumnRole.DATE not in roles:
            raise InvalidInput(Message("Say which column holds the day."), "columns")
        if manner.pool_id is None and ColumnRole.POOL not in roles:
            raise InvalidInput(Message("Say which pool this is of, or which column names it."), "pool_id")
    return manner


def _check_column(column: Column) -> None:
    if (column.role is ColumnRole.MEASURE) != (column.measure is not None):
        raise InvalidInput(Message("Say which measure a column of readings holds."), "columns")
    if column.measure is Measure.SATURATION_INDEX:
        raise InvalidInput(Message("The index is computed, not measured; skip this column."), "columns")
    if column.role is ColumnRole.ADDED and column.chemical not in CATALOGUE:
        raise InvalidInput(Message("Say which product a column of amounts counts."), "columns")
    if column.strength_percent is not None and not 0 < column.strength_percent <= 100:
        raise InvalidInput(Message("Strength must be over 0 and at most 100 percent."), "columns")
    if column.unit and column.unit not in NOTEBOOK_UNITS and column.unit not in UNITS:
        raise InvalidInput(Message("This unit is not known; choose one of the list."), "columns")

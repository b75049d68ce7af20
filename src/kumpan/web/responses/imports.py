"""Files of one's own, as the screens show them."""

from datetime import datetime
from uuid import UUID

from pydantic import Field

from kumpan.core.notebook.columns import NOTEBOOK_UNITS, ColumnRole, TableKind
from kumpan.core.notebook.dates import DateOrder
from kumpan.core.notebook.rows import RowVerdict
from kumpan.core.products.catalogue import CATALOGUE
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.services.imports import files
from kumpan.services.imports.manner import FileManner
from kumpan.web.responses.base import Response, Text
from kumpan.wording.reader import Reader
from kumpan.wording.render import render

# Which roles the columns of each kind of table may have.
ROLES: dict[TableKind, tuple[tuple[ColumnRole, str], ...]] = {
    TableKind.NOTEBOOK: (
        (ColumnRole.SKIP, "Left out"),
        (ColumnRole.DATE, "Day"),
        (ColumnRole.TIME, "Time of day"),
        (ColumnRole.POOL, "Pool"),
        (ColumnRole.MEASURE, "Reading"),
        (ColumnRole.ADDED, "Amount of a product"),
        (ColumnRole.PRODUCT, "Product"),
        (ColumnRole.AMOUNT, "Amount"),
        (ColumnRole.TREATMENT, "What went in, in words"),
        (ColumnRole.CLARITY, "How the water looked"),
        (ColumnRole.PERSON, "Who"),
        (ColumnRole.NOTE, "Note"),
    ),
    TableKind.STOCK: (
        (ColumnRole.SKIP, "Left out"),
        (ColumnRole.PRODUCT, "Product"),
        (ColumnRole.STRENGTH, "Strength, %"),
        (ColumnRole.PACKAGE, "Package size"),
        (ColumnRole.PACKAGES, "How many"),
        (ColumnRole.PRICE, "Price of all"),
    ),
    TableKind.POOLS: (
        (ColumnRole.SKIP, "Left out"),
        (ColumnRole.POOL, "Name"),
        (ColumnRole.VOLUME, "Volume"),
        (ColumnRole.SURFACE, "Surface"),
        (ColumnRole.CHLORINATION, "Chlorination"),
        (ColumnRole.FILTER, "Filter"),
        (ColumnRole.PLACE, "Place"),
    ),
    TableKind.STOPS: (
        (ColumnRole.SKIP, "Left out"),
        (ColumnRole.POOL, "Pool"),
        (ColumnRole.WEEKDAY, "Weekday"),
        (ColumnRole.PERSON, "Technician"),
    ),
}


class ImportColumn(Response):
    """How a column is read."""

    role: ColumnRole
    measure: Measure | None
    chemical: str
    strength_percent: float | None
    unit: str
    decimal_comma: bool
    dates: DateOrder


class ImportManner(Response):
    """How a file is read, as it is sent back."""

    kind: TableKind
    tab: int
    header_row: int
    columns: tuple[ImportColumn, ...]
    pool_id: UUID | None
    kit: str
    metric: bool

    @classmethod
    def of_manner(cls, manner: FileManner) -> "ImportManner":
        """Read off a use case's value."""
        columns = tuple(ImportColumn.of(column) for column in manner.columns)
        told = {name: getattr(manner, name) for name in ("kind", "tab", "header_row", "pool_id", "kit")}
        return cls(**told, columns=columns, metric=manner.units is Units.METRIC)


class ImportedFile(Response):
    """A file. `state`: open, queued, applied, refused or undone; `done` of `total` rows are read."""

    id: UUID
    name: str
    created_at: datetime
    state: str
    done: int
    total: int
    trouble: str


class ImportView(Response):
    """A file as it would be read: its headers, its first rows, and the manner, a guess or as before."""

    file: ImportedFile
    manner: ImportManner
    as_before: bool
    tabs: tuple[str, ...]
    header: tuple[str, ...]
    sample: tuple[tuple[str, ...], ...]
    rows: int

    @classmethod
    def of_view(cls, view: files.FileView) -> "ImportView":
        """Read off a use case's value."""
        return cls(
            file=ImportedFile.of(view.file),
            manner=ImportManner.of_manner(view.manner),
            as_before=view.as_before,
            tabs=view.tabs,
            header=view.header,
            sample=view.sample,
            rows=view.rows,
        )


class ImportRemark(Response):
    """What is to be said of a row, or of one of its columns."""

    column: int | None
    text: Text


class ImportOutcome(Response):
    """What a row becomes."""

    number: int
    verdict: RowVerdict
    says: Text
    remarks: tuple[ImportRemark, ...]


class ImportPreview(Response):
    """What the first `read` of `rows` become."""

    made: int
    questioned: int
    refused: int
    read: int
    rows: int
    shown: tuple[ImportOutcome, ...]


class Named(Response):
    """A key and what it is called."""

    key: str
    name: str


class ImportChoices(Response):
    """What a column may be."""

    roles: dict[TableKind, tuple[Named, ...]]
    measures: tuple[Named, ...]
    chemicals: tuple[Named, ...]
    units: tuple[Named, ...] = Field(description="of readings; amounts take any unit of the trade")

    @classmethod
    def told(cls, reader: Reader) -> "ImportChoices":
        """All of them."""
        measured = [measure for measure in Measure if measure is not Measure.SATURATION_INDEX]
        return cls(
            roles={kind: tuple(Named(key=k, name=name) for k, name in rows) for kind, rows in ROLES.items()},
            measures=tuple(Named(key=one, name=render(NAMES[one], reader)) for one in measured),
            chemicals=tuple(Named(key=row.key, name=row.name) for row in CATALOGUE.values()),
            units=tuple(Named(key=key, name=name) for key, (name, _) in NOTEBOOK_UNITS.items()),
        )

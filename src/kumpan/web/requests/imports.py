"""How a file of one's own is to be read."""

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool, StrictInt

from kumpan.core.notebook.columns import Column, ColumnRole, TableKind
from kumpan.core.notebook.dates import DateOrder
from kumpan.core.notebook.rows import RowVerdict
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.formats.tables import MOST_COLUMNS
from kumpan.services.imports.manner import FileManner
from kumpan.web.requests.base import StrengthPercent, Strict


class ColumnIn(Strict):
    role: ColumnRole
    measure: Measure | None = None
    chemical: Annotated[str, Field(max_length=60)] = ""
    strength_percent: StrengthPercent | None = None
    unit: Annotated[str, Field(max_length=20)] = ""
    decimal_comma: StrictBool = False
    dates: DateOrder = DateOrder.YEAR_FIRST

    def to_core(self) -> Column:
        return Column(**dict(self))


class MannerIn(Strict):
    kind: TableKind
    tab: Annotated[StrictInt, Field(ge=0, le=100)] = 0
    header_row: Annotated[StrictInt, Field(ge=-1, le=100_000)] = 0
    columns: Annotated[list[ColumnIn], Field(max_length=MOST_COLUMNS)]
    pool_id: UUID | None = None
    kit: Annotated[str, Field(max_length=40)] = "drops"
    metric: StrictBool = False

    def to_core(self) -> FileManner:
        return FileManner(
            kind=self.kind,
            tab=self.tab,
            header_row=self.header_row,
            columns=tuple(column.to_core() for column in self.columns),
            pool_id=self.pool_id,
            kit=self.kit,
            units=Units.METRIC if self.metric else Units.US,
        )


class PreviewIn(MannerIn):
    """`verdict`: only rows of one."""

    verdict: RowVerdict | None = None

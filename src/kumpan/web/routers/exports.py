"""What one has here, out again: tables, the workspace as one file; and that file back in."""

import asyncio
from datetime import date
from enum import StrEnum
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response

from kumpan.formats.tables import write_csv, write_xlsx
from kumpan.services.exports.archive import archive_of, bring_back
from kumpan.services.exports.tables import TableOf, Wanted, table
from kumpan.web.requests.base import FIRST_DAY, LAST_DAY
from kumpan.web.responses.sharing import BroughtBack
from kumpan.web.scope import ScopeDep, UnitsDep

router = APIRouter(prefix="/api/v1", tags=["files"])
_ARCHIVE = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
DayQuery = Annotated[date | None, Query(ge=FIRST_DAY, le=LAST_DAY)]


class TableFormat(StrEnum):
    """As which file a table is written."""

    CSV = "csv"
    XLSX = "xlsx"


_TYPES = {
    TableFormat.CSV: "text/csv; charset=utf-8",
    TableFormat.XLSX: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
}


@router.get("/exports/{what}.{ending}", response_class=Response)
async def table_out(
    what: TableOf,
    ending: TableFormat,
    scope: ScopeDep,
    units: UnitsDep,
    *,
    pool_id: UUID | None = None,
    technician_id: UUID | None = None,
    first: DayQuery = None,
    last: DayQuery = None,
) -> Response:
    """Tests, additions, care or costs for a spreadsheet: of a pool, a technician's rounds, or all."""
    wanted = Wanted(pool_id=pool_id, technician_id=technician_id, first=first, last=last, units=units)
    found = await table(scope, what, wanted)
    if ending is TableFormat.CSV:
        content = await asyncio.to_thread(write_csv, found.header, found.rows)
    else:
        content = await asyncio.to_thread(write_xlsx, [(what, found.header, found.rows)])
    return _file(content, _TYPES[ending], f"{what}.{ending}")


@router.get("/workspace/archive.zip", response_class=Response)
async def archive_out(scope: ScopeDep) -> Response:
    """All of the workspace as one file of open formats."""
    return _file(await archive_of(scope), "application/zip", "archive.zip")


@router.post("/workspace/archive", status_code=201, openapi_extra=_ARCHIVE)
async def archive_in(request: Request, scope: ScopeDep) -> BroughtBack:
    """Bring an archive in, whole or not at all; the same again adds nothing."""
    return BroughtBack.of(await bring_back(scope, await request.body()))


def _file(content: bytes, media_type: str, name: str) -> Response:
    attached = {"content-disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=media_type, headers=attached)

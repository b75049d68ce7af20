"""Files of one's own brought in: tests, additions, stock, pools, stops from CSV and XLSX."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request

from kumpan.core.notebook.columns import TableKind
from kumpan.services.imports import files
from kumpan.services.imports.making import take_back
from kumpan.web.requests.imports import MannerIn, PreviewIn
from kumpan.web.responses.imports import ImportChoices, ImportedFile, ImportPreview, ImportView
from kumpan.web.scope import ReaderDep, ScopeDep, UnitsDep

router = APIRouter(prefix="/api/v1", tags=["files"])
_FILE = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/imports", status_code=201, openapi_extra=_FILE)
async def take_file(
    id: UUID,
    request: Request,
    scope: ScopeDep,
    units: UnitsDep,
    name: Annotated[str, Query(max_length=200)] = "",
) -> ImportView:
    """A CSV or XLSX file as it is; the answer is a guess of how to read it, beside its first rows."""
    return ImportView.of_view(await files.take(scope, id, await request.body(), name, units=units))


@router.get("/imports")
async def imports(scope: ScopeDep) -> list[ImportedFile]:
    """The last files that were brought in, the newest first."""
    return [ImportedFile.of(one) for one in await files.listed(scope)]


@router.get("/imports/choices")
async def import_choices(reader: ReaderDep, scope: ScopeDep) -> ImportChoices:  # noqa: ARG001 - members only
    """What a column may be said to hold."""
    return ImportChoices.told(reader)


@router.get("/imports/{file_id}")
async def one_import(
    file_id: UUID,
    scope: ScopeDep,
    units: UnitsDep,
    kind: TableKind | None = None,
    tab: Annotated[int | None, Query(ge=0, le=100)] = None,
) -> ImportView:
    """One file; guessed anew for a kind or a sheet that is named."""
    return ImportView.of_view(await files.view(scope, file_id, kind, tab, units=units))


@router.post("/imports/{file_id}/preview")
async def preview_import(
    file_id: UUID, manner: PreviewIn, scope: ScopeDep, reader: ReaderDep
) -> ImportPreview:
    """What its rows would become, made, questioned or refused each; nothing is written."""
    return ImportPreview.of(await files.preview(scope, file_id, manner.to_core(), manner.verdict), reader)


@router.post("/imports/{file_id}/apply", status_code=202)
async def apply_import(file_id: UUID, manner: MannerIn, scope: ScopeDep) -> ImportedFile:
    """Make it into entries, all or none, in the background; ask for the file to see how far it is."""
    return ImportedFile.of(await files.queue(scope, file_id, manner.to_core()))


@router.post("/imports/{file_id}/undo")
async def undo_import(file_id: UUID, scope: ScopeDep) -> int:
    """Take back all that it became; how many entries that were."""
    return await take_back(scope, file_id)


@router.post("/imports/{file_id}/drop")
async def drop_import(file_id: UUID, scope: ScopeDep) -> bool:
    """A file that was not made into anything is forgotten."""
    await files.drop(scope, file_id)
    return True

"""Papers as PDF: reports, plans, records, the notice at the gate; and the mark that stands on them."""

from datetime import date
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response

from kumpan.formats.pdf import Document, pdf_of
from kumpan.services.photos.photos import set_mark
from kumpan.services.reports.documents import PaperKind, PaperWanted, document, notice
from kumpan.services.workers import WORKERS
from kumpan.web.requests.base import FIRST_DAY, LAST_DAY
from kumpan.web.requests.photos import MarkIn
from kumpan.web.scope import ReaderDep, ScopeDep

router = APIRouter(prefix="/api/v1", tags=["files"])
PDF = "application/pdf"
DayQuery = Annotated[date | None, Query(ge=FIRST_DAY, le=LAST_DAY)]


@router.get("/pools/{pool_id}/papers/{kind}.pdf", response_class=Response)
async def paper(
    pool_id: UUID,
    kind: PaperKind,
    scope: ScopeDep,
    reader: ReaderDep,
    *,
    first: DayQuery = None,
    last: DayQuery = None,
    key: Annotated[str, Query(max_length=80)] = "",
    list_id: UUID | None = None,
) -> Response:
    """A visit, a season, a plan, a procedure (`key`), an opening or closing (`list_id`), or a water log."""
    wanted = PaperWanted(pool_id=pool_id, first=first, last=last, key=key, list_id=list_id, reader=reader)
    return await _printed(await document(scope, kind, wanted), f"{kind}.pdf")


@router.post("/pools/{pool_id}/papers/notice.pdf", response_class=Response)
async def notice_paper(pool_id: UUID, request: Request, scope: ScopeDep, reader: ReaderDep) -> Response:
    """A no-swim notice with a code that opens what the pool says now; makes a link for guests."""
    address = str(request.base_url).rstrip("/")
    return await _printed(await notice(scope, pool_id, address, reader), "notice.pdf")


@router.post("/workspace/mark")
async def mark(given: MarkIn, scope: ScopeDep) -> bool:
    """The picture that stands on this workspace's papers; none without an image."""
    await set_mark(scope, given.content())
    return True


async def _printed(made: Document, name: str) -> Response:
    """Set in a process of its own: a page takes a third of a second."""
    content = await WORKERS.run(pdf_of, made)
    return Response(content, media_type=PDF, headers={"content-disposition": f'inline; filename="{name}"'})

"""Pools shared with another workspace, links of a pool, the archive, the journal as a file."""

from uuid import UUID

from fastapi import APIRouter, Request, Response

from kumpan.services.journal.export import JournalFile, journal_file
from kumpan.services.people import links
from kumpan.services.sharing import archive, shares
from kumpan.services.sharing.bring_in import bring_in
from kumpan.web.requests.people import SecretIn
from kumpan.web.requests.sharing import ArchiveIn, DeleteIn, LinkIn
from kumpan.web.responses.people import NewLink
from kumpan.web.responses.sharing import ArchivedPool, BroughtIn, JournalCopy, Offer, PoolLink, Share, Sharing
from kumpan.web.scope import ScopeDep

router = APIRouter(prefix="/api/v1", tags=["people"])
JSON_LINES = "application/jsonl"
SHA256 = "x-journal-sha256"


# Links of a pool.
@router.get("/links")
async def open_links(scope: ScopeDep) -> list[PoolLink]:
    """The links that let somebody in without an account: guests and calendar programs."""
    return [PoolLink.of(one) for one in await links.open_links(scope)]


@router.post("/pools/{pool_id}/links", status_code=201)
async def make_link(pool_id: UUID, given: LinkIn, scope: ScopeDep) -> NewLink:
    """A link to this pool; its secret is shown this once."""
    id_, secret = await links.new_link(scope, pool_id, given.kind, given.name)
    path = f"/guest/{secret}" if given.kind is links.LinkKind.GUEST else f"/api/v1/feeds/{secret}.ics"
    return NewLink(id=id_, path=path)


@router.post("/links/{link_id}/end")
async def end_link(link_id: UUID, scope: ScopeDep) -> bool:
    """It opens nothing any more, and no copy of it."""
    await links.end_link(scope, link_id)
    return True


# Sharing.
@router.get("/pools/{pool_id}/shares")
async def sharing(pool_id: UUID, scope: ScopeDep) -> Sharing:
    """Who else works on this pool, and what is offered."""
    found = await shares.sharing(scope, pool_id)
    return Sharing(
        home=found.home,
        own=found.own,
        shares=tuple(Share.seen_by(one, scope.workspace_id) for one in found.shares),
        offers=tuple(Offer.of_link(one) for one in found.offers),
    )


@router.post("/pools/{pool_id}/shares", status_code=201)
async def offer_share(pool_id: UUID, scope: ScopeDep) -> NewLink:
    """A link with which one other workspace takes part in this pool; shown this once."""
    return NewLink(id=None, path=f"/share/{await shares.offer(scope, pool_id)}")


@router.post("/pools/{pool_id}/offers/{offer_id}/end")
async def end_offer(pool_id: UUID, offer_id: UUID, scope: ScopeDep) -> bool:
    """The link opens nothing any more."""
    await shares.take_offer_back(scope, pool_id, offer_id)
    return True


@router.post("/shares")
async def accept_share(given: SecretIn, scope: ScopeDep) -> UUID:
    """Take part in a pool that another workspace offers; the pool."""
    return await shares.accept(scope, given.secret)


@router.post("/pools/{pool_id}/shares/{share_id}/end")
async def end_share(pool_id: UUID, share_id: UUID, scope: ScopeDep) -> bool:
    """End it: the home keeps the pool, the other a copy of the journal as it stands now."""
    await shares.end_share(scope, pool_id, share_id)
    return True


@router.get("/journal-copies")
async def journal_copies(scope: ScopeDep) -> list[JournalCopy]:
    """Copies of the journals of pools that one no longer works on."""
    return [JournalCopy.of(one) for one in await shares.journal_copies(scope)]


@router.get("/journal-copies/{copy_id}.jsonl", response_class=Response)
async def journal_copy(copy_id: UUID, scope: ScopeDep) -> Response:
    """One of them."""
    return _file(await shares.journal_copy(scope, copy_id), {})


# The journal as a file, the archive, deleting.
@router.get("/pools/{pool_id}/journal.jsonl", response_class=Response)
async def journal(pool_id: UUID, scope: ScopeDep) -> Response:
    """Every entry of the pool, superseded and taken back ones too, in the open journal format."""
    found: JournalFile = await journal_file(scope, pool_id)
    return _file(found.content, {SHA256: found.sha256})


_JOURNAL_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/pools/{pool_id}/journal", status_code=201, openapi_extra=_JOURNAL_BODY)
async def journal_in(pool_id: UUID, request: Request, scope: ScopeDep) -> BroughtIn:
    """Bring a journal in, in the open format: whole or not at all; the same file again adds nothing."""
    return BroughtIn.model_validate(await bring_in(scope, await request.body(), pool_id))


@router.post("/journals", status_code=201, openapi_extra=_JOURNAL_BODY)
async def any_journal_in(request: Request, scope: ScopeDep) -> BroughtIn:
    """The same for a file whose first line says which pool it is of."""
    return BroughtIn.model_validate(await bring_in(scope, await request.body()))


@router.get("/archived-pools")
async def archived_pools(scope: ScopeDep) -> list[ArchivedPool]:
    """Pools that were taken out of the lists."""
    found = await archive.archived(scope)
    return [
        ArchivedPool(
            id=pool.id,
            name=name,
            archived_at=pool.archived_at or scope.now,
            own=pool.workspace_id == scope.workspace_id,
        )
        for pool, name in found
    ]


@router.post("/pools/{pool_id}/archive")
async def archive_pool(pool_id: UUID, given: ArchiveIn, scope: ScopeDep) -> bool:
    """Out of the lists and only read, or back."""
    await archive.archive(scope, pool_id, back=given.back)
    return True


@router.post("/pools/{pool_id}/delete")
async def delete_pool(pool_id: UUID, given: DeleteIn, scope: ScopeDep) -> bool:
    """Delete an archived pool for good, by the SHA-256 of the journal that was downloaded."""
    await archive.delete(scope, pool_id, given.sha256)
    return True


def _file(content: bytes, headers: dict[str, str]) -> Response:
    attached = {"content-disposition": 'attachment; filename="journal.jsonl"'}
    return Response(content, media_type=JSON_LINES, headers=attached | headers)

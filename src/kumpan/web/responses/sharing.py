"""Sharings, links, archived pools, journals kept."""

from datetime import datetime
from typing import Self
from uuid import UUID

from kumpan.services.people.links import LinkKind
from kumpan.storage.repositories import accounts as stored_accounts
from kumpan.storage.repositories import shares as stored_shares
from kumpan.web.responses.base import Response


class PoolLink(Response):
    """A link that is open, without its secret."""

    id: UUID
    kind: LinkKind
    name: str
    pool_id: UUID
    created_at: datetime
    expires_at: datetime | None


class Share(Response):
    """A workspace that takes part; `leaves`: it is the reader's own, to be left."""

    id: UUID
    workspace: str
    since: datetime
    leaves: bool

    @classmethod
    def seen_by(cls, share: stored_shares.PoolShare, reader: UUID) -> Self:
        """As one of the two sees it."""
        return cls(
            id=share.id,
            workspace=share.workspace,
            since=share.created_at,
            leaves=share.workspace_id == reader,
        )


class Offer(Response):
    """A link that nobody has used yet."""

    id: UUID
    created_at: datetime
    expires_at: datetime

    @classmethod
    def of_link(cls, link: stored_accounts.SecretLink) -> Self:
        """An offer always ends."""
        assert link.expires_at is not None
        return cls(id=link.id, created_at=link.created_at, expires_at=link.expires_at)


class Sharing(Response):
    """Whose pool it is (`own`: the reader's), who takes part, what is offered."""

    home: str
    own: bool
    shares: tuple[Share, ...]
    offers: tuple[Offer, ...]


class ArchivedPool(Response):
    """A pool out of the lists; `own`: the reader's workspace decides about it."""

    id: UUID
    name: str
    archived_at: datetime
    own: bool


class BroughtIn(Response):
    """What came of a journal that was brought in: entries that are new here, and those that stood here."""

    pool_id: UUID
    name: str
    added: int
    known: int


class BroughtBack(Response):
    """What came in with an archive: pools, and what of entries, people and products is new here."""

    pools: int
    entries: int
    people: int
    products: int


class JournalCopy(Response):
    """A journal as it stood when a sharing ended."""

    id: UUID
    pool_id: UUID
    name: str
    at: datetime

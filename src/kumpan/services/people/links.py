"""Links of one pool that let somebody in without an account: a guest reads, a calendar program follows.

Each is listed and taken back in one place; the secret is shown once and stored as a hash.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from uuid import UUID, uuid4

from kumpan.core.errors import NotFound
from kumpan.core.journal import FeedOpened, effective, of_kind
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope, Stamp, entries_in, may_see, require_pool, void
from kumpan.services.people.audit import audited
from kumpan.services.people.secret import hash_of, new_secret
from kumpan.storage.repositories.accounts import SecretLink


class LinkKind(StrEnum):
    """What a link is for; as stored."""

    GUEST = "guest"
    FEED = "feed"


# A guest is let in for a season's quarter; a calendar program follows for as long as nobody takes it back.
LASTS: Mapping[LinkKind, timedelta | None] = {LinkKind.GUEST: timedelta(days=90), LinkKind.FEED: None}


@dataclass(frozen=True, kw_only=True)
class PoolLink:
    """A link that is open, without its secret."""

    id: UUID
    kind: LinkKind
    name: str
    pool_id: UUID
    created_at: datetime
    expires_at: datetime | None


async def new_link(scope: Scope, pool_id: UUID, kind: LinkKind, name: str) -> tuple[UUID, str]:
    """A link of a kind to one pool, and its secret, shown this once. Raises NotFound."""
    await require_pool(scope, pool_id)
    lasts = LASTS[kind]
    link = SecretLink(
        id=uuid4(),
        workspace_id=scope.workspace_id,
        kind=kind.value,
        name=" ".join(name.split())[:80],
        person_id=scope.person_id,
        pool_id=pool_id,
        created_at=scope.now,
        expires_at=None if lasts is None else scope.now + lasts,
        ended_at=None,
    )
    secret = new_secret()
    await scope.tx.accounts.add_link(link, hash_of(secret))
    await audited(scope, scope.person_id, f"{kind}_link_made", pool=str(pool_id))
    return link.id, secret


async def open_links(scope: Scope) -> list[PoolLink]:
    """The links of the workspace that open a pool which who acts may see, the newest first."""
    found = [
        PoolLink(
            id=one.id,
            kind=LinkKind(one.kind),
            name=one.name,
            pool_id=one.pool_id,
            created_at=one.created_at,
            expires_at=one.expires_at,
        )
        for one in await scope.tx.accounts.links(scope.workspace_id)
        if one.kind in set(LinkKind) and one.pool_id is not None and _open(one, scope.now)
    ]
    found += [link for link, _ in await _feeds_of_before(scope)]
    return [link for link in found if may_see(scope, link.pool_id)]


async def end_link(scope: Scope, link_id: UUID) -> None:
    """From now on it opens nothing, and no copy of it. Raises NotFound."""
    link = next((one for one in await open_links(scope) if one.id == link_id), None)
    if link is None:
        raise NotFound(Message("There is no such link here; reload the list."))
    if link_id in {before.id for before, _ in await _feeds_of_before(scope)}:
        await void(scope, link_id, Stamp(uuid4(), scope.now, scope.person_id), "calendar feed closed")
    await scope.tx.accounts.end_link(link_id, scope.now)
    await audited(scope, scope.person_id, f"{link.kind}_link_ended", link=str(link_id))


async def feed_behind(scope: Scope, secret: str) -> tuple[UUID, UUID] | None:
    """The workspace and the pool whose calendar a secret opens; None for a wrong or a closed one."""
    hash_ = hash_of(secret)
    found = await scope.tx.accounts.open_link(hash_, LinkKind.FEED.value, scope.now)
    if found is not None and found.pool_id is not None:
        return found.workspace_id, found.pool_id
    for workspace_id in await scope.tx.workspace.workspace_ids():
        inside = Scope(scope.tx, workspace_id, scope.now)
        for link, theirs in await _feeds_of_before(inside):
            if theirs == hash_:
                return workspace_id, link.pool_id
    return None


async def _feeds_of_before(scope: Scope) -> list[tuple[PoolLink, str]]:
    """Feeds from the time when they stood in the journal, each with the hash of its secret."""
    rows = await scope.tx.journal.entries_of_workspace(scope.workspace_id, ("feed", "void"))
    return [
        (
            PoolLink(
                id=entry.id,
                kind=LinkKind.FEED,
                name="",
                pool_id=entry.pool_id,
                created_at=entry.at,
                expires_at=None,
            ),
            hash_of(entry.body.secret),
        )
        for entry in of_kind(effective(entries_in(rows), scope.now), FeedOpened)
        if entry.pool_id is not None
    ]


def _open(link: SecretLink, now: datetime) -> bool:
    return link.ended_at is None and (link.expires_at is None or link.expires_at > now)

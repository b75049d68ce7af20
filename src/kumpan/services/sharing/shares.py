"""A pool that two workspaces work on: offered by its home, accepted by another, ended by either.

Both read one journal, and each entry says whose it is; each corrects its own. Costs and what is marked
internal stay with the workspace that wrote it. After the end the home keeps the pool and its whole journal;
the other keeps a copy of the journal as it stood, and neither reads what is written from then on.
"""

import gzip
from dataclasses import dataclass, replace
from datetime import timedelta
from uuid import UUID, uuid4

from kumpan.core.errors import Conflict, InvalidInput, NotFound, NotPermitted
from kumpan.core.messages import Message
from kumpan.services.journal.export import journal_file, pool_name
from kumpan.services.journal.ledger import Scope, forget_pools, own_pool, require_pool
from kumpan.services.people.access import Role
from kumpan.services.people.accounts import DEAD_LINK, new_account
from kumpan.services.people.audit import audited
from kumpan.services.people.commands import add_person
from kumpan.services.people.secret import hash_of, new_secret
from kumpan.storage.repositories.accounts import SecretLink
from kumpan.storage.repositories.shares import JournalCopy, PoolShare
from kumpan.storage.transaction import Transaction

SHARE = "share"
OFFERED_FOR = timedelta(days=14)


async def offer(scope: Scope, pool_id: UUID) -> str:
    """The secret of a link by which one other workspace takes part.

    Raises NotFound, and NotPermitted for a pool of others.
    """
    await own_pool(scope, pool_id)
    link = SecretLink(
        id=uuid4(),
        workspace_id=scope.workspace_id,
        kind=SHARE,
        name=await scope.tx.shares.workspace_name(scope.workspace_id),
        person_id=scope.person_id,
        pool_id=pool_id,
        created_at=scope.now,
        expires_at=scope.now + OFFERED_FOR,
        ended_at=None,
    )
    secret = new_secret()
    await scope.tx.accounts.add_link(link, hash_of(secret))
    await audited(scope, scope.person_id, "share_offered", pool=str(pool_id))
    return secret


async def offers(scope: Scope, pool_id: UUID) -> list[SecretLink]:
    """The offers of a pool that nobody has accepted yet. Raises NotFound."""
    await require_pool(scope, pool_id)
    return [
        one
        for one in await scope.tx.accounts.links(scope.workspace_id)
        if one.kind == SHARE and one.pool_id == pool_id and _open(scope, one)
    ]


async def take_offer_back(scope: Scope, pool_id: UUID, offer_id: UUID) -> None:
    """The link opens nothing any more. Raises NotFound."""
    if offer_id not in {one.id for one in await offers(scope, pool_id)}:
        raise NotFound(Message("There is no such offer here; reload the page."))
    await scope.tx.accounts.end_link(offer_id, scope.now)
    await audited(scope, scope.person_id, "share_offer_ended", pool=str(pool_id))


async def offer_behind(tx: Transaction, secret: str, scope: Scope) -> SecretLink:
    """What a link offers. Raises NotFound, the same for any that is not open."""
    link = await tx.accounts.link(hash_of(secret))
    if link is None or link.kind != SHARE or not _open(scope, link):
        raise NotFound(DEAD_LINK)
    return link


async def accept(scope: Scope, secret: str) -> UUID:
    """The workspace of who acts takes part from now on; the pool. The link is used up.

    Raises InvalidInput for one's own pool, Conflict for one that one works on already.
    """
    link = await offer_behind(scope.tx, secret, scope)
    assert link.pool_id is not None
    if link.workspace_id == scope.workspace_id:
        raise InvalidInput(Message("This pool is your own; pass the link on to whom you share it with."))
    if await scope.tx.journal.pool(scope.workspace_id, link.pool_id) is not None:
        raise Conflict(Message("You work on this pool already; it stands in your list."))
    await scope.tx.shares.add(uuid4(), link.pool_id, scope.workspace_id, scope.now)
    await scope.tx.accounts.end_link(link.id, scope.now)
    forget_pools(scope)
    await audited(scope, scope.person_id, "share_accepted", pool=str(link.pool_id))
    home = replace(scope, workspace_id=link.workspace_id)
    await audited(home, None, "share_accepted", pool=str(link.pool_id), by=str(scope.workspace_id))
    return link.pool_id


@dataclass(frozen=True, kw_only=True)
class NewHousehold:
    """A workspace of one person who has none yet."""

    name: str
    person: str
    login: str
    password: str


async def household_by_offer(scope: Scope, secret: str, new: NewHousehold) -> UUID:
    """A workspace of its own, with the pool shared; who acts there, its office.

    Raises InvalidInput for a name, a login or a password that will not do.
    """
    await offer_behind(scope.tx, secret, scope)
    name = " ".join(new.name.split())
    if not name:
        raise InvalidInput(Message("Name your household, as the log will show it."), "household")
    workspace_id = uuid4()
    await scope.tx.workspace.add_workspace(workspace_id, name[:120], scope.now)
    inside = replace(scope, workspace_id=workspace_id, pools=None, cached={})
    person = await add_person(inside, None, new.person, "", role=Role.OFFICE)
    await new_account(inside, person.id, new.login, new.password)
    await accept(replace(inside, person_id=person.id), secret)
    return person.id


async def shares(scope: Scope, pool_id: UUID) -> list[PoolShare]:
    """Who else works on a pool. Raises NotFound."""
    await require_pool(scope, pool_id)
    return await scope.tx.shares.of_pool(pool_id)


@dataclass(frozen=True, kw_only=True)
class Sharing:
    """Whose pool it is (`own`: of the workspace that asks), who takes part, what nobody has accepted yet."""

    home: str
    own: bool
    shares: tuple[PoolShare, ...]
    offers: tuple[SecretLink, ...]


async def sharing(scope: Scope, pool_id: UUID) -> Sharing:
    """All about it. Raises NotFound."""
    pool = await require_pool(scope, pool_id)
    return Sharing(
        home=await scope.tx.shares.workspace_name(pool.workspace_id),
        own=pool.workspace_id == scope.workspace_id,
        shares=tuple(await shares(scope, pool_id)),
        offers=tuple(await offers(scope, pool_id)),
    )


async def end_share(scope: Scope, pool_id: UUID, share_id: UUID) -> None:
    """One workspace no longer takes part and keeps a copy of the journal; the home or that one says so.

    Raises NotFound, and NotPermitted for a third.
    """
    share = next((one for one in await shares(scope, pool_id) if one.id == share_id), None)
    if share is None:
        raise NotFound(Message("There is no such sharing here; reload the page."))
    if scope.workspace_id not in (share.home_id, share.workspace_id):
        raise NotPermitted(Message("Only the pool's home or the one that leaves ends this."))
    theirs = replace(scope, workspace_id=share.workspace_id, pools=None, staff=True, cached={})
    content = gzip.compress((await journal_file(theirs, pool_id)).content, mtime=0)
    name = await pool_name(theirs, pool_id)
    copy = JournalCopy(id=uuid4(), pool_id=pool_id, name=name, at=scope.now)
    await scope.tx.shares.add_copy(copy, share.workspace_id, content)
    await scope.tx.shares.end(share, scope.now)
    forget_pools(scope)
    for workspace_id in (share.home_id, share.workspace_id):
        who = scope.person_id if workspace_id == scope.workspace_id else None
        await audited(replace(scope, workspace_id=workspace_id), who, "share_ended", pool=str(pool_id))


async def journal_copies(scope: Scope) -> list[JournalCopy]:
    """The copies that the workspace keeps of pools it no longer works on."""
    return await scope.tx.shares.copies(scope.workspace_id)


async def journal_copy(scope: Scope, id_: UUID) -> bytes:
    """One copy as journal.jsonl. Raises NotFound."""
    found = await scope.tx.shares.copy_content(scope.workspace_id, id_)
    if found is None:
        raise NotFound(Message("There is no such journal here; reload the list."))
    return gzip.decompress(found)


def _open(scope: Scope, link: SecretLink) -> bool:
    return link.ended_at is None and (link.expires_at is None or link.expires_at > scope.now)

"""Who acts, in which role, and which pools that person may see."""

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from kumpan.core.journal import RoundSet, effective, of_kind
from kumpan.services.journal.ledger import Scope, entries_in
from kumpan.storage.transaction import Transaction


class Role(StrEnum):
    """What somebody is here. The office may do all of it."""

    OFFICE = "office"
    TECHNICIAN = "technician"
    OWNER = "owner"
    GUEST = "guest"


@dataclass(frozen=True, kw_only=True)
class Principal:
    """Who sends a request: a person signed in or acting by a token, or a guest with a link to one pool.

    `session` is the hash that names the session, None for a token or a guest; `address` where from.
    """

    workspace_id: UUID
    role: Role
    person_id: UUID | None = None
    name: str = ""
    session: str | None = None
    guest_of: UUID | None = None
    read_only: bool = False
    by_token: bool = False
    address: str = ""


async def pools_seen(tx: Transaction, principal: Principal, scope: Scope) -> frozenset[UUID] | None:
    """The pools that somebody may see; None: all of the workspace.

    A technician sees those of the own rounds and what was given; an owner what was given; a guest one.
    """
    if principal.role is Role.OFFICE:
        return None
    if principal.guest_of is not None:
        return frozenset({principal.guest_of})
    assert principal.person_id is not None
    given = await tx.accounts.pools_given(principal.person_id)
    if principal.role is Role.TECHNICIAN:
        rows = await tx.journal.entries_of_workspace(principal.workspace_id, ("round", "void"))
        rounds = of_kind(effective(entries_in(rows), scope.now), RoundSet)
        own = {e.body.weekday: e.body.stops for e in rounds if e.person_id == principal.person_id}
        given.update(pool_id for stops in own.values() for pool_id in stops)
    return frozenset(given)

"""Who acts, in which role, and which pools that person may see."""

from dataclasses import dataclass
from enum import StrEnum
from uuid import UUID

from kumpan.services.journal.ledger import Scope
from kumpan.services.journal.rounds import rounds, taken_over
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

    A technician sees those of the own rounds, what is driven to in another's place, and what was given; an
    owner what was given; a guest one.
    """
    if principal.role is Role.OFFICE:
        return None
    if principal.guest_of is not None:
        return frozenset({principal.guest_of})
    assert principal.person_id is not None
    given = await tx.accounts.pools_given(principal.person_id)
    if principal.role is Role.TECHNICIAN:
        found = await rounds(tx, principal.workspace_id, scope.now)
        own = (stops for (who, _), stops in found.items() if who == principal.person_id)
        given.update(pool_id for stops in own for pool_id in stops)
        given.update(await taken_over(tx, principal.workspace_id, principal.person_id, found, now=scope.now))
    return frozenset(given)

"""The people of a workspace: their roles and pools, who left, tokens."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from uuid import UUID, uuid4

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import NO_SUCH_POOL, Scope, pool_ids
from kumpan.services.people.access import Role
from kumpan.services.people.audit import audited
from kumpan.services.people.queries import people
from kumpan.services.people.secret import hash_of, new_secret
from kumpan.storage.repositories.accounts import ApiToken
from kumpan.storage.repositories.workspace import Person

FORMER = "former member"
NO_SUCH_PERSON = Message("There is no such person here; reload the list of people.")
SCOPES = ("read", "write")


@dataclass(frozen=True, kw_only=True)
class Member:
    """Somebody of the workspace as the office sees them; `login` None until an invitation was used."""

    person: Person
    login: str | None
    pools: tuple[UUID, ...]


async def members(scope: Scope) -> list[Member]:
    """Everybody, those who left last."""
    logins = await scope.tx.accounts.logins(scope.workspace_id)
    found = [
        Member(
            person=one,
            login=logins.get(one.id),
            pools=tuple(sorted(await scope.tx.accounts.pools_given(one.id))),
        )
        for one in await people(scope)
    ]
    return sorted(found, key=lambda member: member.person.ended_at is not None)


async def set_role(scope: Scope, person_id: UUID, role: Role, pools: Sequence[UUID]) -> None:
    """What somebody is and which pools were given. Raises InvalidInput where no office would be left."""
    person = await _person(scope, person_id)
    if role is Role.GUEST:
        raise InvalidInput(Message("A guest has a link to a pool and no account; make a guest link."), "role")
    if person.role == Role.OFFICE and role is not Role.OFFICE:
        await _another_office(scope, person_id)
    if not set(pools) <= set(await pool_ids(scope)):
        raise NotFound(NO_SUCH_POOL)
    await scope.tx.workspace.change_person(replace(person, role=role.value))
    await scope.tx.accounts.give_pools(person_id, set(pools))
    if person.role != role:
        await scope.tx.accounts.end_sessions(person_id)
    await audited(scope, scope.person_id, "role_set", person=str(person_id), role=role.value)


async def rename(scope: Scope, person_id: UUID, name: str, initials: str) -> None:
    """Another name. Raises InvalidInput for an empty one."""
    person, clean = await _person(scope, person_id), " ".join(name.split())
    if not clean:
        raise InvalidInput(Message("Type a name, so that the log can say who did it."), "name")
    short = initials.strip() or "".join(word[0] for word in clean.split()[:3]).upper()
    await scope.tx.workspace.change_person(replace(person, name=clean[:120], initials=short[:8]))
    await audited(scope, scope.person_id, "renamed", person=str(person_id))


async def name_workspace(scope: Scope, name: str) -> None:
    """What others read of this workspace where a pool is shared. Raises InvalidInput for an empty name."""
    clean = " ".join(name.split())
    if not clean:
        raise InvalidInput(Message("Type what your firm or household is called."), "name")
    await scope.tx.workspace.name_workspace(scope.workspace_id, clean[:120])
    await audited(scope, scope.person_id, "workspace_named")


async def end_person(scope: Scope, person_id: UUID, *, erase: bool) -> None:
    """Somebody leaves: no way in any more; what they did stays, erased under the name of a former member."""
    person = await _person(scope, person_id)
    if person.role == Role.OFFICE:
        await _another_office(scope, person_id)
    gone = replace(person, ended_at=person.ended_at or scope.now)
    await scope.tx.workspace.change_person(replace(gone, name=FORMER, initials="–") if erase else gone)
    await scope.tx.accounts.end_account(person_id)
    await scope.tx.passkeys.end(person_id)
    await scope.tx.accounts.end_sessions(person_id)
    await scope.tx.accounts.revoke_tokens(person_id, scope.now)
    await scope.tx.accounts.end_links_for(person_id, scope.now)
    await scope.tx.accounts.give_pools(person_id, set())
    await audited(scope, scope.person_id, "erased" if erase else "ended", person=str(person_id))


async def _person(scope: Scope, person_id: UUID) -> Person:
    found = await scope.tx.workspace.person(scope.workspace_id, person_id)
    if found is None:
        raise NotFound(NO_SUCH_PERSON)
    return found


async def _another_office(scope: Scope, but: UUID) -> None:
    others = [one for one in await people(scope) if one.id != but and one.ended_at is None]
    if not any(one.role == Role.OFFICE for one in others):
        raise InvalidInput(Message("Somebody must be the office; give that role to another person first."))


# Tokens.
async def new_token(scope: Scope, name: str, token_scope: str) -> tuple[ApiToken, str]:
    """A token of who acts, and its secret, shown this once. Raises InvalidInput."""
    assert scope.person_id is not None
    clean = " ".join(name.split())
    if not clean:
        raise InvalidInput(Message("Name it by what will use it, such as the garage computer."), "name")
    if token_scope not in SCOPES:
        raise InvalidInput(Message("scope must be read or write."), "scope")
    token = ApiToken(
        id=uuid4(),
        person_id=scope.person_id,
        name=clean[:80],
        scope=token_scope,
        created_at=scope.now,
        used_at=None,
        revoked_at=None,
    )
    secret = new_secret()
    await scope.tx.accounts.add_token(token, hash_of(secret))
    await audited(scope, scope.person_id, "token_made", token=str(token.id))
    return token, secret


async def revoke_token(scope: Scope, token_id: UUID) -> None:
    """From now on it opens nothing."""
    assert scope.person_id is not None
    await scope.tx.accounts.revoke_tokens(scope.person_id, scope.now, only=token_id)
    await audited(scope, scope.person_id, "token_revoked", token=str(token_id))

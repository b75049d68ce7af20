"""The workspace and its people: each device says once who it is."""

from uuid import UUID, uuid4

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope
from kumpan.storage.repositories.workspace import Person
from kumpan.storage.transaction import Transaction


async def the_workspace(tx: Transaction) -> UUID:
    """The one workspace of this installation, made by the first migration."""
    known = await tx.workspace.first_workspace_id()
    if known is None:
        raise NotFound(Message("The database has no workspace; start Kumpan with ./run, which prepares it."))
    return known


async def people(scope: Scope) -> list[Person]:
    """Everybody of the workspace."""
    return await scope.tx.workspace.people(scope.workspace_id)


async def add_person(scope: Scope, id_: UUID | None, name: str, initials: str) -> Person:
    """Add someone; the same id again is answered, not doubled. Initials default to the name's."""
    clean = " ".join(name.split())
    if not clean:
        raise InvalidInput(Message("Type a name, so that the log can say who did it."), "name")
    short = initials.strip() or "".join(word[0] for word in clean.split()[:3]).upper()
    person = Person(id_ or uuid4(), clean[:120], short[:8])
    known = {other.id: other for other in await people(scope)}
    if person.id not in known:
        await scope.tx.workspace.add_person(scope.workspace_id, person, scope.now)
    return known.get(person.id, person)

"""Take somebody in."""

from uuid import UUID, uuid4

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import people
from kumpan.storage.repositories.workspace import Person


async def add_person(
    scope: Scope, id_: UUID | None, name: str, initials: str, role: str = "technician"
) -> Person:
    """Add someone; the same id again is answered, not doubled. Initials default to the name's."""
    clean = " ".join(name.split())
    if not clean:
        raise InvalidInput(Message("Type a name, so that the log can say who did it."), "name")
    person = Person(id_ or uuid4(), clean[:120], initials.strip()[:8] or initials_of(clean), role)
    known = {other.id: other for other in await people(scope)}
    if person.id not in known:
        await scope.tx.workspace.add_person(scope.workspace_id, person, scope.now)
    return known.get(person.id, person)


def initials_of(name: str) -> str:
    """The first letters of up to three words."""
    return "".join(word[0] for word in name.split()[:3]).upper()[:8]


async def by_names(scope: Scope, names: set[str]) -> dict[str, UUID]:
    """Who some are here, by name; who is not here is added as somebody who has left, with no way in."""
    found: dict[str, UUID] = {}
    for person in await people(scope):
        found.setdefault(person.name, person.id)
    for name in sorted(names - found.keys()):
        person = Person(uuid4(), name, initials_of(name), "technician", ended_at=scope.now)
        await scope.tx.workspace.add_person(scope.workspace_id, person, scope.now)
        found[name] = person.id
    return found

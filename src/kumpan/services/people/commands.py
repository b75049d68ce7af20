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
    short = initials.strip() or "".join(word[0] for word in clean.split()[:3]).upper()
    person = Person(id_ or uuid4(), clean[:120], short[:8], role)
    known = {other.id: other for other in await people(scope)}
    if person.id not in known:
        await scope.tx.workspace.add_person(scope.workspace_id, person, scope.now)
    return known.get(person.id, person)

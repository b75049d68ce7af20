"""The workspace and its people: each device says once who it is."""

from uuid import UUID

from kumpan.core.errors import NotFound
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

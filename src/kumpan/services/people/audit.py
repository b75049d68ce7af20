"""Who did what from where: one line for everything that decides about who may come in."""

from uuid import UUID

from kumpan.services.journal.ledger import Scope
from kumpan.storage.repositories.accounts import AuditLine

MOST_LINES = 500


async def audited(scope: Scope, person_id: UUID | None, action: str, **detail: object) -> None:
    """Add a line. Details hold ids and kinds, never what people wrote."""
    line = AuditLine(
        person_id=person_id, at=scope.now, action=action, address=scope.address, detail=dict(detail)
    )
    await scope.tx.accounts.add_audit(scope.workspace_id, line)


async def audit_lines(scope: Scope) -> list[AuditLine]:
    """The last lines of the workspace, the newest first."""
    return await scope.tx.accounts.audit(scope.workspace_id, MOST_LINES)

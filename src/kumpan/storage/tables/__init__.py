"""All tables: workspace, person, pool, product, entry, device reading, and who may come in."""

from kumpan.storage.tables.base import Base
from kumpan.storage.tables.devices import DeviceReadingRow
from kumpan.storage.tables.journal import EntryRow, PoolRow
from kumpan.storage.tables.people import (
    AccountRow,
    ApiTokenRow,
    AttemptRow,
    AuditRow,
    PoolGivenRow,
    SecretLinkRow,
    SessionRow,
)
from kumpan.storage.tables.workspace import PersonRow, ProductRow, WorkspaceRow

__all__ = [
    "AccountRow",
    "ApiTokenRow",
    "AttemptRow",
    "AuditRow",
    "Base",
    "DeviceReadingRow",
    "EntryRow",
    "PersonRow",
    "PoolGivenRow",
    "PoolRow",
    "ProductRow",
    "SecretLinkRow",
    "SessionRow",
    "WorkspaceRow",
]

"""All tables: workspace, person, pool, product, entry, device reading, and who may come in."""

from kumpan.storage.tables.base import Base
from kumpan.storage.tables.devices import DeviceReadingRow
from kumpan.storage.tables.journal import EntryRow, JournalCopyRow, PoolRow, PoolShareRow, PoolSummaryRow
from kumpan.storage.tables.leases import LeaseRow
from kumpan.storage.tables.people import (
    AccountRow,
    ApiTokenRow,
    AttemptRow,
    AuditRow,
    ChallengeRow,
    PasskeyRow,
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
    "ChallengeRow",
    "DeviceReadingRow",
    "EntryRow",
    "JournalCopyRow",
    "LeaseRow",
    "PasskeyRow",
    "PersonRow",
    "PoolGivenRow",
    "PoolRow",
    "PoolShareRow",
    "PoolSummaryRow",
    "ProductRow",
    "SecretLinkRow",
    "SessionRow",
    "WorkspaceRow",
]

"""All tables: workspace, person, pool, product, entry, device reading, and who may come in, files."""

from kumpan.storage.tables.base import Base
from kumpan.storage.tables.devices import DeviceReadingRow
from kumpan.storage.tables.imports import ImportRow
from kumpan.storage.tables.journal import (
    EntryRow,
    JournalCopyRow,
    PoolRow,
    PoolShareRow,
    PoolSummaryRow,
    PouredRow,
    PouredTotalRow,
)
from kumpan.storage.tables.leases import LeaseRow
from kumpan.storage.tables.outgoing import (
    HookCallRow,
    HookRow,
    MailChoiceRow,
    MailRow,
    PushCallRow,
    PushDeviceRow,
    PushKeyRow,
    SwimWatchRow,
)
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
from kumpan.storage.tables.photos import PhotoRow
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
    "HookCallRow",
    "HookRow",
    "ImportRow",
    "JournalCopyRow",
    "LeaseRow",
    "MailChoiceRow",
    "MailRow",
    "PasskeyRow",
    "PersonRow",
    "PhotoRow",
    "PoolGivenRow",
    "PoolRow",
    "PoolShareRow",
    "PoolSummaryRow",
    "PouredRow",
    "PouredTotalRow",
    "ProductRow",
    "PushCallRow",
    "PushDeviceRow",
    "PushKeyRow",
    "SecretLinkRow",
    "SessionRow",
    "SwimWatchRow",
    "WorkspaceRow",
]

"""All tables: workspace, person, pool, product, entry, device reading. Every row belongs to a workspace."""

from kumpan.storage.tables.base import Base
from kumpan.storage.tables.devices import DeviceReadingRow
from kumpan.storage.tables.journal import EntryRow, PoolRow
from kumpan.storage.tables.workspace import PersonRow, ProductRow, WorkspaceRow

__all__ = ["Base", "DeviceReadingRow", "EntryRow", "PersonRow", "PoolRow", "ProductRow", "WorkspaceRow"]

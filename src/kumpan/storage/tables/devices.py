"""What devices said, raw: apart from the journal, thinned as it ages."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import JSON, BigInteger, ForeignKey, Index, String
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class DeviceReadingRow(Base):
    """One reading of one device; no part of the journal, and nothing is computed from it but days and
    changes.
    """

    __tablename__ = "device_reading"
    __table_args__ = (Index(None, "pool_id", "at"),)

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    pool_id: Mapped[UUID] = mapped_column(ForeignKey("pool.id"))
    device: Mapped[str] = mapped_column(String(40))
    at: Mapped[datetime] = mapped_column(UtcDateTime)
    reading: Mapped[dict[str, object]] = mapped_column(JSON)

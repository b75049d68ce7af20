"""What photos show. That they were taken stands in the journal, by their hash."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import ForeignKey, Integer, LargeBinary, String
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class PhotoRow(Base):
    """A picture of a workspace, once however often it was sent; in the database: a backup is whole."""

    __tablename__ = "photo"

    workspace_id: Mapped[UUID] = mapped_column(
        ForeignKey("workspace.id", ondelete="CASCADE"), primary_key=True
    )
    sha256: Mapped[str] = mapped_column(String(64), primary_key=True)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    size_bytes: Mapped[int] = mapped_column(Integer)
    jpeg: Mapped[bytes] = mapped_column(LargeBinary(2**24 - 1))
    thumb: Mapped[bytes] = mapped_column(LargeBinary(2**24 - 1))

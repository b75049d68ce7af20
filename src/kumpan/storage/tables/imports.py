"""Files that somebody brings in: what stands in them, how they are read, what was made of them."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import JSON, ForeignKey, Index, Integer, LargeBinary, String, Uuid
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class ImportRow(Base):
    """One file. `tables`: its rows of text, gzipped JSON. `signature` tells its headers from any others:
    the next file with them is read by the same `manner`. `made`: what it became, gzipped JSON.
    """

    __tablename__ = "imported_file"
    __table_args__ = (Index(None, "workspace_id", "created_at"), Index(None, "state"))

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id", ondelete="CASCADE"))
    person_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    name: Mapped[str] = mapped_column(String(200))
    signature: Mapped[str] = mapped_column(String(64))
    tables: Mapped[bytes] = mapped_column(LargeBinary(2**32 - 1))
    manner: Mapped[dict[str, object] | None] = mapped_column(JSON(none_as_null=True))
    state: Mapped[str] = mapped_column(String(10))
    done: Mapped[int] = mapped_column(Integer, server_default="0")
    total: Mapped[int] = mapped_column(Integer, server_default="0")
    trouble: Mapped[str] = mapped_column(String(400), server_default="")
    made: Mapped[bytes | None] = mapped_column(LargeBinary(2**32 - 1))

"""What only one of several processes does, and which."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import String, Uuid
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class LeaseRow(Base):
    """A duty and who has it, until it is renewed or runs out: a process that died gives it up by itself."""

    __tablename__ = "lease"

    name: Mapped[str] = mapped_column(String(40), primary_key=True)
    holder: Mapped[UUID] = mapped_column(Uuid)
    until: Mapped[datetime] = mapped_column(UtcDateTime)

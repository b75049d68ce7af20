"""The pools and their journal. A pool row is an identity only: its name and traits are entries."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import (
    JSON,
    BigInteger,
    Boolean,
    Double,
    ForeignKey,
    Index,
    Integer,
    LargeBinary,
    String,
    UniqueConstraint,
    Uuid,
)
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class PoolRow(Base):
    """A pool and whose it is; all else is in its journal. An archived one is read and no longer written.

    `writes` counts on at each request that writes: whoever writes next waits for the one before.
    """

    __tablename__ = "pool"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    archived_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    writes: Mapped[int] = mapped_column(BigInteger, server_default="0")


class PoolShareRow(Base):
    """A pool that another workspace works on as well, until the sharing ends."""

    __tablename__ = "pool_share"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    pool_id: Mapped[UUID] = mapped_column(ForeignKey("pool.id"), index=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    ended_at: Mapped[datetime | None] = mapped_column(UtcDateTime)


class JournalCopyRow(Base):
    """A journal as it stood when a sharing ended, for the workspace that left: gzipped journal.jsonl.

    `pool_id` is no foreign key: the pool may be deleted since.
    """

    __tablename__ = "journal_copy"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    pool_id: Mapped[UUID] = mapped_column(Uuid)
    name: Mapped[str] = mapped_column(String(120))
    at: Mapped[datetime] = mapped_column(UtcDateTime)
    content: Mapped[bytes] = mapped_column(LargeBinary(2**32 - 1))


class PoolSummaryRow(Base):
    """What stands at the head of a pool, as one workspace sees it, told once and read by every list.

    It holds until `holds_until` if nothing is written: `pool_writes` and `workspace_writes` say what it was
    made from, `program` by which version. `rank` 0 asks for attention first. `rendered` by units. `needs`:
    what the sheet offered now would take, g by product id. `visit`: the last one, what the next needs, and
    whether it `returns` before its turn.
    """

    __tablename__ = "pool_summary"

    workspace_id: Mapped[UUID] = mapped_column(
        ForeignKey("workspace.id", ondelete="CASCADE"), primary_key=True
    )
    pool_id: Mapped[UUID] = mapped_column(
        ForeignKey("pool.id", ondelete="CASCADE"), primary_key=True, index=True
    )
    name: Mapped[str] = mapped_column(String(120))
    place: Mapped[str] = mapped_column(String(120), server_default="")
    searched: Mapped[str] = mapped_column(String(250))
    rank: Mapped[int] = mapped_column(Integer)
    tested_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    made_at: Mapped[datetime] = mapped_column(UtcDateTime)
    holds_until: Mapped[datetime] = mapped_column(UtcDateTime, index=True)
    pool_writes: Mapped[int] = mapped_column(BigInteger)
    workspace_writes: Mapped[int] = mapped_column(BigInteger)
    program: Mapped[str] = mapped_column(String(16))
    unreadable: Mapped[str] = mapped_column(String(300))
    rendered: Mapped[dict[str, object]] = mapped_column(JSON)
    returns: Mapped[bool] = mapped_column(Boolean)
    needs: Mapped[dict[str, float]] = mapped_column(JSON)
    visit: Mapped[dict[str, object]] = mapped_column(JSON)


class EntryRow(Base):
    """One entry. An entry is replaced at most once: the unique key decides between two corrections.

    `written_in`: what the workspace was called that wrote it, for one that came in with a journal's file.
    """

    __tablename__ = "entry"
    __table_args__ = (
        UniqueConstraint("supersedes"),
        Index(None, "pool_id", "at"),
        Index(None, "workspace_id", "kind", "at"),
    )

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    pool_id: Mapped[UUID | None] = mapped_column(ForeignKey("pool.id"))
    person_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    kind: Mapped[str] = mapped_column(String(20))
    at: Mapped[datetime] = mapped_column(UtcDateTime)
    recorded_at: Mapped[datetime] = mapped_column(UtcDateTime)
    supersedes: Mapped[UUID | None] = mapped_column(ForeignKey("entry.id"))
    written_in: Mapped[str | None] = mapped_column(String(120))
    body: Mapped[dict[str, object]] = mapped_column(JSON)


class PouredRow(Base):
    """One addition of a product of the shelf that counts; goes with the entry that replaces it.

    `pool_id` is no foreign key: what was poured stays on the books when its pool is deleted.
    """

    __tablename__ = "poured"
    __table_args__ = (Index(None, "workspace_id", "at"),)

    entry_id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id", ondelete="CASCADE"))
    pool_id: Mapped[UUID] = mapped_column(Uuid)
    person_id: Mapped[UUID | None] = mapped_column(Uuid)
    product_id: Mapped[str] = mapped_column(String(120))
    at: Mapped[datetime] = mapped_column(UtcDateTime)
    mass_g: Mapped[float] = mapped_column(Double)


class PouredTotalRow(Base):
    """All that was ever poured of a product at one pool, g."""

    __tablename__ = "poured_total"

    workspace_id: Mapped[UUID] = mapped_column(
        ForeignKey("workspace.id", ondelete="CASCADE"), primary_key=True
    )
    product_id: Mapped[str] = mapped_column(String(120), primary_key=True)
    pool_id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    mass_g: Mapped[float] = mapped_column(Double)

"""The workspace, its people and its shelf."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import JSON, BigInteger, Double, ForeignKey, String, Uuid
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class WorkspaceRow(Base):
    """Whose pools, people and products these are. `writes` as a pool's, for what belongs to no pool;
    `stock_writes` counts what of it moves every pool's plan: products, purchases, strengths, habits.
    `mark`: the hash of the picture that stands on its papers.
    """

    __tablename__ = "workspace"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    writes: Mapped[int] = mapped_column(BigInteger, server_default="0")
    stock_writes: Mapped[int] = mapped_column(BigInteger, server_default="0")
    mark: Mapped[str | None] = mapped_column(String(64))


class PersonRow(Base):
    """Somebody of a workspace. `ended_at`: no longer one of them; what they did stays."""

    __tablename__ = "person"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    initials: Mapped[str] = mapped_column(String(8))
    role: Mapped[str] = mapped_column(String(12), server_default="technician")
    ended_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)


class ProductRow(Base):
    """One product on the shelf. Stock is no column: it is bought minus poured."""

    __tablename__ = "product"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    chemical: Mapped[str] = mapped_column(String(40))
    strength_percent: Mapped[float] = mapped_column(Double)
    package_g: Mapped[float | None] = mapped_column(Double)
    package_ml: Mapped[float | None] = mapped_column(Double)
    density_g_per_ml: Mapped[float | None] = mapped_column(Double)
    label_dose: Mapped[dict[str, float | None] | None] = mapped_column(JSON(none_as_null=True))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)

"""what stands at the head of each pool, stored, with the hour until which it holds"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def _refers(column: str) -> sa.ForeignKeyConstraint:
    target = column.removesuffix("_id")
    return sa.ForeignKeyConstraint(
        [column], [f"{target}.id"], name=op.f(f"fk_pool_summary_{column}"), ondelete="CASCADE"
    )


def upgrade() -> None:
    op.create_table(
        "pool_summary",
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("pool_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("searched", sa.String(length=250), nullable=False),
        sa.Column("rank", sa.Integer(), nullable=False),
        sa.Column("tested_at", UtcDateTime(), nullable=True),
        sa.Column("made_at", UtcDateTime(), nullable=False),
        sa.Column("holds_until", UtcDateTime(), nullable=False),
        sa.Column("pool_writes", sa.BigInteger(), nullable=False),
        sa.Column("workspace_writes", sa.BigInteger(), nullable=False),
        sa.Column("program", sa.String(length=16), nullable=False),
        sa.Column("unreadable", sa.String(length=300), nullable=False),
        sa.Column("rendered", sa.JSON(), nullable=False),
        _refers("workspace_id"),
        _refers("pool_id"),
        sa.PrimaryKeyConstraint("workspace_id", "pool_id", name=op.f("pk_pool_summary")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_pool_summary_pool_id"), "pool_summary", ["pool_id"], if_not_exists=True)
    op.create_index(op.f("ix_pool_summary_holds_until"), "pool_summary", ["holds_until"], if_not_exists=True)

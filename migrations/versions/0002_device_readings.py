"""raw readings of devices, apart from the journal"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "device_reading",
        sa.Column("id", sa.BigInteger(), autoincrement=True, nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("pool_id", sa.Uuid(), nullable=False),
        sa.Column("device", sa.String(length=40), nullable=False),
        sa.Column("at", UtcDateTime(), nullable=False),
        sa.Column("reading", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["workspace_id"], ["workspace.id"], name=op.f("fk_device_reading_workspace_id")
        ),
        sa.ForeignKeyConstraint(["pool_id"], ["pool.id"], name=op.f("fk_device_reading_pool_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_device_reading")),
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_device_reading_workspace_id"),
        "device_reading",
        ["workspace_id"],
        unique=False,
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_device_reading_pool_id"),
        "device_reading",
        ["pool_id", "at"],
        unique=False,
        if_not_exists=True,
    )

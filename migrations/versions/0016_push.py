"""messages to devices, and who waits for a pool to open"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def _of(table: str, column: str, other: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(
        [column], [f"{other}.id"], name=op.f(f"fk_{table}_{column}"), ondelete="CASCADE"
    )


def upgrade() -> None:
    op.add_column(
        "mail_choice",
        sa.Column("units", sa.String(8), server_default="us", nullable=False),
        if_not_exists=True,
    )
    op.create_table(
        "push_key",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("secret", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_push_key")),
        if_not_exists=True,
    )
    op.create_table(
        "push_device",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("endpoint", sa.String(500), nullable=False),
        sa.Column("p256dh", sa.String(120), nullable=False),
        sa.Column("auth", sa.String(40), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        _of("push_device", "person_id", "person"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_push_device")),
        sa.UniqueConstraint("endpoint", name=op.f("uq_push_device_endpoint")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_push_device_person_id"), "push_device", ["person_id"], if_not_exists=True)
    op.create_table(
        "push_call",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("device_id", sa.Uuid(), nullable=False),
        sa.Column("mail_id", sa.Uuid(), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.Column("next_at", UtcDateTime(), nullable=False),
        sa.Column("tries", sa.Integer(), server_default="0", nullable=False),
        sa.Column("state", sa.String(8), nullable=False),
        sa.Column("trouble", sa.String(300), nullable=False),
        _of("push_call", "device_id", "push_device"),
        _of("push_call", "mail_id", "mail"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_push_call")),
        sa.UniqueConstraint("device_id", "mail_id", name=op.f("uq_push_call_device_id_mail_id")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_push_call_state_next_at"), "push_call", ["state", "next_at"], if_not_exists=True)
    op.create_table(
        "swim_watch",
        sa.Column("pool_id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("since", UtcDateTime(), nullable=False),
        _of("swim_watch", "pool_id", "pool"),
        _of("swim_watch", "person_id", "person"),
        sa.PrimaryKeyConstraint("pool_id", "person_id", name=op.f("pk_swim_watch")),
        if_not_exists=True,
    )

"""pools shared, archived and kept copies; passkeys; what passkeys are asked once"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

HASH = sa.String(length=64)
LONGEST_BLOB = 2**32 - 1


def _id(name: str = "id") -> sa.Column[object]:
    return sa.Column(name, sa.Uuid(), nullable=False)


def _at(name: str, *, nullable: bool = False) -> sa.Column[object]:
    return sa.Column(name, UtcDateTime(), nullable=nullable)


def _refers(table: str, column: str) -> sa.ForeignKeyConstraint:
    target = column.removesuffix("_id")
    return sa.ForeignKeyConstraint([column], [f"{target}.id"], name=op.f(f"fk_{table}_{column}"))


def upgrade() -> None:
    op.add_column("pool", _at("archived_at", nullable=True), if_not_exists=True)
    op.create_table(
        "pool_share",
        _id(),
        _id("pool_id"),
        _id("workspace_id"),
        _at("created_at"),
        _at("ended_at", nullable=True),
        _refers("pool_share", "pool_id"),
        _refers("pool_share", "workspace_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_pool_share")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_pool_share_pool_id"), "pool_share", ["pool_id"], if_not_exists=True)
    op.create_index(op.f("ix_pool_share_workspace_id"), "pool_share", ["workspace_id"], if_not_exists=True)
    op.create_table(
        "journal_copy",
        _id(),
        _id("workspace_id"),
        sa.Column("pool_id", sa.Uuid(), nullable=False),  # the pool itself may be deleted since
        sa.Column("name", sa.String(length=120), nullable=False),
        _at("at"),
        sa.Column("content", sa.LargeBinary(length=LONGEST_BLOB), nullable=False),
        _refers("journal_copy", "workspace_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_journal_copy")),
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_journal_copy_workspace_id"), "journal_copy", ["workspace_id"], if_not_exists=True
    )
    op.create_table(
        "passkey",
        sa.Column("id", HASH, nullable=False),
        _id("person_id"),
        sa.Column("credential_id", sa.LargeBinary(length=1023), nullable=False),
        sa.Column("public_key", sa.LargeBinary(length=2000), nullable=False),
        sa.Column("signature_counter", sa.BigInteger(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        _at("created_at"),
        _at("used_at", nullable=True),
        _refers("passkey", "person_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_passkey")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_passkey_person_id"), "passkey", ["person_id"], if_not_exists=True)
    op.create_table(
        "challenge",
        sa.Column("id", HASH, nullable=False),
        _at("expires_at"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_challenge")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_challenge_expires_at"), "challenge", ["expires_at"], if_not_exists=True)

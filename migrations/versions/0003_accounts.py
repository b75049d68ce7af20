"""accounts, sessions, tokens, links, what people may see, audit, attempts"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None

HASH = sa.String(length=64)


def _id(name: str = "id", *, nullable: bool = False) -> sa.Column[object]:
    return sa.Column(name, sa.Uuid(), nullable=nullable)


def _at(name: str, *, nullable: bool = False) -> sa.Column[object]:
    return sa.Column(name, UtcDateTime(), nullable=nullable)


def _refers(table: str, column: str) -> sa.ForeignKeyConstraint:
    target = column.removesuffix("_id")
    return sa.ForeignKeyConstraint([column], [f"{target}.id"], name=op.f(f"fk_{table}_{column}"))


def upgrade() -> None:
    # People of before are technicians without a pool of their own until the office says more.
    op.add_column(
        "person",
        sa.Column("role", sa.String(length=12), nullable=False, server_default="technician"),
        if_not_exists=True,
    )
    op.add_column("person", _at("ended_at", nullable=True), if_not_exists=True)
    op.create_table(
        "account",
        _id(),
        _id("person_id"),
        sa.Column("login", sa.String(length=254), nullable=False),
        sa.Column("password_hash", sa.String(length=200), nullable=False),
        sa.Column("totp_secret", sa.String(length=64), nullable=True),
        sa.Column("totp_used_step", sa.BigInteger(), nullable=True),
        _at("changed_at"),
        _refers("account", "person_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_account")),
        sa.UniqueConstraint("login", name=op.f("uq_account_login")),
        sa.UniqueConstraint("person_id", name=op.f("uq_account_person_id")),
        if_not_exists=True,
    )
    op.create_table(
        "session",
        sa.Column("id", HASH, nullable=False),
        _id("person_id"),
        sa.Column("device", sa.String(length=120), nullable=False),
        _at("created_at"),
        _at("seen_at"),
        _refers("session", "person_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_session")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_session_person_id"), "session", ["person_id"], if_not_exists=True)
    op.create_table(
        "api_token",
        _id(),
        _id("person_id"),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("scope", sa.String(length=10), nullable=False),
        sa.Column("hash", HASH, nullable=False),
        _at("created_at"),
        _at("used_at", nullable=True),
        _at("revoked_at", nullable=True),
        _refers("api_token", "person_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_api_token")),
        sa.UniqueConstraint("hash", name=op.f("uq_api_token_hash")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_api_token_person_id"), "api_token", ["person_id"], if_not_exists=True)
    op.create_table(
        "secret_link",
        _id(),
        _id("workspace_id"),
        sa.Column("kind", sa.String(length=10), nullable=False),
        sa.Column("hash", HASH, nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        _id("person_id", nullable=True),
        _id("pool_id", nullable=True),
        _at("created_at"),
        _at("expires_at", nullable=True),
        _at("ended_at", nullable=True),
        _refers("secret_link", "workspace_id"),
        _refers("secret_link", "person_id"),
        _refers("secret_link", "pool_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_secret_link")),
        sa.UniqueConstraint("hash", name=op.f("uq_secret_link_hash")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_secret_link_workspace_id"), "secret_link", ["workspace_id"], if_not_exists=True)
    op.create_table(
        "pool_given",
        _id("person_id"),
        _id("pool_id"),
        _refers("pool_given", "person_id"),
        _refers("pool_given", "pool_id"),
        sa.PrimaryKeyConstraint("person_id", "pool_id", name=op.f("pk_pool_given")),
        if_not_exists=True,
    )
    op.create_table(
        "audit",
        sa.Column("id", sa.BigInteger(), autoincrement=True, nullable=False),
        _id("workspace_id"),
        _id("person_id", nullable=True),
        _at("at"),
        sa.Column("action", sa.String(length=40), nullable=False),
        sa.Column("address", sa.String(length=45), nullable=False),
        sa.Column("detail", sa.JSON(), nullable=False),
        _refers("audit", "workspace_id"),
        _refers("audit", "person_id"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_audit")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_audit_workspace_id"), "audit", ["workspace_id", "at"], if_not_exists=True)
    op.create_table(
        "attempt",
        sa.Column("key", HASH, nullable=False),
        sa.Column("count", sa.BigInteger(), nullable=False),
        _at("expires_at"),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_attempt")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_attempt_expires_at"), "attempt", ["expires_at"], if_not_exists=True)

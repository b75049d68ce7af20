"""mail and calls to other programs"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def _of_workspace(table: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(
        ["workspace_id"], ["workspace.id"], name=op.f(f"fk_{table}_workspace_id"), ondelete="CASCADE"
    )


def upgrade() -> None:
    op.create_table(
        "mail",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=True),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("once", sa.String(160), nullable=False),
        sa.Column("address", sa.String(254), nullable=False),
        sa.Column("subject", sa.String(200), nullable=False),
        sa.Column("text", sa.Text(2**24 - 1), nullable=False),
        sa.Column("file_name", sa.String(80), nullable=False),
        sa.Column("file", sa.LargeBinary(2**24 - 1), nullable=True),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.Column("next_at", UtcDateTime(), nullable=False),
        sa.Column("tries", sa.Integer(), server_default="0", nullable=False),
        sa.Column("state", sa.String(8), nullable=False),
        sa.Column("sent_at", UtcDateTime(), nullable=True),
        sa.Column("trouble", sa.String(300), nullable=False),
        _of_workspace("mail"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_mail")),
        sa.UniqueConstraint("once", name=op.f("uq_mail_once")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_mail_state_next_at"), "mail", ["state", "next_at"], if_not_exists=True)
    op.create_index(op.f("ix_mail_workspace_id"), "mail", ["workspace_id"], if_not_exists=True)
    op.create_table(
        "mail_choice",
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("address", sa.String(254), nullable=False),
        sa.Column("kinds", sa.JSON(), nullable=False),
        sa.Column("hour", sa.Integer(), nullable=False),
        sa.Column("time_zone", sa.String(64), nullable=False),
        sa.Column("secret", sa.String(64), nullable=False),
        sa.ForeignKeyConstraint(
            ["person_id"], ["person.id"], name=op.f("fk_mail_choice_person_id"), ondelete="CASCADE"
        ),
        _of_workspace("mail_choice"),
        sa.PrimaryKeyConstraint("person_id", name=op.f("pk_mail_choice")),
        sa.UniqueConstraint("secret", name=op.f("uq_mail_choice_secret")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_mail_choice_workspace_id"), "mail_choice", ["workspace_id"], if_not_exists=True)
    op.create_table(
        "hook",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("url", sa.String(500), nullable=False),
        sa.Column("secret", sa.String(64), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.Column("ended_at", UtcDateTime(), nullable=True),
        _of_workspace("hook"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hook")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_hook_workspace_id"), "hook", ["workspace_id"], if_not_exists=True)
    op.create_table(
        "hook_call",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("hook_id", sa.Uuid(), nullable=False),
        sa.Column("body", sa.Text(), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.Column("next_at", UtcDateTime(), nullable=False),
        sa.Column("tries", sa.Integer(), server_default="0", nullable=False),
        sa.Column("state", sa.String(8), nullable=False),
        sa.Column("trouble", sa.String(300), nullable=False),
        sa.ForeignKeyConstraint(
            ["hook_id"], ["hook.id"], name=op.f("fk_hook_call_hook_id"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hook_call")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_hook_call_state_next_at"), "hook_call", ["state", "next_at"], if_not_exists=True)

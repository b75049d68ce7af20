"""files that are brought in"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "imported_file",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=True),
        sa.Column("created_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("name", sa.String(length=200), nullable=False),
        sa.Column("signature", sa.String(length=64), nullable=False),
        sa.Column("tables", sa.LargeBinary(length=4294967295), nullable=False),
        sa.Column("manner", sa.JSON(), nullable=True),
        sa.Column("state", sa.String(length=10), nullable=False),
        sa.Column("done", sa.Integer(), server_default="0", nullable=False),
        sa.Column("total", sa.Integer(), server_default="0", nullable=False),
        sa.Column("trouble", sa.String(length=400), server_default="", nullable=False),
        sa.Column("made", sa.LargeBinary(length=4294967295), nullable=True),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_imported_file_person_id_person")),
        sa.ForeignKeyConstraint(
            ["workspace_id"],
            ["workspace.id"],
            name=op.f("fk_imported_file_workspace_id_workspace"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_imported_file")),
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_imported_file_workspace_id_created_at"),
        "imported_file",
        ["workspace_id", "created_at"],
        if_not_exists=True,
    )
    op.create_index(op.f("ix_imported_file_state"), "imported_file", ["state"], if_not_exists=True)

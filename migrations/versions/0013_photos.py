"""what photos show"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "photo",
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("sha256", sa.String(length=64), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.Column("size_bytes", sa.Integer(), nullable=False),
        sa.Column("jpeg", sa.LargeBinary(length=16777215), nullable=False),
        sa.Column("thumb", sa.LargeBinary(length=16777215), nullable=False),
        sa.ForeignKeyConstraint(
            ["workspace_id"], ["workspace.id"], name=op.f("fk_photo_workspace_id"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("workspace_id", "sha256", name=op.f("pk_photo")),
        if_not_exists=True,
    )

"""entries of a workspace by kind: the shelf's books are read without walking through every pool's tests"""

from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_index(
        op.f("ix_entry_workspace_id_kind_at"), "entry", ["workspace_id", "kind", "at"], if_not_exists=True
    )

"""the picture that stands on a workspace's papers"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("workspace", sa.Column("mark", sa.String(64), nullable=True), if_not_exists=True)

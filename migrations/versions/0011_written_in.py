"""what the workspace was called in which an entry of a file was written"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("entry", sa.Column("written_in", sa.String(120), nullable=True), if_not_exists=True)

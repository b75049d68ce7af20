"""pool and workspace: how often they were written, so that two writers at once wait for each other"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table in ("pool", "workspace"):
        column = sa.Column("writes", sa.BigInteger(), nullable=False, server_default="0")
        op.add_column(table, column, if_not_exists=True)

"""lists in the order of places"""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # Filled as each summary is made anew, which a new version of the program does with all of them.
    op.add_column(
        "pool_summary",
        sa.Column("place", sa.String(120), server_default="", nullable=False),
        if_not_exists=True,
    )

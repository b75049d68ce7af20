"""who of several processes does what only one of them should do"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "lease",
        sa.Column("name", sa.String(length=40), nullable=False),
        sa.Column("holder", sa.Uuid(), nullable=False),
        sa.Column("until", UtcDateTime(), nullable=False),
        sa.PrimaryKeyConstraint("name", name=op.f("pk_lease")),
        if_not_exists=True,
    )

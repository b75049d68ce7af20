"""what the label of a product says, where it is dosed by that"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("product", sa.Column("label_dose", sa.JSON(), nullable=True), if_not_exists=True)

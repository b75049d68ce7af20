"""what was poured, as the books of the shelf; what a stop needs, stored with a pool's summary"""

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

LINES = """
INSERT IGNORE INTO poured (entry_id, workspace_id, pool_id, person_id, product_id, at, mass_g)
SELECT entry.id, entry.workspace_id, COALESCE(entry.pool_id, entry.workspace_id), entry.person_id,
  JSON_VALUE(entry.body, '$.product_id'), entry.at, JSON_VALUE(entry.body, '$.mass_g')
FROM entry LEFT JOIN entry AS later ON later.supersedes = entry.id
WHERE entry.kind = 'addition' AND later.id IS NULL AND JSON_VALUE(entry.body, '$.product_id') IS NOT NULL
  AND JSON_VALUE(entry.body, '$.product_id') <> ''
"""
TOTALS = """
REPLACE INTO poured_total (workspace_id, product_id, pool_id, mass_g)
SELECT workspace_id, product_id, pool_id, SUM(mass_g) FROM poured GROUP BY workspace_id, product_id, pool_id
"""


def _of_the_workspace(table: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(
        ["workspace_id"], ["workspace.id"], name=op.f(f"fk_{table}_workspace_id"), ondelete="CASCADE"
    )


def upgrade() -> None:
    op.create_table(
        "poured",
        sa.Column("entry_id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("pool_id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=True),
        sa.Column("product_id", sa.String(length=120), nullable=False),
        sa.Column("at", UtcDateTime(), nullable=False),
        sa.Column("mass_g", sa.Double(), nullable=False),
        _of_the_workspace("poured"),
        sa.PrimaryKeyConstraint("entry_id", name=op.f("pk_poured")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_poured_workspace_id_at"), "poured", ["workspace_id", "at"], if_not_exists=True)
    op.create_table(
        "poured_total",
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("product_id", sa.String(length=120), nullable=False),
        sa.Column("pool_id", sa.Uuid(), nullable=False),
        sa.Column("mass_g", sa.Double(), nullable=False),
        _of_the_workspace("poured_total"),
        sa.PrimaryKeyConstraint("workspace_id", "product_id", "pool_id", name=op.f("pk_poured_total")),
        if_not_exists=True,
    )
    op.execute(LINES)
    op.execute(TOTALS)
    shelf = sa.Column("stock_writes", sa.BigInteger(), server_default="0", nullable=False)
    op.add_column("workspace", shelf, if_not_exists=True)
    # Made anew by the program of this version in any case.
    op.execute("DELETE FROM pool_summary")
    op.add_column("pool_summary", sa.Column("returns", sa.Boolean(), nullable=False), if_not_exists=True)
    op.add_column("pool_summary", sa.Column("needs", sa.JSON(), nullable=False), if_not_exists=True)
    op.add_column("pool_summary", sa.Column("visit", sa.JSON(), nullable=False), if_not_exists=True)

"""workspace, people, shelf, pools, journal"""

from datetime import UTC, datetime
from uuid import uuid4

import sqlalchemy as sa
from alembic import op

from kumpan.storage.types import UtcDateTime

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    workspace = op.create_table(
        "workspace",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_workspace")),
        if_not_exists=True,
    )
    # One workspace an installation; sign-in may add more later. Begun once, it is not made twice.
    if not op.get_bind().scalar(sa.select(sa.func.count()).select_from(workspace)):
        op.bulk_insert(workspace, [{"id": uuid4(), "name": "My pools", "created_at": datetime.now(UTC)}])
    op.create_table(
        "person",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("initials", sa.String(length=8), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.ForeignKeyConstraint(["workspace_id"], ["workspace.id"], name=op.f("fk_person_workspace_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_person")),
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_person_workspace_id"), "person", ["workspace_id"], unique=False, if_not_exists=True
    )
    op.create_table(
        "pool",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.ForeignKeyConstraint(["workspace_id"], ["workspace.id"], name=op.f("fk_pool_workspace_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_pool")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_pool_workspace_id"), "pool", ["workspace_id"], unique=False, if_not_exists=True)
    op.create_table(
        "product",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("chemical", sa.String(length=40), nullable=False),
        sa.Column("strength_percent", sa.Double(), nullable=False),
        sa.Column("package_g", sa.Double(), nullable=True),
        sa.Column("package_ml", sa.Double(), nullable=True),
        sa.Column("density_g_per_ml", sa.Double(), nullable=True),
        sa.Column("created_at", UtcDateTime(), nullable=False),
        sa.ForeignKeyConstraint(["workspace_id"], ["workspace.id"], name=op.f("fk_product_workspace_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_product")),
        if_not_exists=True,
    )
    op.create_index(
        op.f("ix_product_workspace_id"), "product", ["workspace_id"], unique=False, if_not_exists=True
    )
    op.create_table(
        "entry",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("workspace_id", sa.Uuid(), nullable=False),
        sa.Column("pool_id", sa.Uuid(), nullable=True),
        sa.Column("person_id", sa.Uuid(), nullable=True),
        sa.Column("kind", sa.String(length=20), nullable=False),
        sa.Column("at", UtcDateTime(), nullable=False),
        sa.Column("recorded_at", UtcDateTime(), nullable=False),
        sa.Column("supersedes", sa.Uuid(), nullable=True),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_entry_person_id")),
        sa.ForeignKeyConstraint(["pool_id"], ["pool.id"], name=op.f("fk_entry_pool_id")),
        sa.ForeignKeyConstraint(["supersedes"], ["entry.id"], name=op.f("fk_entry_supersedes")),
        sa.ForeignKeyConstraint(["workspace_id"], ["workspace.id"], name=op.f("fk_entry_workspace_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_entry")),
        sa.UniqueConstraint("supersedes", name=op.f("uq_entry_supersedes")),
        if_not_exists=True,
    )
    op.create_index(op.f("ix_entry_pool_id_at"), "entry", ["pool_id", "at"], unique=False, if_not_exists=True)
    op.create_index(
        op.f("ix_entry_workspace_id"), "entry", ["workspace_id"], unique=False, if_not_exists=True
    )


def downgrade() -> None:
    op.drop_index(op.f("ix_entry_workspace_id"), table_name="entry")
    op.drop_index(op.f("ix_entry_pool_id_at"), table_name="entry")
    op.drop_table("entry")
    op.drop_index(op.f("ix_product_workspace_id"), table_name="product")
    op.drop_table("product")
    op.drop_index(op.f("ix_pool_workspace_id"), table_name="pool")
    op.drop_table("pool")
    op.drop_index(op.f("ix_person_workspace_id"), table_name="person")
    op.drop_table("person")
    op.drop_table("workspace")

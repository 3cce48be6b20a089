"""Cutting and making: how a garment is made up, lays of cloth, cloths of the house."""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    op.add_column("docket", sa.Column("making", sa.JSON, nullable=False, server_default="{}"))
    op.create_table(
        "lay",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("production_id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("material", sa.String(60), nullable=False),
        sa.Column("dockets", sa.JSON, nullable=False),
        sa.Column("cloth", sa.JSON, nullable=False),
        sa.Column("shapes", sa.JSON, nullable=False),
        sa.Column("placed", sa.JSON, nullable=False),
        sa.Column("rest", sa.JSON, nullable=False),
        sa.Column("stock", sa.JSON, nullable=False),
        sa.Column("drawn", sa.String(40), nullable=False),
        sa.Column("by_hand", sa.Boolean, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_lay"),
        sa.ForeignKeyConstraint(["production_id"], ["production.id"], name="fk_lay_production_id_production", ondelete="CASCADE"),
    )
    op.create_index("ix_lay_production_id", "lay", ["production_id"])
    op.create_table(
        "house_cloth",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("began", sa.String(40), nullable=False),
        sa.Column("parts", sa.JSON, nullable=False),
        sa.Column("own", sa.JSON, nullable=False),
        sa.Column("shrinks", sa.Float, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_house_cloth"),
    )


def downgrade() -> None:
    op.drop_table("house_cloth")
    op.drop_table("lay")
    op.drop_column("docket", "making")

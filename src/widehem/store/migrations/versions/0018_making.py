"""Cutting and making: how a garment is made up, lays of cloth, cloths of the house, the stock, books of costumes, days, exercises."""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    op.add_column("docket", sa.Column("making", sa.JSON, nullable=False, server_default="{}"))
    op.add_column("production", sa.Column("plan", sa.JSON, nullable=False, server_default="{}"))
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
        sa.Column("lies_on", sa.JSON, nullable=False),
        sa.Column("cut_on", sa.Date, nullable=True),
        sa.Column("by_hand", sa.Boolean, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_lay"),
        sa.ForeignKeyConstraint(
            ["production_id"], ["production.id"], name="fk_lay_production_id_production", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_lay_production_id", "lay", ["production_id"])
    op.create_table(
        "house_cloth",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("began", sa.String(40), nullable=False),
        sa.Column("parts", sa.JSON, nullable=False),
        sa.Column("own", sa.JSON, nullable=False),
        sa.Column("shrinks", sa.Double, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_house_cloth"),
    )
    op.create_table(
        "stock",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("cloth", sa.String(40), nullable=False),
        sa.Column("length", sa.Double, nullable=False),
        sa.Column("width", sa.Double, nullable=False),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("shrinks", sa.Double, nullable=False),
        sa.Column("price", sa.Double, nullable=False),
        sa.Column("place", sa.String(120), nullable=False),
        sa.Column("words", sa.String(400), nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_stock"),
    )
    op.create_table(
        "stock_photo",
        sa.Column("stock_id", sa.Integer, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.PrimaryKeyConstraint("stock_id", name="pk_stock_photo"),
        sa.ForeignKeyConstraint(["stock_id"], ["stock.id"], name="fk_stock_photo_stock_id_stock", ondelete="CASCADE"),
    )
    op.create_table(
        "book",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("wearer_id", sa.Integer, nullable=False),
        sa.Column("costume", sa.String(80), nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_book"),
        sa.UniqueConstraint("wearer_id", "costume", name="uq_book_wearer_id"),
        sa.ForeignKeyConstraint(["wearer_id"], ["wearer.id"], name="fk_book_wearer_id_wearer", ondelete="CASCADE"),
    )
    op.create_table(
        "practice",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("person", sa.String(60), nullable=False),
        sa.Column("exercise", sa.String(80), nullable=False),
        sa.Column("right", sa.Boolean, nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_practice"),
    )
    op.create_index("ix_practice_person", "practice", ["person"])


def downgrade() -> None:
    op.drop_table("practice")
    op.drop_table("book")
    op.drop_table("stock_photo")
    op.drop_table("stock")
    op.drop_table("house_cloth")
    op.drop_table("lay")
    op.drop_column("production", "plan")
    op.drop_column("docket", "making")

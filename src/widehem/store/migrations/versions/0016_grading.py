"""Size charts and shift rules of the house, the rail of finished garments; how a design is graded, how a cast is planned."""

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"


def upgrade() -> None:
    op.add_column("design", sa.Column("grading", sa.JSON, nullable=False, server_default="{}"))
    op.add_column("production", sa.Column("cast", sa.JSON, nullable=False, server_default="{}"))
    op.create_table(
        "house_sizes",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("figure", sa.String(40), nullable=False),
        sa.Column("key", sa.String(40), nullable=False),
        sa.Column("sizes", sa.JSON, nullable=False),
        sa.Column("letters", sa.JSON, nullable=False),
        sa.Column("base", sa.Integer, nullable=False),
        sa.Column("rows", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_house_sizes"),
    )
    op.create_table(
        "house_rules",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_house_rules"),
    )
    op.create_table(
        "on_rail",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("kind", sa.String(60), nullable=False),
        sa.Column("place", sa.String(120), nullable=False),
        sa.Column("words", sa.String(400), nullable=False),
        sa.Column("fits", sa.JSON, nullable=False),
        sa.Column("ease", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_on_rail"),
    )
    op.create_table(
        "rail_photo",
        sa.Column("on_rail_id", sa.Integer, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.PrimaryKeyConstraint("on_rail_id", name="pk_rail_photo"),
        sa.ForeignKeyConstraint(["on_rail_id"], ["on_rail.id"], name="fk_rail_photo_on_rail_id_on_rail", ondelete="CASCADE"),
    )


def downgrade() -> None:
    op.drop_table("rail_photo")
    op.drop_table("on_rail")
    op.drop_table("house_rules")
    op.drop_table("house_sizes")
    op.drop_column("production", "cast")
    op.drop_column("design", "grading")

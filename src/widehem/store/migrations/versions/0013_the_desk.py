"""Notes with pictures, where a garment stands, the time of day of a reading."""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"

DAYS = ("due_on", "cut_on", "fitted_on", "finished_on")


def upgrade() -> None:
    for table in ("reading", "intake_reading"):
        op.add_column(table, sa.Column("hour", sa.String(5), nullable=False, server_default=""))
    for name in DAYS:
        op.add_column("docket", sa.Column(name, sa.Date))
    op.add_column("docket", sa.Column("waits", sa.String(20), nullable=False, server_default=""))
    op.create_table(
        "picture",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("production_id", sa.Integer, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.Column("small", sa.LargeBinary, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_picture"),
        sa.ForeignKeyConstraint(
            ["production_id"], ["production.id"], name="fk_picture_production_id_production", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_picture_production_id", "picture", ["production_id"])
    op.create_table(
        "note",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("production_id", sa.Integer, nullable=False),
        sa.Column("wearer_id", sa.Integer),
        sa.Column("docket_id", sa.Integer),
        sa.Column("words", sa.String(2000), nullable=False),
        sa.Column("pictures", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_note"),
        sa.ForeignKeyConstraint(
            ["production_id"], ["production.id"], name="fk_note_production_id_production", ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["wearer_id"], ["wearer.id"], name="fk_note_wearer_id_wearer", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["docket_id"], ["docket.id"], name="fk_note_docket_id_docket", ondelete="CASCADE"),
    )
    op.create_index("ix_note_production_id", "note", ["production_id", "wearer_id", "docket_id"])


def downgrade() -> None:
    op.drop_table("note")
    op.drop_table("picture")
    for name in (*DAYS, "waits"):
        op.drop_column("docket", name)
    for table in ("intake_reading", "reading"):
        op.drop_column(table, "hour")

"""What was done and can be taken back; the bin."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    for table in ("production", "wearer", "docket"):
        op.add_column(table, sa.Column("binned_at", sa.DateTime))
    op.create_table(
        "event",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("by", sa.String(16), nullable=False),
        sa.Column("words", sa.String(300), nullable=False),
        sa.Column("production_id", sa.Integer),
        sa.Column("wearer_id", sa.Integer),
        sa.Column("docket_id", sa.Integer),
        sa.Column("changes", sa.JSON, nullable=False),
        sa.Column("undoes", sa.Integer),
        sa.Column("undone_by", sa.Integer),
        sa.PrimaryKeyConstraint("id", name="pk_event"),
    )
    op.create_index("ix_event_docket_id_id", "event", ["docket_id", "id"])
    op.create_index("ix_event_wearer_id_id", "event", ["wearer_id", "id"])


def downgrade() -> None:
    op.drop_table("event")
    for table in ("docket", "wearer", "production"):
        op.drop_column(table, "binned_at")

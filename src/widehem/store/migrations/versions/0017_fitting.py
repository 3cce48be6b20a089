"""Fittings: rounds, what was noted in them, and notes with pictures made at one."""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
_KEY = "fk_note_round_id_fitting_round"


def upgrade() -> None:
    op.create_table(
        "fitting_round",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("docket_id", sa.Integer, nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("taken_on", sa.Date, nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("people", sa.String(200), nullable=False),
        sa.Column("foundation", sa.String(200), nullable=False),
        sa.Column("shoes", sa.String(200), nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_fitting_round"),
        sa.ForeignKeyConstraint(["docket_id"], ["docket.id"], name="fk_fitting_round_docket_id_docket", ondelete="CASCADE"),
    )
    op.create_index("ix_fitting_round_docket_id", "fitting_round", ["docket_id"])
    op.create_table(
        "fitting_event",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("round_id", sa.Integer, nullable=False),
        sa.Column("client", sa.String(40), nullable=False),
        sa.Column("what", sa.String(10), nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_fitting_event"),
        sa.UniqueConstraint("round_id", "client", name="uq_fitting_event_round_id"),
        sa.ForeignKeyConstraint(
            ["round_id"], ["fitting_round.id"], name="fk_fitting_event_round_id_fitting_round", ondelete="CASCADE"
        ),
    )
    with op.batch_alter_table("note") as batch:
        batch.add_column(sa.Column("round_id", sa.Integer))
        batch.create_foreign_key(_KEY, "fitting_round", ["round_id"], ["id"], ondelete="SET NULL")
        batch.create_index("ix_note_round_id", ["round_id"])


def downgrade() -> None:
    with op.batch_alter_table("note") as batch:
        batch.drop_constraint(_KEY, type_="foreignkey")
        batch.drop_index("ix_note_round_id")
        batch.drop_column("round_id")
    op.drop_table("fitting_event")
    op.drop_table("fitting_round")

"""Fittings: rounds, and what was noted in them."""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"


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


def downgrade() -> None:
    op.drop_table("fitting_event")
    op.drop_table("fitting_round")

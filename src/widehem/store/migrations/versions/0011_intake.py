"""Where a file of charts is staged before it is moved among the rest all at once."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    op.create_table(
        "intake",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("job", sa.String(40), nullable=False),
        sa.Column("production_id", sa.Integer, nullable=False),
        sa.Column("begun_at", sa.DateTime, nullable=False),
        sa.Column("kept_at", sa.DateTime),
        sa.Column("new_wearers", sa.Integer, nullable=False),
        sa.Column("readings", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_intake"),
        sa.UniqueConstraint("job", name="uq_intake_job"),
        sa.ForeignKeyConstraint(
            ["production_id"], ["production.id"], name="fk_intake_production_id_production", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_intake_production_id", "intake", ["production_id"])
    op.create_table(
        "intake_wearer",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("intake_id", sa.Integer, nullable=False),
        sa.Column("wearer_id", sa.Integer),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("role", sa.String(120), nullable=False),
        sa.Column("figure", sa.String(40), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_intake_wearer"),
        sa.ForeignKeyConstraint(["intake_id"], ["intake.id"], name="fk_intake_wearer_intake_id_intake", ondelete="CASCADE"),
    )
    op.create_index("ix_intake_wearer_intake_id", "intake_wearer", ["intake_id"])
    op.create_table(
        "intake_chart",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("intake_id", sa.Integer, nullable=False),
        sa.Column("intake_wearer_id", sa.Integer, nullable=False),
        sa.Column("chart_id", sa.Integer),
        sa.Column("taken_on", sa.Date, nullable=False),
        sa.Column("foundation", sa.String(200), nullable=False),
        sa.Column("shoes", sa.String(200), nullable=False),
        sa.Column("measured_by", sa.String(120), nullable=False),
        sa.Column("note", sa.String(600), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_intake_chart"),
        sa.ForeignKeyConstraint(["intake_id"], ["intake.id"], name="fk_intake_chart_intake_id_intake", ondelete="CASCADE"),
        sa.ForeignKeyConstraint(
            ["intake_wearer_id"],
            ["intake_wearer.id"],
            name="fk_intake_chart_intake_wearer_id_intake_wearer",
            ondelete="CASCADE",
        ),
    )
    op.create_index("ix_intake_chart_intake_id", "intake_chart", ["intake_id"])
    op.create_index("ix_intake_chart_intake_wearer_id", "intake_chart", ["intake_wearer_id"])
    op.create_table(
        "intake_reading",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("intake_chart_id", sa.Integer, nullable=False),
        sa.Column("measure", sa.String(40), nullable=False),
        sa.Column("turn", sa.Integer, nullable=False),
        sa.Column("ticks", sa.Integer),
        sa.Column("typed", sa.String(60), nullable=False),
        sa.Column("unit", sa.String(2), nullable=False),
        sa.Column("side", sa.String(5), nullable=False),
        sa.Column("carried_on", sa.Date),
        sa.PrimaryKeyConstraint("id", name="pk_intake_reading"),
        sa.ForeignKeyConstraint(
            ["intake_chart_id"], ["intake_chart.id"], name="fk_intake_reading_intake_chart_id_intake_chart", ondelete="CASCADE"
        ),
    )
    op.create_index("ix_intake_reading_intake_chart_id", "intake_reading", ["intake_chart_id"])


def downgrade() -> None:
    for table in ("intake_reading", "intake_chart", "intake_wearer", "intake"):
        op.drop_table(table)

"""First tables: productions, wearers, charts with readings, accepted doubts, dockets."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def _id() -> sa.Column[int]:
    return sa.Column("id", sa.Integer, primary_key=True)


def _of(table: str) -> sa.Column[int]:
    name = f"{table}_id"
    return sa.Column(name, sa.Integer, sa.ForeignKey(f"{table}.id", ondelete="CASCADE"), nullable=False)


def _text(name: str, size: int) -> sa.Column[str]:
    return sa.Column(name, sa.String(size), nullable=False)


def _when(name: str = "created_at") -> sa.Column[object]:
    return sa.Column(name, sa.DateTime, nullable=False)


def upgrade() -> None:
    op.create_table("production", _id(), _text("name", 120), _text("company", 120), _when())
    op.create_table("wearer", _id(), _of("production"), _text("name", 120), _text("role", 120), _when())
    op.create_index("ix_wearer_production_id", "wearer", ["production_id"])
    op.create_table(
        "chart", _id(), _of("wearer"), sa.Column("taken_on", sa.Date, nullable=False),
        _text("foundation", 200), _text("shoes", 200), _text("measured_by", 120), _when(),
    )  # fmt: skip
    op.create_index("ix_chart_wearer_id", "chart", ["wearer_id"])
    op.create_table(
        "reading", _id(), _of("chart"), _text("measure", 40), sa.Column("turn", sa.Integer, nullable=False),
        sa.Column("ticks", sa.Integer), _text("typed", 60), _text("unit", 2), _when(),
    )  # fmt: skip
    op.create_index("ix_reading_chart_measure", "reading", ["chart_id", "measure"])
    op.execute(
        "CREATE TRIGGER reading_is_never_changed BEFORE UPDATE ON reading "
        "BEGIN SELECT RAISE(ABORT, 'a reading is never changed, only followed by another'); END"
    )
    op.create_table("accepted_doubt", _id(), _of("chart"), _text("doubt", 300), _text("why", 300), _when())
    op.create_index("ix_accepted_doubt_chart_id", "accepted_doubt", ["chart_id"])
    op.create_table(
        "docket", _id(), _of("production"), _of("wearer"), _text("name", 120), _text("method", 60),
        sa.Column("rules", sa.Integer, nullable=False), sa.Column("options", sa.JSON, nullable=False),
        sa.Column("ease", sa.JSON, nullable=False), _text("plan", 40), sa.Column("amounts", sa.JSON, nullable=False),
        _text("paper", 20), sa.Column("version", sa.Integer, nullable=False), _when(), _when("updated_at"),
    )  # fmt: skip
    op.create_index("ix_docket_production_id", "docket", ["production_id"])
    op.create_index("ix_docket_wearer_id", "docket", ["wearer_id"])


def downgrade() -> None:
    for table in ("docket", "accepted_doubt", "reading", "chart", "wearer", "production"):
        op.drop_table(table)

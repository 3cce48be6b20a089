"""The measuring room: sides, charts over time, notes and photos, house lists and tables, the digital tape."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"

_WORDS = (
    ("wearer", "allergies", 400),
    ("wearer", "movement", 400),
    ("chart", "note", 600),
    ("reading", "side", 5),
    ("docket", "foundation", 200),
)


def _id() -> sa.Column[int]:
    return sa.Column("id", sa.Integer, primary_key=True)


def _of(table: str, *, unique: bool = False) -> sa.Column[int]:
    return sa.Column(f"{table}_id", sa.Integer, sa.ForeignKey(f"{table}.id", ondelete="CASCADE"), nullable=False, unique=unique)


def _text(name: str, size: int) -> sa.Column[str]:
    return sa.Column(name, sa.String(size), nullable=False)


def _whole(name: str) -> sa.Column[int]:
    return sa.Column(name, sa.Integer, nullable=False)


def _yes_no(name: str) -> sa.Column[bool]:
    return sa.Column(name, sa.Boolean, nullable=False)


def _json(name: str) -> sa.Column[object]:
    return sa.Column(name, sa.JSON, nullable=False)


def _when() -> sa.Column[object]:
    return sa.Column("created_at", sa.DateTime, nullable=False)


def upgrade() -> None:
    for table, name, size in _WORDS:
        op.add_column(table, sa.Column(name, sa.String(size), nullable=False, server_default=""))
    op.add_column("reading", sa.Column("carried_on", sa.Date))
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("chart_id", sa.Integer))
        batch.create_foreign_key(op.f("fk_docket_chart_id_chart"), "chart", ["chart_id"], ["id"], ondelete="SET NULL")
    photo = sa.Column("wearer_id", sa.Integer, sa.ForeignKey("wearer.id", ondelete="CASCADE"), primary_key=True)
    op.create_table("photo", photo, sa.Column("data", sa.LargeBinary, nullable=False), _when())
    op.create_table("house_list", _id(), _text("name", 60), _json("codes"), _when())
    op.create_table(
        "house_table", _id(), _text("name", 60), sa.Column("bust_difference", sa.Double, nullable=False), _json("row"),
        _json("formulas"), _yes_no("young"), _whole("version"),
    )  # fmt: skip
    op.create_table(
        "listening", _id(), _of("chart", unique=True), sa.Column("pair", sa.String(8), nullable=False, unique=True), _json("codes"),
        _yes_no("twice"), _text("at", 40), _whole("turn"), _yes_no("held"),
    )  # fmt: skip
    op.create_table(
        "heard", _id(), _of("listening"), _text("device", 40), _whole("number"), _text("said", 60), _text("measure", 40), _whole("turn"),
        sa.Column("stood", sa.Integer), _yes_no("undone"), _json("answer"), _when(),
    )  # fmt: skip
    op.create_index("ix_heard_listening_id", "heard", ["listening_id"])


def downgrade() -> None:
    for table in ("heard", "listening", "house_table", "house_list", "photo"):
        op.drop_table(table)
    with op.batch_alter_table("docket") as batch:
        batch.drop_constraint(op.f("fk_docket_chart_id_chart"), type_="foreignkey")
        batch.drop_column("chart_id")
    op.drop_column("reading", "carried_on")
    for table, name, _ in _WORDS:
        op.drop_column(table, name)

"""How a garment is marked: plans for its lining and interfacing, own edges, notches set by hand; printers; the figures of an armhole,
a cap and a round hem by themselves, which followed others until now; designs made of outlines, with the picture they were traced
from."""

import json

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"

FOLLOWED = (("armhole", "shoulder"), ("cap", "armhole"), ("hem_flared", "hem"), ("hem_circle", "hem"))


def upgrade() -> None:
    op.add_column("docket", sa.Column("marking", sa.JSON, nullable=False, server_default="{}"))
    op.add_column("design", sa.Column("outlines", sa.JSON))
    op.create_table(
        "traced",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("design_id", sa.Integer, nullable=False),
        sa.Column("data", sa.LargeBinary, nullable=False),
        sa.Column("width", sa.Integer, nullable=False),
        sa.Column("height", sa.Integer, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_traced"),
        sa.ForeignKeyConstraint(["design_id"], ["design.id"], name="fk_traced_design_id_design", ondelete="CASCADE"),
    )
    op.create_index("ix_traced_design_id", "traced", ["design_id"])
    op.create_table(
        "printer",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("across", sa.String(20), nullable=False),
        sa.Column("down", sa.String(20), nullable=False),
        sa.Column("address", sa.String(80), nullable=False, server_default=""),
        sa.PrimaryKeyConstraint("id", name="pk_printer"),
    )
    at = op.get_bind()
    docket = sa.table("docket", sa.column("id"), sa.column("amounts"), sa.column("house"))
    for row in at.execute(sa.select(docket.c.id, docket.c.amounts, docket.c.house)).all():
        amounts, house = json.loads(row.amounts or "{}"), json.loads(row.house or "{}")
        plans = {key.split(".")[1] for key in house if key.startswith("a.")}
        more = _followed(amounts, ""), {key: text for plan in plans for key, text in _followed(house, f"a.{plan}.").items()}
        if any(more):
            values = {"amounts": json.dumps({**amounts, **more[0]}), "house": json.dumps({**house, **more[1]})}
            at.execute(docket.update().where(docket.c.id == row.id).values(**values))
    value = sa.table("house_value", sa.column("of"), sa.column("key"), sa.column("text"))
    rows = at.execute(sa.select(value.c.of, value.c.key, value.c.text).where(value.c.key.like("a.%"))).all()
    for of in {row.of for row in rows}:
        mine = {row.key: row.text for row in rows if row.of == of}
        for key, text in _followed(mine, "a.").items():
            at.execute(value.insert().values(of=of, key=key, text=text))


def _followed(amounts: dict[str, str], start: str) -> dict[str, str]:
    """What followed another figure until now, as a figure of its own."""
    found: dict[str, str] = {}
    for kind, other in FOLLOWED:
        text = {**amounts, **found}.get(start + other)
        if text is not None and start + kind not in amounts:
            found[start + kind] = text
    return found


def downgrade() -> None:
    op.drop_table("printer")
    op.drop_table("traced")
    op.drop_column("design", "outlines")
    op.drop_column("docket", "marking")

"""Designs: a docket is a design on a chart with settings of its own over it; until now every docket named a method."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
_KEY = "fk_docket_design_id_design"


def upgrade() -> None:
    design = op.create_table(
        "design",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("method", sa.String(60), nullable=False),
        sa.Column("rules", sa.Integer, nullable=False),
        sa.Column("options", sa.JSON, nullable=False),
        sa.Column("ease", sa.JSON, nullable=False),
        sa.Column("steps", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
    )
    op.create_index(op.f("ix_design_method"), "design", ["method"])
    now = sa.func.current_timestamp()
    blocks = op.get_bind().execute(sa.text("SELECT DISTINCT method, rules FROM docket ORDER BY method, rules")).all()
    for method, rules in blocks:
        op.get_bind().execute(
            design.insert().values(
                name=method,
                method=method,
                rules=rules,
                options={},
                ease={},
                steps=[],
                version=1,
                created_at=now,
                updated_at=now,
            )
        )
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("design_id", sa.Integer))
        batch.add_column(sa.Column("alterations", sa.JSON, nullable=False, server_default="[]"))
    op.execute(
        "UPDATE docket SET design_id = (SELECT design.id FROM design WHERE design.method = docket.method AND design.rules = docket.rules)"
    )
    with op.batch_alter_table("docket") as batch:
        batch.alter_column("design_id", existing_type=sa.Integer, nullable=False)
        batch.create_foreign_key(op.f(_KEY), "design", ["design_id"], ["id"])
        batch.create_index(op.f("ix_docket_design_id"), ["design_id"])
        batch.drop_column("method")


def downgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("method", sa.String(60)))
    op.execute("UPDATE docket SET method = (SELECT design.method FROM design WHERE design.id = docket.design_id)")
    with op.batch_alter_table("docket") as batch:
        batch.alter_column("method", existing_type=sa.String(60), nullable=False)
        batch.drop_constraint(op.f(_KEY), type_="foreignkey")
        batch.drop_index(op.f("ix_docket_design_id"))
        batch.drop_column("design_id")
        batch.drop_column("alterations")
    op.drop_table("design")

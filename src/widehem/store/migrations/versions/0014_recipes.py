"""Designs of the house with a name and notes, their versions, and dockets that stay at what a design was."""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.add_column("design", sa.Column("own", sa.Boolean, nullable=False, server_default="0"))
    op.add_column("design", sa.Column("summary", sa.String(300), nullable=False, server_default=""))
    op.add_column("design", sa.Column("notes", sa.String(2000), nullable=False, server_default=""))
    op.add_column("design", sa.Column("binned_at", sa.DateTime))
    op.add_column("docket", sa.Column("stays", sa.JSON))
    op.add_column("docket", sa.Column("costume", sa.String(80), nullable=False, server_default=""))
    op.add_column("docket", sa.Column("worn", sa.Integer, nullable=False, server_default="0"))
    op.add_column("docket", sa.Column("counts", sa.String(10), nullable=False, server_default="ordinary"))
    op.add_column("docket", sa.Column("closes", sa.String(200), nullable=False, server_default=""))
    op.add_column("docket", sa.Column("attaches", sa.String(200), nullable=False, server_default=""))
    op.add_column("docket", sa.Column("quick", sa.String(400), nullable=False, server_default=""))
    op.create_table(
        "design_version",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("design_id", sa.Integer, nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("data", sa.JSON, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_design_version"),
        sa.ForeignKeyConstraint(["design_id"], ["design.id"], name="fk_design_version_design_id_design", ondelete="CASCADE"),
    )
    op.create_index("ix_design_version_design_id", "design_version", ["design_id"])


def downgrade() -> None:
    op.drop_table("design_version")
    for name in ("quick", "attaches", "closes", "counts", "worn", "costume", "stays"):
        op.drop_column("docket", name)
    for name in ("binned_at", "notes", "summary", "own"):
        op.drop_column("design", name)

"""Values of the house in place of defaults, and those a docket was opened with."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "house_value",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("of", sa.String(60), nullable=False),
        sa.Column("key", sa.String(60), nullable=False),
        sa.Column("text", sa.String(60), nullable=False),
        sa.UniqueConstraint("of", "key", name="uq_house_value_of"),
    )
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("house", sa.JSON, nullable=False, server_default="{}"))


def downgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.drop_column("house")
    op.drop_table("house_value")

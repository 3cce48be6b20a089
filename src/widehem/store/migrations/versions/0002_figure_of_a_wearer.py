"""The figure table a wearer is judged by."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    with op.batch_alter_table("wearer") as table:
        table.add_column(sa.Column("figure", sa.String(40), nullable=False, server_default="curved"))


def downgrade() -> None:
    with op.batch_alter_table("wearer") as table:
        table.drop_column("figure")

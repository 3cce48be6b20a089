"""The armhole of a garment that exists, for a sleeve that is drawn for it."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("armhole", sa.JSON, nullable=False, server_default="{}"))


def downgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.drop_column("armhole")

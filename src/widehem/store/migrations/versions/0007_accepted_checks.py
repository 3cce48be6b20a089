"""Checks accepted with a word: kept with their docket."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("accepted", sa.JSON, nullable=False, server_default="{}"))


def downgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.drop_column("accepted")

"""The bodice a sleeve is drawn for; what was seen when a draft was looked at."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
_KEY = "fk_docket_bodice_id_docket"


def upgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.add_column(sa.Column("bodice_id", sa.Integer))
        batch.add_column(sa.Column("looks", sa.JSON, nullable=False, server_default="{}"))
        batch.create_foreign_key(op.f(_KEY), "docket", ["bodice_id"], ["id"], ondelete="SET NULL")


def downgrade() -> None:
    with op.batch_alter_table("docket") as batch:
        batch.drop_constraint(op.f(_KEY), type_="foreignkey")
        batch.drop_column("bodice_id")
        batch.drop_column("looks")

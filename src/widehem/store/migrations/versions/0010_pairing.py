"""Who began to listen and when; when a reading of a tape was taken back. Pair numbers of four digits have run out: begun long
ago."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    with op.batch_alter_table("listening") as batch:
        batch.add_column(sa.Column("owner", sa.String(16), nullable=False, server_default=""))
        batch.add_column(sa.Column("begun_at", sa.DateTime, nullable=False, server_default="2026-01-01 00:00:00"))
    with op.batch_alter_table("heard") as batch:
        batch.add_column(sa.Column("undone_at", sa.DateTime))
    op.execute("UPDATE heard SET undone_at = created_at WHERE undone")
    with op.batch_alter_table("heard") as batch:
        batch.drop_column("undone")


def downgrade() -> None:
    with op.batch_alter_table("heard") as batch:
        batch.add_column(sa.Column("undone", sa.Boolean, nullable=False, server_default=sa.false()))
    op.execute("UPDATE heard SET undone = 1 WHERE undone_at IS NOT NULL")
    with op.batch_alter_table("heard") as batch:
        batch.drop_column("undone_at")
    with op.batch_alter_table("listening") as batch:
        batch.drop_column("begun_at")
        batch.drop_column("owner")

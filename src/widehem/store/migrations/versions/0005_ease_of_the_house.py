"""Plans of ease of the workroom's own."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "house_ease",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(60), nullable=False),
        sa.Column("why", sa.String(200), nullable=False),
        sa.Column("amounts", sa.JSON, nullable=False),
        sa.Column("cloth", sa.String(10), nullable=False),
        sa.Column("layers", sa.Double, nullable=False),
        sa.Column("stretch", sa.Double, nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("house_ease")

"""Table projects."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "projects",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("demo", sa.String(40), nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    op.drop_table("projects")

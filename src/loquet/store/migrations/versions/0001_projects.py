"""Table projects."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "projects",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("demo", sa.String(40), nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("projects")

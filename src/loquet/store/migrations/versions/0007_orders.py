"""Table orders."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "orders",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "revision_id",
            sa.Integer,
            sa.ForeignKey("revisions.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column(
            "release_id",
            sa.Integer,
            sa.ForeignKey("releases.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("house", sa.String(40), nullable=False),
        sa.Column("quote", sa.JSON, nullable=False),
        sa.Column("placed_on", sa.Date, nullable=False),
        sa.Column("day", sa.Integer, nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("orders")

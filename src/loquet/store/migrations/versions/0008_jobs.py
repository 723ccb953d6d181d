"""Table jobs."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "jobs",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "revision_id",
            sa.Integer,
            sa.ForeignKey("revisions.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("state", sa.String(12), nullable=False),
        sa.Column("message", sa.String(500), nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
        sa.Column("finished_at", DATETIME(fsp=6)),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("jobs")

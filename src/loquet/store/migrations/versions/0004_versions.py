"""Table versions."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "versions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "revision_id",
            sa.Integer,
            sa.ForeignKey("revisions.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("parent_id", sa.Integer),
        sa.Column("slices", sa.JSON, nullable=False),
        sa.Column("label", sa.String(200), nullable=False),
        sa.Column("author", sa.String(80), nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("versions")

"""Table releases."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None
KEY = sa.String(64, collation="utf8mb4_bin")


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "releases",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "revision_id",
            sa.Integer,
            sa.ForeignKey("revisions.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("version_id", sa.Integer, nullable=False),
        sa.Column("design_digest", KEY, nullable=False),
        sa.Column("proof", sa.JSON, nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("releases")

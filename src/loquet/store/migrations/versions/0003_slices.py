"""Table slices."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import LONGTEXT

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None
KEY = sa.String(64, collation="utf8mb4_bin")


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "slices",
        sa.Column("digest", KEY, primary_key=True),
        sa.Column("content", LONGTEXT, nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("slices")

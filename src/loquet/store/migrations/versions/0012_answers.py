"""Answers that took long are kept by the digest of what they depend on."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME, LONGTEXT

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "answers",
        sa.Column("digest", sa.String(64, collation="utf8mb4_bin"), primary_key=True),
        sa.Column("content", LONGTEXT(), nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )


def downgrade() -> None:
    """Drop it; every answer can be worked out again."""
    no_table("answers")

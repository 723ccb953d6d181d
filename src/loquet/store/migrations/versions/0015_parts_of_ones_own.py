"""Parts of one's own, version by version."""

import sqlalchemy as sa

from loquet.store.migrations.steps import fresh_table, no_table
from loquet.store.tables import KEY, LONG_TEXT, UtcTime

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "shelf_parts",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("part_id", KEY, nullable=False, index=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("digest", KEY, nullable=False),
        sa.Column("content", LONG_TEXT, nullable=False),
        sa.Column("gone", sa.Boolean, nullable=False),
        sa.Column("author", sa.String(40), nullable=False),
        sa.Column("created_at", UtcTime, nullable=False),
        sa.UniqueConstraint("part_id", "version"),
    )


def downgrade() -> None:
    """Drop it."""
    no_table("shelf_parts")

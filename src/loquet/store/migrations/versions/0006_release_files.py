"""Table release_files."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import LONGBLOB

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None
KEY = sa.String(64, collation="utf8mb4_bin")


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "release_files",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "release_id",
            sa.Integer,
            sa.ForeignKey("releases.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("path", sa.String(120), nullable=False),
        sa.Column("sha256", KEY, nullable=False),
        sa.Column("content", LONGBLOB, nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("release_files")

"""Table release_files."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import LONGBLOB

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None
KEY = sa.String(64, collation="utf8mb4_bin")


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "release_files",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("release_id", sa.Integer, sa.ForeignKey("releases.id", ondelete="CASCADE"), nullable=False, index=True),
        sa.Column("path", sa.String(120), nullable=False),
        sa.Column("sha256", KEY, nullable=False),
        sa.Column("content", LONGBLOB, nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    op.drop_table("release_files")

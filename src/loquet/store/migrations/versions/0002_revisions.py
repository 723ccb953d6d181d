"""Table revisions."""

import sqlalchemy as sa

from loquet.store.migrations.steps import fresh_table, no_table

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    fresh_table(
        "revisions",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "project_id",
            sa.Integer,
            sa.ForeignKey("projects.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("letter", sa.String(2), nullable=False),
        sa.Column("head_id", sa.Integer),
        sa.Column("tip_id", sa.Integer),
        sa.Column("turn", sa.Integer, nullable=False),
    )


def downgrade() -> None:
    """Drop the table."""
    no_table("revisions")

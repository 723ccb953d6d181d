"""Units with their records, cards of the log, hours; orders of parts, and queries of a house."""

import sqlalchemy as sa
from sqlalchemy.dialects.mysql import DATETIME

from loquet.store.migrations.steps import add_column, drop_column, fresh_table, make_room, no_table

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def of(table: str, column: str, null: bool = False) -> sa.Column[int]:
    """A column that points at a row of another table and goes with it."""
    key = sa.ForeignKey(f"{table}.id", ondelete="CASCADE")
    return sa.Column(column, sa.Integer, key, nullable=null, index=True)


def upgrade() -> None:
    """Make the tables and columns."""
    make_room("records", "units", "fault_cards", "hours")
    fresh_table(
        "units",
        sa.Column("id", sa.Integer, primary_key=True),
        of("revisions", "revision_id"),
        sa.Column("serial", sa.String(24), nullable=False),
        sa.Column("simulated", sa.JSON),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )
    fresh_table(
        "records",
        sa.Column("id", sa.Integer, primary_key=True),
        of("units", "unit_id"),
        sa.Column("sort", sa.String(20), nullable=False),
        sa.Column("content", sa.JSON, nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )
    fresh_table(
        "fault_cards",
        sa.Column("id", sa.Integer, primary_key=True),
        of("projects", "project_id"),
        of("revisions", "revision_id"),
        sa.Column("title", sa.String(120), nullable=False),
        sa.Column("about", sa.String(120), nullable=False),
        sa.Column("found_how", sa.String(300), nullable=False),
        sa.Column("patch", sa.String(600), nullable=False),
        sa.Column("sort", sa.String(20), nullable=False),
        sa.Column("minutes", sa.Integer, nullable=False),
        sa.Column("cents", sa.Integer, nullable=False),
        sa.Column("state", sa.String(12), nullable=False),
        sa.Column("reason", sa.String(300), nullable=False),
        sa.Column("fixed_in", sa.Integer),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )
    fresh_table(
        "hours",
        sa.Column("id", sa.Integer, primary_key=True),
        of("revisions", "revision_id"),
        sa.Column("words", sa.String(120), nullable=False),
        sa.Column("minutes", sa.Integer, nullable=False),
        sa.Column("cents", sa.Integer, nullable=False),
        sa.Column("day", sa.Date, nullable=False),
        sa.Column("created_at", DATETIME(fsp=6), nullable=False),
    )
    add_column("orders", sa.Column("kind", sa.String(12), nullable=False, server_default="boards"))
    add_column("orders", sa.Column("answer", sa.String(300), nullable=True))
    add_column("orders", sa.Column("waited", sa.Integer, nullable=False, server_default="0"))


def downgrade() -> None:
    """Drop them."""
    for column in ("waited", "answer", "kind"):
        drop_column("orders", column)
    for table in ("hours", "fault_cards", "records", "units"):
        no_table(table)

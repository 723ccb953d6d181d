"""A project says where it is kept: on the shelf, in the archive, or among the removed ones, from
where it can come back.
"""

import sqlalchemy as sa

from loquet.store.migrations.steps import add_column, drop_column

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column; all projects are on the shelf."""
    add_column(
        "projects",
        sa.Column("kept", sa.String(12), nullable=False, server_default=sa.text("'shelf'")),
    )


def downgrade() -> None:
    """Drop it; all projects are on the shelf again."""
    drop_column("projects", "kept")

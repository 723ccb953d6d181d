"""Units name the version that they were built from; those that are there, the head of their
revision.
"""

import sqlalchemy as sa
from alembic import op

from loquet.store.migrations.steps import add_column, drop_column

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column, and take what their revision shows for units of before."""
    add_column("units", sa.Column("version_id", sa.Integer))
    op.execute(
        "UPDATE units JOIN revisions ON revisions.id = units.revision_id "
        "SET units.version_id = revisions.head_id WHERE units.version_id IS NULL"
    )


def downgrade() -> None:
    """Forget it."""
    drop_column("units", "version_id")

"""Orders keep the key of the request that made them, so that a second press makes no second
order.
"""

import sqlalchemy as sa
from alembic import op

from loquet.store.migrations.steps import add_column, drop_column

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column; old orders have no key."""
    add_column(
        "orders", sa.Column("request_key", sa.String(64, collation="utf8mb4_bin"), nullable=True)
    )
    if not any(
        row["name"] == "orders_request_key"
        for row in sa.inspect(op.get_bind()).get_indexes("orders")
    ):
        op.create_index("orders_request_key", "orders", ["request_key"], unique=True)


def downgrade() -> None:
    """Drop it with its index."""
    drop_column("orders", "request_key")

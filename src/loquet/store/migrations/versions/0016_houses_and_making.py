"""The shelf holds houses and suppliers too, with price lists; how the boards are made moves from
the choices of a project into its brief.

Going down gives the versions that were moved back as they were, as 0010 does.
"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from loquet.core.brief.making import moved, of_before
from loquet.core.plain.frozen import canonical, digest_of
from loquet.store.migrations.steps import (
    add_column,
    drop_column,
    fresh_table,
    no_table,
    rename_table,
)
from loquet.store.tables import KEY, LONG_TEXT

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

BEFORE = "slices_before_making"


def upgrade() -> None:
    """Rename the shelf's table, make that of prices, move what stood among choices; a killed run
    goes on.
    """
    rename_table("shelf_parts", "shelf_entries", "part_id", "entry_id", KEY)
    op.alter_column(
        "orders",
        "house",
        type_=sa.String(64),
        existing_type=sa.String(40),
        existing_nullable=False,
    )
    fresh_table(
        "price_lines",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("supplier", KEY, nullable=False, index=True),
        sa.Column("order_number", sa.String(80), nullable=False),
        sa.Column("part", sa.String(300), nullable=False, index=True),
        sa.Column("number_key", sa.String(80), nullable=False, index=True),
        sa.Column("content", LONG_TEXT, nullable=False),
        sa.UniqueConstraint("supplier", "order_number"),
    )
    add_column("versions", sa.Column(BEFORE, sa.JSON, nullable=True))
    connection = op.get_bind()
    rows = connection.execute(sa.text("SELECT id, slices FROM versions ORDER BY id")).all()
    done: dict[tuple[str, str], tuple[str, str]] = {}
    for number, stored in rows:
        slices = json.loads(stored) if isinstance(stored, str | bytes) else stored
        pair = (slices["brief"], slices["choices"])
        if pair not in done:
            done[pair] = moved_pair(connection, pair)
        if done[pair] != pair:
            now = {**slices, **dict(zip(("brief", "choices"), done[pair], strict=True))}
            connection.execute(
                sa.text(f"UPDATE versions SET slices = :new, {BEFORE} = :old WHERE id = :id"),
                {"new": json.dumps(now), "old": json.dumps(slices), "id": number},
            )


def moved_pair(connection: Any, pair: tuple[str, str]) -> tuple[str, str]:
    """Digests of brief and choices as they are now, their contents stored."""
    brief, choices = (json.loads(content(connection, digest)) for digest in pair)
    if not of_before(choices):
        return pair
    found = []
    for plain in moved(brief, choices):
        digest = digest_of(plain)
        connection.execute(
            sa.text("INSERT IGNORE INTO slices (digest, content) VALUES (:d, :c)"),
            {"d": digest, "c": canonical(plain)},
        )
        found.append(digest)
    return found[0], found[1]


def content(connection: Any, digest: str) -> str:
    """The content of a slice."""
    query = sa.text("SELECT content FROM slices WHERE digest = :d")
    return str(connection.scalar(query, {"d": digest}))


def downgrade() -> None:
    """Name the slices of before again, and drop what is new."""
    connection = op.get_bind()
    connection.execute(sa.text(f"UPDATE versions SET slices = {BEFORE} WHERE {BEFORE} IS NOT NULL"))
    drop_column("versions", BEFORE)
    no_table("price_lines")
    rename_table("shelf_entries", "shelf_parts", "entry_id", "part_id", KEY)
    connection.execute(sa.text("DELETE FROM shelf_parts WHERE part_id NOT LIKE 'own/%'"))

"""Stored designs are turned into things on boards: briefs of the present format, slices kept by
subject.

Going down gives versions back as they were: the slices of before are never removed, and each turned
version names them.
"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from loquet.store.migrations.steps import add_column, drop_column
from loquet.store.migrations.turning import Turned, turn_version

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

FORMER = "former_slices"


def upgrade() -> None:
    """Turn every version that is not turned yet; each is turned with its own note, so that a killed
    run goes on.
    """
    add_column("versions", sa.Column(FORMER, sa.JSON, nullable=True))
    connection = op.get_bind()
    rows = connection.execute(
        sa.text(f"SELECT id, slices FROM versions WHERE {FORMER} IS NULL ORDER BY id")
    ).all()
    turned: dict[str, Turned] = {}
    for number, text in rows:
        slices = plain(text)
        if is_turned(slices):
            continue
        contents = contents_of(connection, [d for d in slices.values() if d])
        made = turn_version(slices, contents, turned)
        for digest, content in made.contents.items():
            connection.execute(
                sa.text("INSERT IGNORE INTO slices (digest, content) VALUES (:d, :c)"),
                {"d": digest, "c": content},
            )
        connection.execute(
            sa.text(f"UPDATE versions SET slices = :new, {FORMER} = :old WHERE id = :id"),
            {"new": json.dumps(made.slices), "old": json.dumps(slices), "id": number},
        )


def downgrade() -> None:
    """Name the slices of before again; versions that were made since cannot be read by what was
    before, and go.
    """
    connection = op.get_bind()
    connection.execute(sa.text(f"UPDATE versions SET slices = {FORMER} WHERE {FORMER} IS NOT NULL"))
    rows = connection.execute(sa.text("SELECT id, slices FROM versions ORDER BY id")).all()
    newer = [number for number, text in rows if is_turned(plain(text))]
    for number in newer:
        step_back(connection, number)
    connection.execute(
        sa.text(
            "DELETE FROM projects WHERE id IN (SELECT project_id FROM revisions WHERE head_id IS"
            " NULL)"
        )
    )
    drop_column("versions", FORMER)


def step_back(connection: Any, number: int) -> None:
    """Heads and tips on a version that goes move to its parent."""
    parent = connection.scalar(
        sa.text("SELECT parent_id FROM versions WHERE id = :id"), {"id": number}
    )
    for column in ("head_id", "tip_id"):
        connection.execute(
            sa.text(f"UPDATE revisions SET {column} = :parent WHERE {column} = :id"),
            {"parent": parent, "id": number},
        )
    connection.execute(
        sa.text("UPDATE versions SET parent_id = :parent WHERE parent_id = :id"),
        {"parent": parent, "id": number},
    )
    connection.execute(sa.text("DELETE FROM versions WHERE id = :id"), {"id": number})


def plain(text: Any) -> dict[str, Any]:
    """A JSON column as values, whether the driver has read it or not."""
    found: dict[str, Any] = json.loads(text) if isinstance(text, str | bytes) else text
    return found


def is_turned(slices: dict[str, Any]) -> bool:
    """Whether a version is of the present shape: slices by subject."""
    return isinstance(slices.get("pins"), dict)


def contents_of(connection: Any, digests: list[str]) -> dict[str, str]:
    """Contents of slices by digest."""
    query = sa.text("SELECT digest, content FROM slices WHERE digest IN :digests")
    rows = connection.execute(
        query.bindparams(sa.bindparam("digests", expanding=True)), {"digests": digests}
    )
    return {str(row[0]): str(row[1]) for row in rows}

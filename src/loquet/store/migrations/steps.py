"""Steps that can be run again: a migration that was killed between its change and its note starts
over.
"""

import sqlalchemy as sa
from alembic import op


def fresh_table(name: str, *columns: sa.schema.SchemaItem) -> None:
    """Make a table; an empty one of that name, which a killed run left behind, makes room.

    Raises RuntimeError where it holds rows.
    """
    make_room(name)
    op.create_table(name, *columns)


def make_room(*names: str) -> None:
    """Drop empty tables that a killed run left behind, in this order: those that point at others
    first. Raises RuntimeError where one holds rows.
    """
    connection = op.get_bind()
    for name in names:
        if not sa.inspect(connection).has_table(name):
            continue
        if connection.scalar(sa.text(f"SELECT COUNT(*) FROM `{name}`")):
            raise RuntimeError(
                f"the table {name} holds rows, though the database says that it was never made;"
                " restore a backup"
            )
        op.drop_table(name)


def rename_table(
    old: str, new: str, column: str, called: str, kind: sa.types.TypeEngine[str]
) -> None:
    """Rename a table and one of its columns, each where it has the old name."""
    if sa.inspect(op.get_bind()).has_table(old):
        op.rename_table(old, new)
    if column in columns_of(new):
        op.alter_column(
            new, column, new_column_name=called, existing_type=kind, existing_nullable=False
        )


def no_table(name: str) -> None:
    """Drop a table where it is there."""
    if sa.inspect(op.get_bind()).has_table(name):
        op.drop_table(name)


def add_column(table: str, column: sa.Column[object]) -> None:
    """Add a column where it is not there yet."""
    if column.name not in columns_of(table):
        op.add_column(table, column)


def drop_column(table: str, name: str) -> None:
    """Drop a column where it is there."""
    if name in columns_of(table):
        op.drop_column(table, name)


def columns_of(table: str) -> set[str]:
    """Names of a table's columns."""
    return {str(column["name"]) for column in sa.inspect(op.get_bind()).get_columns(table)}

"""Alembic, from Python."""

from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from sqlalchemy import inspect, text

from loquet.settings import settings
from loquet.store.engine import make_engine


class NewerData(Exception):
    """The data were written by a Loquet that this one does not know."""


def configuration(url: str | None = None) -> Config:
    """Alembic's configuration without a file."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url or settings().database_url
    return config


def known_revisions() -> tuple[str, ...]:
    """All migrations, the oldest first."""
    return tuple(
        reversed(
            [
                script.revision
                for script in ScriptDirectory.from_config(configuration("")).walk_revisions()
            ]
        )
    )


def stored_revision(url: str) -> str:
    """The revision that a database is at, or nothing for an empty one."""
    engine = make_engine(url)
    try:
        with engine.connect() as connection:
            if not inspect(connection).has_table("alembic_version"):
                return ""
            return str(connection.scalar(text("SELECT version_num FROM alembic_version")) or "")
    finally:
        engine.dispose()


def upgrade(url: str | None = None, to: str = "head") -> None:
    """To the newest revision, or to a given one; raises NewerData."""
    found = stored_revision(url or settings().database_url)
    if found and found not in known_revisions():
        raise NewerData(
            f"The data were written by a newer Loquet (step {found}). Start that one, or restore a"
            " backup of this one."
        )
    command.upgrade(configuration(url), to)


def downgrade(url: str | None = None, to: str = "base") -> None:
    """Back to nothing, or to a given revision."""
    command.downgrade(configuration(url), to)

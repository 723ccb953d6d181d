"""Alembic, from Python."""

from pathlib import Path

from alembic import command
from alembic.config import Config

from loquet.settings import settings


def configuration(url: str | None = None) -> Config:
    """Alembic's configuration without a file."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url or settings().database_url
    return config


def upgrade(url: str | None = None) -> None:
    """To the newest revision."""
    command.upgrade(configuration(url), "head")


def downgrade(url: str | None = None) -> None:
    """Back to nothing."""
    command.downgrade(configuration(url), "base")

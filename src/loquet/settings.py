"""Settings from the environment, read once; the launcher sets them."""

import os
from dataclasses import dataclass
from functools import cache
from pathlib import Path


@dataclass(frozen=True)
class Settings:
    """Where the database is, and where Loquet keeps its own files."""

    database_url: str
    state: Path
    web: Path


@cache
def settings() -> Settings:
    """The settings of this process."""
    root = Path(__file__).resolve().parents[2]
    return Settings(
        database_url=os.environ.get("LOQUET_DATABASE_URL", ""),
        state=Path(os.environ.get("LOQUET_STATE", root / ".loquet")),
        web=Path(os.environ.get("LOQUET_WEB", root / "web" / "dist")),
    )

"""What endpoints share: session factory, library, jobs, the chip index; made once an
application.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path
from typing import Annotated

from fastapi import Depends, Request
from sqlalchemy.orm import Session, sessionmaker

from loquet.catalogue.chip_index import listed_chips
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.parts.listing import ListedChip
from loquet.jobs.runner import Jobs


@dataclass
class Context:
    """The application's own things."""

    factory: sessionmaker[Session]
    library: Library
    jobs: Jobs
    chip_cache: Path

    def known(self, design: Design) -> Library:
        """The library as the project of a design knows it."""
        return project_library(design, self.library)

    @cached_property
    def chips(self) -> list[ListedChip]:
        """The chip index."""
        return listed_chips(self.chip_cache)


def context_of(request: Request) -> Context:
    """The context of the running application."""
    context: Context = request.app.state.context
    return context


def session_of(context: Annotated[Context, Depends(context_of)]) -> Iterator[Session]:
    """A session in one transaction, rolled back on error.

    It ends with the endpoint's function (`scope="function"`), so the commit comes before the
    answer: what was answered is kept.
    """
    with context.factory.begin() as session:
        yield session


async def body_of(request: Request) -> bytes:
    """The bytes as they came; what is made of them is worked out beside the event loop."""
    return await request.body()


ContextNow = Annotated[Context, Depends(context_of)]
SessionNow = Annotated[Session, Depends(session_of, scope="function")]
AUTHOR = "maker"

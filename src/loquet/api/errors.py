"""One table from errors to answers: every error is a sentence with a way out."""

from collections.abc import Callable
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from pydantic import BaseModel
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from starlette.exceptions import HTTPException

from loquet.core.brief import BriefError
from loquet.core.circuit import RecipeNotPossible
from loquet.core.edits import EditRefused
from loquet.core.edits.applying import field_words
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused
from loquet.core.placement.seating import NoRoom
from loquet.core.proof.gerber_reader import FileFault
from loquet.store.designs import Conflict, NotFound
from loquet.store.shelf import ShelfConflict


class Problem(BaseModel):
    """What every error answers with."""

    sentence: str
    way_out: str = ""
    place: str = ""
    head: int | None = None


class Refused(Exception):
    """A request that is understood and cannot be met."""

    def __init__(
        self, sentence: str, way_out: str = "", status: int = 422, place: str = ""
    ) -> None:
        super().__init__(sentence)
        self.problem = Problem(sentence=sentence, way_out=way_out, place=place)
        self.status = status


DISK_FULL = Problem(
    sentence="The disk is full, so nothing can be kept.",
    way_out="Make room on it, then do this again. What was kept before is untouched.",
)
FULL_NUMBERS = frozenset((28, 1021, 1026, 1114, 3))
"""What MariaDB says where a disk is full: its own error 1021 and 1114, those of writing (3, 1026),
and the system's 28.
"""


def is_full(error: OperationalError) -> bool:
    """Whether the database could not write for want of room."""
    found = getattr(error.orig, "args", (0,))
    return bool(found) and (found[0] in FULL_NUMBERS or "No space left" in str(error.orig))


TABLE: dict[type[Exception], tuple[int, Callable[[Any], Problem]]] = {
    BriefError: (
        422,
        lambda e: Problem(
            sentence=f"{e.place} {e.problem}.",
            way_out="\n".join((e.way_out, *e.sentences[1:])),
            place=e.place,
        ),
    ),
    EditRefused: (422, lambda e: Problem(sentence=e.why, way_out=e.way_out)),
    StageRefused: (422, lambda e: Problem(sentence=e.why, way_out=e.way_out)),
    RecipeNotPossible: (
        422,
        lambda e: Problem(sentence=f"{e.need}: {e.limit}.", way_out=e.nearest),
    ),
    NoRoom: (422, lambda e: Problem(sentence=str(e))),
    PartError: (
        422,
        lambda e: Problem(sentence=f"Part '{e.part}' {e.problem}.", way_out=e.way_out),
    ),
    FileFault: (422, lambda e: Problem(sentence=f"{e}.", way_out="Make the release again.")),
    NotFound: (404, lambda e: Problem(sentence=str(e), way_out="Go back to the workshop.")),
    Conflict: (
        409,
        lambda e: Problem(
            sentence=str(e),
            way_out="It is shown as it is now; make your change again.",
            head=e.head_id,
        ),
    ),
    ShelfConflict: (
        409,
        lambda e: Problem(sentence=str(e), way_out="It is shown as it is now; change it again."),
    ),
    Refused: (422, lambda e: e.problem),
    UnicodeEncodeError: (
        422,
        lambda e: Problem(
            sentence="The text holds half of a character.", way_out="Write the character whole."
        ),
    ),
    PoolTimeout: (
        503,
        lambda e: Problem(
            sentence="Loquet has more to do than it can keep up with.",
            way_out="Wait a moment and try again.",
        ),
    ),
    OperationalError: (
        503,
        lambda e: (
            Problem(
                sentence="The database does not answer.",
                way_out="Start Loquet again with ./loquet start.",
            )
            if not is_full(e)
            else DISK_FULL
        ),
    ),
}


def install(app: FastAPI) -> None:
    """Put the table into the application."""
    for kind in TABLE:
        app.add_exception_handler(kind, answer)
    app.add_exception_handler(RequestValidationError, answer_validation)
    app.add_exception_handler(HTTPException, answer_status)


async def answer(request: Request, error: Exception) -> JSONResponse:
    """The answer of the table."""
    status, make = next(row for kind, row in TABLE.items() if isinstance(error, kind))
    return JSONResponse(make(error).model_dump(), getattr(error, "status", status))


async def answer_validation(request: Request, error: Exception) -> JSONResponse:
    """The first thing wrong with a request, with its place."""
    assert isinstance(error, RequestValidationError)
    first = error.errors()[0]
    place = ".".join(str(step) for step in first["loc"] if step not in ("body", "query", "path"))
    named = [
        str(step)
        for step in first["loc"]
        if isinstance(step, str) and step not in ("body", "query", "path")
    ]
    message = str(first["msg"])
    if first["type"] == "union_tag_invalid":
        message = f"there is none of kind '{str(first['ctx']['tag'])[:40]}'"
    return JSONResponse(
        Problem(
            sentence=f"{in_words(named)}: {message[0].lower()}{message[1:]}.",
            way_out="Give another value.",
            place=place,
        ).model_dump(),
        422,
    )


def in_words(steps: list[str]) -> str:
    """The field at the end of a place, as a person reads it."""
    words = field_words(steps[-1]) if steps else ""
    return f"{words[:1].upper()}{words[1:]}" if words else "The request"


async def answer_status(request: Request, error: Exception) -> JSONResponse:
    """What the framework itself refuses: unknown addresses, methods that an address does not take,
    broken JSON.
    """
    assert isinstance(error, HTTPException)
    path = request.url.path[:80]
    match error.status_code:
        case 404:
            sentence = f"There is nothing at {path}."
        case 405:
            sentence = f"{path} does not take {request.method}."
        case _:
            sentence = f"The request was refused: {str(error.detail)[:120]}."
    return JSONResponse(
        Problem(sentence=sentence, way_out="Reload the page.").model_dump(),
        error.status_code,
        headers=error.headers,
    )

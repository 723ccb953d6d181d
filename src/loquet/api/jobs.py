"""Jobs: long work that is started, followed and stopped, and what it has laid so far."""

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Annotated, Literal

from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, Field
from sqlalchemy.exc import OperationalError

from loquet.api.boards import board_named
from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.api.shapes import JobCard, Laid, TryCard
from loquet.core.board.model import NetName
from loquet.core.design import SLICES, SliceName
from loquet.core.edits.wire_edits import DrawTracks
from loquet.core.redoing.tries import tries_key
from loquet.jobs.works import (
    draw_through,
    finish,
    look_for_aims,
    look_for_ways,
    make_release,
    make_slices,
    route_nets,
    try_arrangements,
)
from loquet.store.answers import answer_of
from loquet.store.designs import NotFound, head_of, load_design
from loquet.store.tables import JobRow

router = APIRouter(prefix="/api", tags=["jobs"])

JobKind = Literal[
    "pins",
    "ways out",
    "circuit",
    "placement",
    "routing",
    "pour",
    "board",
    "everything",
    "finish",
    "release",
    "nets",
    "draw",
    "tries",
    "aim",
]
JOB_SLICES: dict[str, tuple[SliceName, ...]] = {
    "pins": ("pins",),
    "circuit": ("circuit",),
    "placement": ("placement",),
    "routing": ("routing",),
    "pour": ("pour",),
    "board": ("placement", "routing", "pour"),
    "everything": SLICES,
}


class JobRequest(BaseModel):
    """What to start; `board` and `nets` say which nets are routed again, `drawing` what is drawn
    where others give way.
    """

    kind: JobKind
    board: Annotated[str, Field(max_length=24)] = ""
    nets: Annotated[tuple[NetName, ...], Field(max_length=200)] = ()
    drawing: DrawTracks | None = None


class Started(BaseModel):
    """A started job."""

    job: int


@router.post("/projects/{project_id}/jobs", status_code=202)
def start_job(
    project_id: int, wanted: JobRequest, session: SessionNow, context: ContextNow
) -> Started:
    """Start long work."""
    head = head_of(session, project_id)
    running = {ticket.kind for ticket in context.jobs.of_project(project_id)}
    if wanted.kind in ("nets", "draw") and wanted.kind in running:
        raise Refused("Another track is just being laid.", "Try again when it is done.")
    if wanted.kind == "release":
        work = make_release(context.factory, project_id)
    elif wanted.kind == "nets":
        if not wanted.nets:
            raise Refused("No net is named.", "Pick a net on the board first.")
        board = board_named(load_design(session, head.version), wanted.board)
        work = route_nets(context.factory, project_id, board, wanted.nets, AUTHOR)
    elif wanted.kind == "draw":
        if wanted.drawing is None:
            raise Refused("Nothing is drawn.", "Draw a track on the board first.")
        work = draw_through(context.factory, project_id, wanted.drawing, AUTHOR)
    elif wanted.kind == "tries":
        board = board_named(load_design(session, head.version), wanted.board)
        work = try_arrangements(context.factory, project_id, board, AUTHOR)
    elif wanted.kind == "aim":
        work = look_for_aims(context.factory, project_id, context.library)
    elif wanted.kind == "ways out":
        work = look_for_ways(context.factory, project_id, context.library)
    elif wanted.kind == "finish":
        work = finish(context.factory, project_id, AUTHOR, context.library)
    else:
        work = make_slices(context.factory, project_id, JOB_SLICES[wanted.kind], AUTHOR)
    return Started(job=context.jobs.start(project_id, head.revision.id, wanted.kind, work))


@router.get("/jobs/{job_id}")
def get_job(job_id: int, session: SessionNow, context: ContextNow) -> JobCard:
    """How a job is doing."""
    row = session.get(JobRow, job_id)
    if row is None:
        raise Refused(f"There is no job {job_id}.", "Start it again.", 404)
    ticket = context.jobs.ticket(job_id)
    return JobCard(
        id=row.id,
        kind=row.kind,
        state=row.state,
        doing=ticket.doing if ticket else "",
        share=ticket.share if ticket else 1.0,
        message=row.message,
        pictures=ticket.pictures if ticket else 0,
    )


@router.get("/jobs/{job_id}/picture")
def get_picture(job_id: int, context: ContextNow) -> Laid:
    """What a running job has laid so far; empty where it draws nothing."""
    ticket = context.jobs.ticket(job_id)
    if ticket is None or not ticket.picture:
        return Laid(board="", tracks=[], vias=[])
    return Laid.model_validate_json(ticket.picture)


@router.get("/projects/{project_id}/tries")
def get_tries(project_id: int, session: SessionNow, board: str = "") -> list[TryCard]:
    """The arrangements of a board that were tried for the design as it is now (the main board where
    none is named), the best first.
    """
    design = load_design(session, head_of(session, project_id).version)
    name = board_named(design, board)
    known = answer_of(session, tries_key(design, name)) if design.circuit else None
    wanted = design.arrangement(name)
    return [
        TryCard(taken=row["figures"]["number"] == wanted, **row)
        for row in (json.loads(known) if known else [])
    ]


@router.post("/jobs/{job_id}/stop")
def stop_job(job_id: int, context: ContextNow) -> dict[str, bool]:
    """Ask a job to stop."""
    return {"stopping": context.jobs.stop(job_id)}


class Tick(BaseModel):
    """What the event stream says: the head's version and the running jobs."""

    version: int
    jobs: list[JobCard] = Field(default_factory=list)


@router.get("/projects/{project_id}/events", response_class=StreamingResponse)
async def events(project_id: int, request: Request, context: ContextNow) -> StreamingResponse:
    """Server-sent events: a line whenever the head moves or a job gets on."""
    return StreamingResponse(
        watch(project_id, request, context),
        media_type="text/event-stream",
        headers={"Cache-Control": "no-cache"},
    )


async def watch(project_id: int, request: Request, context: ContextNow) -> AsyncIterator[str]:
    """Looks four times a second, speaks only on change; ends with the server, the reader, the
    project or the database.
    """
    last, silent = "", 0
    while not getattr(request.app.state, "closing", False) and not await request.is_disconnected():
        try:
            tick = await asyncio.to_thread(look, project_id, context)
        except (NotFound, OperationalError):
            return
        text = tick.model_dump_json()
        silent += 1
        if text != last or silent > 40:
            last, silent = text, 0
            yield f"data: {text}\n\n"
        await asyncio.sleep(0.25)


def look(project_id: int, context: ContextNow) -> Tick:
    """The head and the jobs now."""
    with context.factory() as session:
        version = head_of(session, project_id).version.id
    jobs = [
        JobCard(
            id=t.job_id,
            kind=t.kind,
            state="running",
            doing=t.doing,
            share=round(t.share, 3),
            message="",
            pictures=t.pictures,
        )
        for t in context.jobs.of_project(project_id)
    ]
    return Tick(version=version, jobs=jobs)

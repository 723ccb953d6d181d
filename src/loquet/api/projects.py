"""Projects: the workshop, the head of a design, edits, undo and redo, jobs."""

import asyncio
from collections.abc import AsyncIterator
from datetime import UTC, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, Field
from sqlalchemy import text
from sqlalchemy.exc import OperationalError

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.describing import all_findings, head_now, next_station
from loquet.api.errors import Refused
from loquet.api.shapes import DesignHead, JobCard, ProjectCard
from loquet.core.board.model import NetName
from loquet.core.brief import outline_polygon_mm, read_brief
from loquet.core.design import SLICES, Design, SliceName
from loquet.core.edits import Edit, apply
from loquet.core.pipeline import chip_for
from loquet.jobs.works import finish, look_for_ways, make_release, make_slices, route_nets
from loquet.store.designs import (
    NotFound,
    all_projects,
    commit_version,
    create_project,
    expect_head,
    head_of,
    load_design,
    redo,
    undo,
)
from loquet.store.tables import JobRow

router = APIRouter(prefix="/api", tags=["projects"])
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


class EditRequest(BaseModel):
    """An edit, and the version that the person saw when making it."""

    edit: Edit
    version: int


class JobRequest(BaseModel):
    """What to start; `board` and `nets` say which nets are routed again."""

    kind: JobKind
    board: Annotated[str, Field(max_length=24)] = ""
    nets: Annotated[tuple[NetName, ...], Field(max_length=200)] = ()


class Started(BaseModel):
    """A started job."""

    job: int


@router.get("/health")
def health(session: SessionNow) -> dict[str, str]:
    """Whether the application and its database answer; 503 where the database does not."""
    session.execute(text("SELECT 1"))
    return {"status": "ok"}


@router.get("/projects")
def list_projects(session: SessionNow, context: ContextNow) -> list[ProjectCard]:
    """All projects, those of the archive and the removed ones too."""
    cards = []
    for project in all_projects(session):
        head = head_of(session, project.id)
        design = load_design(session, head.version)
        findings = all_findings(design, context.library)
        left, bottom, right, top = outline_polygon_mm(design.brief.board().outline).bounds
        cards.append(
            ProjectCard(
                id=project.id,
                name=design.brief.name,
                purpose=design.brief.purpose,
                revision=head.revision.letter,
                controls=len(design.brief.group("controls")),
                chip=design.brief.brain.part if design.brief.brain else "no brain yet",
                width_mm=right - left,
                height_mm=top - bottom,
                quantity=design.brief.quantity,
                wanted_by=design.brief.wanted_by.isoformat(),
                stops=sum(f.severity == "stop" for f in findings),
                next_station=next_station(design, findings),
                demo=bool(project.demo),
                kept=project.kept,
                changed=head.version.created_at,
            )
        )
    return cards


class Keeping(BaseModel):
    """Where a project is kept."""

    kept: Literal["shelf", "archive", "removed"]


@router.put("/projects/{project_id}/kept")
def keep_project(project_id: int, wanted: Keeping, session: SessionNow) -> Keeping:
    """Put a project on the shelf, into the archive, or among the removed ones; nothing of it is lost."""
    head_of(session, project_id).project.kept = wanted.kept
    session.flush()
    return wanted


async def body_of(request: Request) -> bytes:
    """The bytes as they came, so that the brief's own reader judges them."""
    return await request.body()


JSON_BODY = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"type": "object"}}},
    }
}


@router.post("/projects", status_code=201, openapi_extra=JSON_BODY, response_model=DesignHead)
def new_project(
    data: Annotated[bytes, Depends(body_of)], session: SessionNow, context: ContextNow
) -> Response:
    """A project from a brief, as a JSON object; errors name the place in the brief."""
    checked = read_brief(data)
    project_id = create_project(session, checked.name, checked, AUTHOR, datetime.now(UTC))
    return head_now(session, project_id, context, 201)


@router.get("/projects/{project_id}", response_model=DesignHead)
def get_project(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The design as it stands."""
    return head_now(session, project_id, context)


@router.post("/projects/{project_id}/edits", response_model=DesignHead)
def make_edit(
    project_id: int, wanted: EditRequest, session: SessionNow, context: ContextNow
) -> Response:
    """One edit as a new version; 409 where the design has moved on meanwhile."""
    head = head_of(session, project_id, lock=True)
    expect_head(session, head, wanted.version)
    before = load_design(session, head.version)
    design = apply(before, wanted.edit)
    known_brain(before, design, context)
    commit_version(session, head.revision, design, wanted.edit.label, AUTHOR, datetime.now(UTC))
    return head_now(session, project_id, context)


def known_brain(before: Design, after: Design, context: ContextNow) -> None:
    """A brain that an edit brings in must be known; raises PartError."""
    old, new = before.brief.brain, after.brief.brain
    if new is not None and (old is None or old.part != new.part):
        chip_for(after.brief, context.library)


@router.post("/projects/{project_id}/undo", response_model=DesignHead)
def undo_edit(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """One step back."""
    undo(session, project_id)
    session.flush()
    return head_now(session, project_id, context)


@router.post("/projects/{project_id}/redo", response_model=DesignHead)
def redo_edit(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """One step forward."""
    redo(session, project_id)
    session.flush()
    return head_now(session, project_id, context)


@router.post("/projects/{project_id}/jobs", status_code=202)
def start_job(
    project_id: int, wanted: JobRequest, session: SessionNow, context: ContextNow
) -> Started:
    """Start long work."""
    head = head_of(session, project_id)
    if wanted.kind == "release":
        work = make_release(context.factory, project_id)
    elif wanted.kind == "nets":
        if not wanted.nets:
            raise Refused("No net is named.", "Pick a net on the board first.")
        board = wanted.board or load_design(session, head.version).brief.boards[0].name
        work = route_nets(context.factory, project_id, board, wanted.nets, AUTHOR)
    elif wanted.kind == "ways out":
        work = look_for_ways(context.factory, project_id, context.library)
    elif wanted.kind == "finish":

        def stops(design: Design) -> list[str]:
            found = all_findings(design, context.library)
            return [f.sentence for f in found if f.severity == "stop"]

        work = finish(context.factory, project_id, AUTHOR, stops)
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
    )


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
    """Looks four times a second, speaks only on change; ends with the server, the reader, the project or the database."""
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
        )
        for t in context.jobs.of_project(project_id)
    ]
    return Tick(version=version, jobs=jobs)

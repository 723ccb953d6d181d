"""Projects: the workshop, the head of a design, edits, undo and redo, jobs."""

import logging
from datetime import UTC, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Response
from pydantic import BaseModel, ValidationError
from sqlalchemy import text
from sqlalchemy.orm import Session

from loquet.api.context import AUTHOR, Context, ContextNow, SessionNow, body_of
from loquet.api.describing import (
    all_findings,
    head_now,
    next_station,
    next_step,
    released_now,
    running_jobs,
)
from loquet.api.shapes import DesignHead, ProjectCard
from loquet.core.board.portrait import portrait_of
from loquet.core.brief import BriefError, outline_polygon_mm, read_brief
from loquet.core.design import Design
from loquet.core.edits import Edit, apply, rests_on
from loquet.core.freshness import stale_slices, stale_subjects
from loquet.core.lookup.brains import chip_for
from loquet.core.parts import PartError
from loquet.core.plain.remembering import Remembered
from loquet.core.reviewing import fresh_views
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
from loquet.store.tables import ProjectRow

LOG = logging.getLogger("loquet.api")
router = APIRouter(prefix="/api", tags=["projects"])


class EditRequest(BaseModel):
    """An edit, and the version that the person saw when making it."""

    edit: Edit
    version: int


@router.get("/health")
def health(session: SessionNow) -> dict[str, str]:
    """Whether the application and its database answer; 503 where the database does not."""
    session.execute(text("SELECT 1"))
    return {"status": "ok"}


@router.get("/projects")
def list_projects(session: SessionNow, context: ContextNow) -> list[ProjectCard]:
    """All projects, those of the archive and the removed ones too."""
    return [card_of(session, project, context) for project in all_projects(session)]


def card_of(session: Session, project: ProjectRow, context: Context) -> ProjectCard:
    """A project as a card; one that cannot be read stands there as such, and keeps the others from
    nothing.
    """
    try:
        return readable_card(session, project, context)
    except (NotFound, KeyError, ValidationError, BriefError, PartError, LookupError) as error:
        LOG.warning("project %s cannot be read: %s", project.id, error)
        return ProjectCard(
            id=project.id,
            name=project.name,
            purpose="This project cannot be read.",
            revision="",
            controls=0,
            chip="",
            width_mm=0,
            height_mm=0,
            quantity=0,
            wanted_by="",
            stops=0,
            todo=0,
            next_station="brief",
            next="",
            version=0,
            pictured=False,
            jobs=[],
            demo=bool(project.demo),
            kept=project.kept,
            changed=project.created_at,
            readable=False,
        )


def readable_card(session: Session, project: ProjectRow, context: Context) -> ProjectCard:
    """A project with where it stands."""
    head = head_of(session, project.id)
    design = load_design(session, head.version)
    findings = all_findings(design, context.known(design))
    released, stale = released_now(session, head), stale_slices(design)
    left, bottom, right, top = outline_polygon_mm(design.brief.board().outline).bounds
    return ProjectCard(
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
        todo=len(stale),
        next_station=next_station(design, findings),
        next=next_step(design, context.known(design), findings, released).sentence,
        version=head.version.id,
        pictured="placement" not in stale,
        jobs=running_jobs(project.id, context),
        demo=bool(project.demo),
        kept=project.kept,
        changed=head.version.created_at,
    )


PORTRAITS: Remembered[str] = Remembered(64)


@router.get("/projects/{project_id}/picture.svg", response_class=Response)
def get_portrait(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """A small picture of the boards as they are made; 404 where none is placed."""
    design = load_design(session, head_of(session, project_id).version)
    views = fresh_views(design, context.known(design), stale_subjects(design))
    if not views:
        raise NotFound("There is no board to make a picture of yet.")
    text = PORTRAITS.of((design, context.library), lambda: portrait_of(views))
    return Response(text, media_type="image/svg+xml")


class Keeping(BaseModel):
    """Where a project is kept."""

    kept: Literal["shelf", "archive", "removed"]


@router.put("/projects/{project_id}/kept")
def keep_project(project_id: int, wanted: Keeping, session: SessionNow) -> Keeping:
    """Put a project on the shelf, into the archive, or among the removed ones; nothing of it is
    lost.
    """
    project = session.get(ProjectRow, project_id)
    if project is None:
        raise NotFound(f"There is no project {project_id}.")
    project.kept = wanted.kept
    session.flush()
    return wanted


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
    project_id = create_project(session, checked, AUTHOR, datetime.now(UTC))
    return head_now(session, project_id, context, 201)


@router.get("/projects/{project_id}", response_model=DesignHead)
def get_project(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The design as it stands."""
    return head_now(session, project_id, context)


@router.post("/projects/{project_id}/edits", response_model=DesignHead)
def make_edit(
    project_id: int, wanted: EditRequest, session: SessionNow, context: ContextNow
) -> Response:
    """One edit as a new version; 409 where a person has changed the design meanwhile, or a job what
    the edit rests on.
    """
    head = head_of(session, project_id, lock=True)
    expect_head(session, head, wanted.version, rests_on(wanted.edit))
    before = load_design(session, head.version)
    design = apply(before, wanted.edit)
    known_brain(before, design, context)
    commit_version(session, head.revision, design, wanted.edit.label, AUTHOR, datetime.now(UTC))
    return head_now(session, project_id, context)


def known_brain(before: Design, after: Design, context: ContextNow) -> None:
    """A brain that an edit brings in must be known; raises PartError."""
    old, new = before.brief.brain, after.brief.brain
    if new is not None and (old is None or old.part != new.part):
        chip_for(after.brief, context.known(after))


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

"""Versions of a project listed, compared and gone back to; a project copied; its brief written
out.
"""

import json
from datetime import UTC, datetime

from fastapi import APIRouter, Response
from pydantic import BaseModel

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.describing import head_now
from loquet.api.shapes import DesignHead
from loquet.core.comparing.boards import BoardDifferences, compare_boards
from loquet.core.comparing.briefs import Change, compare
from loquet.store.designs import create_project, head_of, load_design
from loquet.store.history import restore, version_of, versions_of

router = APIRouter(prefix="/api", tags=["history"])


class VersionView(BaseModel):
    """A version: the edit that made it, who and when, and whether it is the one that is shown."""

    id: int
    label: str
    author: str
    made_at: str
    shown: bool


class Back(BaseModel):
    """The version to go back to."""

    version: int


@router.get("/projects/{project_id}/versions")
def list_versions(project_id: int, session: SessionNow) -> list[VersionView]:
    """The newest first."""
    head = head_of(session, project_id)
    return [
        VersionView(
            id=v.id,
            label=v.label,
            author=v.author,
            made_at=v.created_at.isoformat(timespec="seconds"),
            shown=v.id == head.version.id,
        )
        for v in versions_of(session, head)
    ]


@router.get("/projects/{project_id}/versions/{version_id}/changes")
def changes_since(project_id: int, version_id: int, session: SessionNow) -> list[Change]:
    """What differs between that version and the one that is shown."""
    head = head_of(session, project_id)
    before = load_design(session, version_of(session, head, version_id))
    return list(compare(before.brief, load_design(session, head.version).brief))


@router.get("/projects/{project_id}/versions/{version_id}/board")
def board_since(
    project_id: int, version_id: int, session: SessionNow, board: str = ""
) -> BoardDifferences:
    """What differs on a board (the main one where none is named) between that version and the one
    that is shown.
    """
    head = head_of(session, project_id)
    before = load_design(session, version_of(session, head, version_id))
    after = load_design(session, head.version)
    return compare_boards(before, after, board or after.brief.boards[0].name)


@router.post("/projects/{project_id}/restore", response_model=DesignHead)
def go_back(project_id: int, wanted: Back, session: SessionNow, context: ContextNow) -> Response:
    """The design of an earlier version again, as a new version that can be undone."""
    restore(session, project_id, wanted.version, AUTHOR, datetime.now(UTC))
    return head_now(session, project_id, context)


@router.post("/projects/{project_id}/copy", status_code=201, response_model=DesignHead)
def copy_project(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """A project of its own from the brief that is shown, named as a copy."""
    brief = load_design(session, head_of(session, project_id).version).brief
    named = brief.model_copy(update={"name": f"{brief.name[:19].rstrip()} copy"})
    made = create_project(session, named, AUTHOR, datetime.now(UTC))
    return head_now(session, made, context, 201)


@router.get("/projects/{project_id}/brief.json", response_class=Response)
def write_brief(project_id: int, session: SessionNow) -> Response:
    """The brief as a file that any project can begin from."""
    brief = load_design(session, head_of(session, project_id).version).brief
    text = json.dumps(brief.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n"
    name = "".join(c if c.isascii() and c.isalnum() else "-" for c in brief.name.lower())
    headers = {"Content-Disposition": f'attachment; filename="{name}.brief.json"'}
    return Response(text.encode(), media_type="application/json", headers=headers)

"""What the Stack station draws: the stack of each board, cuts through it, templates and bodies to
make.
"""

from typing import Annotated

from fastapi import APIRouter, Query
from fastapi.responses import Response
from pydantic import BaseModel

from loquet.api.boards import placed_view
from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.stack.report import StackView, stack_report
from loquet.core.stack.section import section_of
from loquet.core.stack.stacking import stack_of
from loquet.core.templates import TEMPLATES, write_template
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["stack"])
Millimetre = Annotated[float, Query(ge=-500, le=1000)]


class CutView(BaseModel):
    """A body that a line goes through."""

    name: str
    words: str
    sort: str
    start_mm: float
    end_mm: float
    low_mm: float
    high_mm: float
    swell_mm: float


class SectionView(BaseModel):
    """A cut along a line."""

    long_mm: float
    cuts: list[CutView]


class TemplateView(BaseModel):
    """A drawing or a body that can be had: its name, what it is, in which formats."""

    name: str
    words: str
    formats: list[str]


@router.get("/projects/{project_id}/stack")
def get_stack(
    project_id: int, session: SessionNow, context: ContextNow, board: str = ""
) -> StackView:
    """The stack of a board (the main one where none is named); 404 before it is placed."""
    design = load_design(session, head_of(session, project_id).version)
    view = placed_view(design, context, board)
    library = context.known(design)
    return stack_report(view, library, design.choices.stack, design.brief.making.thickness_mm)


@router.get("/projects/{project_id}/stack/section")
def get_section(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    x1: Millimetre,
    y1: Millimetre,
    x2: Millimetre,
    y2: Millimetre,
    board: str = "",
) -> SectionView:
    """A true cut along a line over a board."""
    design = load_design(session, head_of(session, project_id).version)
    view = placed_view(design, context, board)
    library = context.known(design)
    stack = stack_of(view, library, design.choices.stack, design.brief.making.thickness_mm)
    try:
        found = section_of(stack, (x1, y1), (x2, y2))
    except ValueError:
        raise Refused("The line of the cut has no length.", "Drag one of its ends away.") from None
    return SectionView(long_mm=found.long_mm, cuts=[CutView(**vars(cut)) for cut in found.cuts])


@router.get("/stack/templates")
def list_templates() -> list[TemplateView]:
    """What can be printed, cut or made."""
    return [TemplateView(name=t.name, words=t.words, formats=list(t.formats)) for t in TEMPLATES]


@router.get("/projects/{project_id}/stack/templates/{file}", response_class=Response)
def get_template(
    project_id: int,
    file: str,
    session: SessionNow,
    context: ContextNow,
    board: str = "",
    mirrored: bool = False,
) -> Response:
    """A template as a file: `front-panel.pdf`, `drill-guide.svg`, `bezel.stl`."""
    design = load_design(session, head_of(session, project_id).version)
    view = placed_view(design, context, board)
    name, _, kind = file.rpartition(".")
    template = next((t for t in TEMPLATES if t.name == name and kind in t.formats), None)
    if template is None:
        raise Refused(f"There is no template {file}.", "Choose one of the list.", 404)
    library = context.known(design)
    data = write_template(template, kind, view, library, design.choices, mirrored)
    shown = f"{view.board.folder}-{name}{'-mirrored' if mirrored else ''}.{kind}"
    headers = {"Content-Disposition": f'attachment; filename="{shown}"'}
    return Response(data, media_type=MEDIA[kind], headers=headers)


MEDIA = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "stl": "model/stl",
}

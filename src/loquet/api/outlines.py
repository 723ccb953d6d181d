"""Outlines out of drawings, looked at before they are taken; and outlines as drawings."""

from typing import Annotated, Literal

from fastapi import APIRouter, Response
from pydantic import BaseModel, Field

from loquet.api.context import SessionNow
from loquet.api.errors import Refused
from loquet.core.brief import outline_polygon_mm
from loquet.core.edits.outline_edits import TakeOutline
from loquet.core.outlining import OutlineRefused, find_outline, outline_as_dxf, outline_as_svg
from loquet.core.outlining.finding import LARGEST_BYTES, against_calipers
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["outlines"])

CaliperMm = Annotated[float | None, Field(gt=0, le=400)]


class DrawingGiven(BaseModel):
    """A DXF or SVG file as text; its unit where it says none; how wide a gap is healed in mm;
    whether it is drawn from behind; what calipers say.
    """

    board: Annotated[str, Field(max_length=24)]
    text: Annotated[str, Field(max_length=LARGEST_BYTES + 1)]
    unit: Literal["mm", "inch"] | None = None
    heal_mm: Annotated[float, Field(ge=0.001, le=1)] = 0.05
    flipped: bool = False
    existing: bool = False
    width_mm: CaliperMm = None
    height_mm: CaliperMm = None


class DrawingSeen(BaseModel):
    """What a drawing holds, before it is taken: a picture in mm, what there is to say, and the edit
    that takes it; or the question for its unit.
    """

    asks_unit: bool = False
    sentence: str
    outline_mm: list[tuple[float, float]] = []
    holes: list[tuple[float, float, float]] = []
    openings: list[tuple[float, float, float, float, float, int]] = []
    lines: list[list[tuple[float, float]]] = []
    notes: list[str] = []
    edit: TakeOutline | None = None


@router.post("/projects/{project_id}/drawings")
def look_at_drawing(project_id: int, given: DrawingGiven, session: SessionNow) -> DrawingSeen:
    """The outline in a drawing; nothing is changed."""
    head_of(session, project_id)
    try:
        found = find_outline(
            given.text.encode("utf-8", "replace"), given.unit, given.heal_mm, given.flipped
        )
    except OutlineRefused as error:
        if error.asks_unit:
            return DrawingSeen(asks_unit=True, sentence=f"{error.why} {error.way_out}")
        raise Refused(error.why, error.way_out) from None
    area = outline_polygon_mm(found.outline)
    left, bottom, right, top = area.bounds
    many = [
        f"{count} {word}{'' if count == 1 else 's'}"
        for count, word in (
            (len(found.holes), "hole"),
            (len(found.openings) + len(found.free), "opening"),
        )
        if count
    ]
    return DrawingSeen(
        sentence=(
            f"{right - left:.2f} x {top - bottom:.2f}"
            f" mm{', with ' if many else ''}{' and '.join(many)}."
        ),
        outline_mm=[(round(x, 4), round(y, 4)) for x, y in area.exterior.coords],
        holes=[(h.x_mm, h.y_mm, h.d_mm) for h in found.holes],
        openings=[
            (o.x_mm, o.y_mm, o.width_mm, o.height_mm, o.corner_mm, o.turn_deg)
            for o in found.openings
        ],
        lines=[
            [
                (round(x - w / 2 + o.x_mm, 4), round(y - h / 2 + o.y_mm, 4))
                for area in (outline_polygon_mm(o.line),)
                for w, h in (area.bounds[2:],)
                for x, y in area.exterior.coords
            ]
            for o in found.free
        ],
        notes=[*against_calipers(found, given.width_mm, given.height_mm), *found.notes],
        edit=TakeOutline(
            board=given.board,
            outline=found.outline,
            holes=found.holes,
            openings=found.openings,
            free=found.free,
            existing=given.existing,
        ),
    )


WRITERS = {
    "dxf": (outline_as_dxf, "image/vnd.dxf"),
    "svg": (outline_as_svg, "image/svg+xml"),
}


@router.get("/projects/{project_id}/boards/{board}/outline.{kind}", response_class=Response)
def outline_as_drawing(
    project_id: int, board: str, kind: Literal["dxf", "svg"], session: SessionNow
) -> Response:
    """A board's outline, holes and openings at true size, from the near side."""
    brief = load_design(session, head_of(session, project_id).version).brief
    found = next((b for b in brief.boards if board in (b.name, b.folder)), None)
    if found is None:
        raise Refused(f"There is no board '{board[:40]}'.", "It may have been removed.", 404)
    write, media = WRITERS[kind]
    name = f"{found.folder}-outline.{kind}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(write(brief, found), media_type=media, headers=headers)

"""What the Release station draws of a panel, before anything of it is written."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query
from pydantic import BaseModel

from loquet.api.boards import placed_view
from loquet.api.context import ContextNow, SessionNow
from loquet.core.board.outline import Line, Piece
from loquet.core.geometry.arcs import along_arc
from loquet.core.lookup.panelling import panel_of
from loquet.core.panel.figures import panel_figures
from loquet.core.provenance import Working
from loquet.core.quantities.lengths import MM
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["releases"])
Place = tuple[float, float]
CHORDS = 8


class PanelHole(BaseModel):
    """A hole that is the panel's own."""

    x_mm: float
    y_mm: float
    d_mm: float
    kind: Literal["tab", "tooling"]


class PanelTrouble(BaseModel):
    """Why it cannot be made, and the way out."""

    sentence: str
    way_out: str


class PanelView(BaseModel):
    """A panel in millimetres, its lower left corner at (0, 0): where every copy's own origin lies,
    rails (left, bottom, right, top), milled lines as strokes, the panel's holes, marks, score
    lines, how many tabs hold it, its figures and what stands against it.
    """

    width_mm: float
    height_mm: float
    copies: list[Place]
    rails: list[tuple[float, float, float, float]]
    milled: list[list[Place]]
    holes: list[PanelHole]
    marks: list[Place]
    scores: list[tuple[Place, Place]]
    tabs: int
    figures: list[Working]
    troubles: list[PanelTrouble]


@router.get("/projects/{project_id}/panel")
def get_panel(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    board: Annotated[str, Query(max_length=40)] = "",
) -> PanelView | None:
    """The panel of a board (the main one where none is named), or nothing where boards are ordered
    singly; 404 before the board is placed.
    """
    design = load_design(session, head_of(session, project_id).version)
    view, choice = placed_view(design, context, board), design.choices.panel
    panel = panel_of(view, design.choices, context.known(design))
    if choice is None or panel is None:
        return None
    return PanelView(
        width_mm=panel.width / MM,
        height_mm=panel.height / MM,
        copies=[mm(at) for at in panel.copies],
        rails=[(a / MM, b / MM, c / MM, d / MM) for a, b, c, d in panel.rails],
        milled=[stroke(piece) for piece in panel.pieces],
        holes=[
            PanelHole(
                x_mm=h.x / MM,
                y_mm=h.y / MM,
                d_mm=h.d / MM,
                kind="tooling" if h.owner == "tooling" else "tab",
            )
            for h in panel.holes
        ],
        marks=[mm(at) for at in panel.marks],
        scores=[(mm(first), mm(last)) for first, last in panel.scores],
        tabs=panel.tabs,
        figures=list(panel_figures(panel, choice, design.brief.quantity)),
        troubles=[PanelTrouble(sentence=t.sentence, way_out=t.way_out) for t in panel.troubles],
    )


def mm(at: tuple[float, float]) -> Place:
    """A place in millimetres."""
    return at[0] / MM, at[1] / MM


def stroke(piece: Piece) -> list[Place]:
    """A line or an arc as corners."""
    first, last = (piece.x1, piece.y1), (piece.x2, piece.y2)
    if isinstance(piece, Line):
        return [mm(first), mm(last)]
    centre = (piece.cx, piece.cy)
    return [*map(mm, along_arc(first, last, centre, piece.clockwise, CHORDS, False)), mm(last)]

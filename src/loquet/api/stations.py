"""What the Pins, Circuit and Board stations draw."""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from loquet.api.board_shapes import (
    AreaView,
    BoardDrawing,
    CoverView,
    HoleView,
    KeptView,
    LinkView,
    PadView,
    PartView,
    PieceView,
    PlaneView,
    TrackView,
    ViaView,
)
from loquet.api.boards import board_named
from loquet.api.context import Context, ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.api.pins_view import describe_pins
from loquet.api.shapes import ChipRow, PinsView
from loquet.core.board import BoardView, PourPiece, Track, Via
from loquet.core.board.copper import Copper
from loquet.core.board.linking import Link, open_links
from loquet.core.board.openings import kept_free
from loquet.core.brief.shares import share_of
from loquet.core.circuit import Component
from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from loquet.core.geometry import Box, Round, middle_of
from loquet.core.library import Library
from loquet.core.lookup.brains import brain_of
from loquet.core.lookup.covers import covers_of
from loquet.core.parts.listing import ListedChip
from loquet.core.pins.ways_out import asked_of, offers
from loquet.core.pipeline import StageRefused, board_view
from loquet.core.provenance import Source, Working, given
from loquet.core.redoing.tidying import tidied
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["stations"])
BrainAsked = Annotated[str, Query(max_length=40, description="a brain; the first, unless named")]


@router.get("/projects/{project_id}/pins")
def get_pins(
    project_id: int, session: SessionNow, context: ContextNow, brain: BrainAsked = ""
) -> PinsView:
    """A brain's chip with its pins, solved or not; the first brain's, unless named."""
    design = load_design(session, head_of(session, project_id).version)
    return describe_pins(design, context.known(design), brain)


class NetLaid(BaseModel):
    """The pieces of a net."""

    tracks: tuple[Track, ...]
    vias: tuple[Via, ...]


@router.get("/projects/{project_id}/board/tidied")
def get_tidied(
    project_id: int, board: str, net: str, session: SessionNow, context: ContextNow
) -> NetLaid:
    """A net of a board as it would lie tidied; nothing is changed."""
    design = load_design(session, head_of(session, project_id).version)
    board_named(design, board)
    try:
        tracks, vias = tidied(design, context.known(design), board, net)
    except StageRefused as refused:
        raise Refused(refused.why, refused.way_out) from None
    return NetLaid(tracks=tracks, vias=vias)


@router.get("/projects/{project_id}/board")
def get_board(
    project_id: int, session: SessionNow, context: ContextNow, board: str = ""
) -> BoardDrawing:
    """A board as far as it is made (the main one where none is named); 404 before it is placed."""
    design = load_design(session, head_of(session, project_id).version)
    name = board_named(design, board)
    if name not in design.placement or not design.circuit:
        raise Refused("The board is not placed yet.", "Place it first.", 404)
    refs = {c.ref: c.role for c in slice_of(design.circuit).on(name).components}
    if refs != {p.ref: p.role for p in slice_of(design.placement, name).parts}:
        raise Refused("The circuit has changed since the board was placed.", "Place it again.", 404)
    return describe_board(design, board_view(design, context.known(design), name), context.library)


def describe_board(design: Design, view: BoardView, library: Library) -> BoardDrawing:
    """All of it in millimetres."""
    stale = stale_slices(design)
    made = [view.placement, view.routing, view.pour]
    workings = [w for m in made if m is not None for w in m.workings]
    stitches = view.pour.stitches if view.pour else ()
    routed = view.routing.vias if view.routing else ()
    covers = [
        CoverView(
            thing=cover.thing,
            rect=(
                cover.rect[0] / 1e6,
                cover.rect[1] / 1e6,
                cover.rect[2] / 1e6,
                cover.rect[3] / 1e6,
            ),
            above=cover.above_mm,
        )
        for cover in covers_of(design.brief, library, view.board.name)
    ]
    return BoardDrawing(
        board=view.board.name,
        boards=[board.name for board in design.brief.boards],
        outline=[mm_point(p) for p in view.outline.exterior.coords],
        openings=[[mm_point(p) for p in ring.coords] for ring in view.outline.interiors],
        kept=[
            KeptView(
                thing=k.thing,
                ring=[mm_point(p) for p in k.area.exterior.coords],
                far=k.far,
                parts=k.parts,
                copper=k.copper,
                words=k.words,
            )
            for k in kept_free(view.brief, view.board)
        ],
        parts=[part_drawing(c, view, design) for c in view.circuit.components],
        pads=[pad_drawing(c) for c in view.pads],
        tracks=[
            TrackView(
                net=t.net,
                far=t.far,
                x1=t.x1_nm / 1e6,
                y1=t.y1_nm / 1e6,
                x2=t.x2_nm / 1e6,
                y2=t.y2_nm / 1e6,
                w=t.width_nm / 1e6,
                by_hand=t.by_hand,
            )
            for t in (view.routing.tracks if view.routing else ())
        ],
        links=[link_drawing(link) for link in open_links(view)],
        vias=[
            ViaView(net=v.net, x=v.x_nm / 1e6, y=v.y_nm / 1e6, stitch=stitch, by_hand=v.by_hand)
            for some, stitch in ((routed, False), (stitches, True))
            for v in some
        ],
        pieces=[piece_drawing(p, p.net) for p in view.poured],
        areas=[
            AreaView(net=a.net, far=a.far, ring=[mm_point(p) for p in a.ring])
            for a in view.pour_choice.areas
        ],
        tear_drops=view.pour_choice.tear_drops,
        planes=[
            PlaneView(
                net=p.net, far=p.far, pieces=[piece_drawing(piece, p.net) for piece in p.pieces]
            )
            for p in (view.pour.planes if view.pour else ())
        ],
        holes=[HoleView(x=h.x / 1e6, y=h.y / 1e6, d=h.d / 1e6) for h in view.holes if not h.plated],
        covers=covers,
        thickness_mm=design.brief.making.thickness_mm,
        via_mm=view.rules.via_nm / 1e6,
        via_hole_mm=view.rules.via_hole_nm / 1e6,
        gap_mm=view.rules.gap_nm / 1e6,
        routed=view.routing is not None,
        poured=view.pour is not None,
        stale=list(stale),
        workings=workings,
    )


def mm_point(point: tuple[float, ...]) -> tuple[float, float]:
    """Nanometres as rounded millimetres."""
    return round(point[0] / 1e6, 4), round(point[1] / 1e6, 4)


def link_drawing(link: Link) -> LinkView:
    """An open connection."""
    (x1, y1), (x2, y2) = middle_of(link.start.shape), middle_of(link.end.shape)
    return LinkView(net=link.net, x1=x1 / 1e6, y1=y1 / 1e6, x2=x2 / 1e6, y2=y2 / 1e6)


def piece_drawing(piece: PourPiece, net: str) -> PieceView:
    """Rings of a poured piece."""
    rings = [[mm_point(p) for p in ring] for ring in (piece.outer, *piece.holes)]
    return PieceView(net=net, far=piece.far, rings=rings)


def part_drawing(component: Component, view: BoardView, design: Design) -> PartView:
    """A placed part."""
    placed = next(p for p in view.placement.parts if p.ref == component.ref)
    pattern = view.patterns[component.ref]
    return PartView(
        ref=component.ref,
        role=component.role,
        purpose=component.purpose,
        x=placed.x_nm / 1e6,
        y=placed.y_nm / 1e6,
        turn=placed.turn_deg,
        far=placed.far,
        locked=placed.locked,
        by_hand=component.role in design.choices.part_seats,
        yard=rectangle(placed.seat.shape(pattern.courtyard), placed.x_nm, placed.y_nm),
        body=rectangle(placed.seat.shape(pattern.body), placed.x_nm, placed.y_nm),
        height=view.heights_mm[component.ref],
    )


def rectangle(box: object, x: int, y: int) -> tuple[float, float, float, float]:
    """Left, bottom, right, top about a part's middle."""
    assert isinstance(box, Box)
    across, up = box.reach
    return (
        (box.x - across - x) / 1e6,
        (box.y - up - y) / 1e6,
        (box.x + across - x) / 1e6,
        (box.y + up - y) / 1e6,
    )


def pad_drawing(copper: Copper) -> PadView:
    """A pad."""
    shape = copper.shape
    assert isinstance(shape, Box | Round)
    w, h = (shape.d, shape.d) if isinstance(shape, Round) else (shape.w, shape.h)
    return PadView(
        ref=copper.ref,
        pad=copper.pad,
        net=copper.net,
        sides=list(copper.sides),
        shape="round" if isinstance(shape, Round) else "box",
        x=shape.x / 1e6,
        y=shape.y / 1e6,
        w=w / 1e6,
        h=h / 1e6,
        turn=shape.turn if isinstance(shape, Box) else 0,
        drill=copper.drill_nm / 1e6,
    )


@router.get("/projects/{project_id}/chips")
def search_chips(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    words: str = "",
    most: int = 60,
    brain: BrainAsked = "",
) -> list[ChipRow]:
    """Chips, or modules where the brain is one, whose name, family, package or soldering holds
    every word; `fits` where the counts leave a chance.

    Those that fit, are in stock and can make a whole board come first, the smallest of them at the
    top.
    """
    design = load_design(session, head_of(session, project_id).version)
    thing = brain_of(design.brief, brain) if design.brief.brains else None
    asked = asked_of(share_of(design.brief, thing.name) if thing else design.brief)
    ready_made = thing is not None and thing.READY_MADE
    wanted = words.lower().split()[:6]
    rows = [
        chip_row(c, offers(c, asked), context)
        for c in context.chips
        if c.ready_made == ready_made
        and all(
            w in c.name or w == c.family or w in c.package.lower() or w in c.soldering
            for w in wanted
        )
    ]
    return sorted(
        rows,
        key=lambda r: (not r.fits, not r.covered, r.pieces == 0, r.ports, r.price.value, r.name),
    )[: max(1, min(most, 200))]


def chip_row(chip: ListedChip, fits: bool, context: Context) -> ChipRow:
    """A chip with what the simulated supplier says of it."""
    stock = context.library.stock_of(chip)
    return ChipRow(
        name=chip.name,
        family=chip.family,
        package=chip.package,
        ports=chip.ports,
        analogue=chip.analogue,
        soldering=chip.soldering,
        price=Working(
            id=f"stock.{chip.name}",
            title=f"Price of one {chip.name}",
            value=stock.price_cents,
            unit="cents",
            shown=f"{stock.price_cents / 100:.2f} €",
            formula="price",
            inputs=(given("price", stock.price_cents, "cents", stock.supplier),),
            source=Source(kind="assumed", text=f"{stock.supplier}; {stock.pieces} in stock"),
        ),
        pieces=stock.pieces,
        supplier=stock.supplier,
        covered=chip.covered,
        fits=fits,
    )

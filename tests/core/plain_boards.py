"""Boards of 40 x 30 mm with nothing on them but what a test lays there."""

from dataclasses import replace

from shapely.geometry import box

from loquet.core.board import BoardView, Routing, Track, Via
from loquet.core.board.copper import NEAR, Copper, Hole
from loquet.core.circuit import Circuit
from loquet.core.design import Design
from loquet.core.geometry import Box
from loquet.core.library import Library
from loquet.core.pipeline import board_view

MM = 1_000_000
GAP, CURVE = 150_000, 5_000
WIDE, HIGH = 40, 30


def empty_board(design: Design, library: Library) -> BoardView:
    """A board of a design with nothing on it."""
    empty = Circuit(components=(), nets=(), workings=())
    bare = Routing(tracks=(), vias=())
    return replace(board_view(design, library), circuit=empty, routing=bare, pour=None)


def board(
    plain: BoardView,
    *pads: Copper,
    tracks: tuple[Track, ...] = (),
    vias: tuple[Via, ...] = (),
    holes: tuple[Hole, ...] = (),
) -> BoardView:
    view = replace(plain, routing=Routing(tracks=tracks, vias=vias))
    area = box(0, 0, WIDE * MM, HIGH * MM)
    drilled = tuple(
        Hole(p.drill_x, p.drill_y, p.drill_nm, True, p.net, p.owner) for p in pads if p.drill_nm
    )
    view.__dict__.update(pads=pads, holes=(*drilled, *holes), outline=area, wiring_area=area)
    return view


def pad(
    net: str,
    x: float,
    y: float,
    w: float = 1.0,
    h: float = 1.0,
    side: str = NEAR,
    ref: str = "R1",
    **more: object,
) -> Copper:
    shape = Box(round(x * MM), round(y * MM), round(w * MM), round(h * MM))
    return Copper(net, (side,), shape, "pad", ref, "1", **more)  # type: ignore[arg-type]


def track(net: str, x1: float, y1: float, x2: float, y2: float, far: bool = False) -> Track:
    ends = (round(v * MM) for v in (x1, y1, x2, y2))
    return Track(
        net=net,
        far=far,
        **dict(zip(("x1_nm", "y1_nm", "x2_nm", "y2_nm"), ends, strict=True)),
        width_nm=200_000,
    )

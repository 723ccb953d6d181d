"""The picture of the device: every thing of the brief with its pieces, whatever its kind."""

from math import hypot
from typing import Literal

from loquet.api.shapes import BoardOutline, BodyView, DrawnThing, OutlineSide
from loquet.core.board.openings import openings_of
from loquet.core.brief import Board, Body, Brief, Thing, outline_polygon_mm
from loquet.core.brief.joining import is_source
from loquet.core.brief.seats import seat_of_thing
from loquet.core.brief.thing import ANY_KIND
from loquet.core.design import Design
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.lookup.covers import cover_of
from loquet.core.outlining.shaping import corners_of, side_lengths
from loquet.core.parts import PartError
from loquet.core.pins.needing import needs_of
from loquet.core.power.load import draw_of
from loquet.core.shelf.pack import OWN

BESIDE_MM, APART_MM = 14.0, 4.0
LEAST_MM = 2.0


def boards_of(brief: Brief) -> list[BoardOutline]:
    """Outlines of all boards."""
    return [
        BoardOutline(
            name=board.name,
            folder=board.folder,
            outline_mm=[
                (round(x, 4), round(y, 4))
                for x, y in outline_polygon_mm(board.outline).exterior.coords
            ],
            openings_mm=[
                [(round(x / 1e6, 4), round(y / 1e6, 4)) for x, y in area.exterior.coords]
                for area in openings_of(brief, board).values()
            ],
            sides=sides_of(board),
        )
        for board in brief.boards
    ]


def sides_of(board: Board) -> list[OutlineSide]:
    """The sides of a board's outline as calipers measure them."""
    corners = corners_of(board.outline)
    out = 1 if outline_polygon_mm(board.outline).exterior.is_ccw else -1
    ends = [*(point for point, _ in corners[1:]), corners[0][0]]
    return [
        OutlineSide(
            x_mm=round(x, 4),
            y_mm=round(y, 4),
            length_mm=round(length, 3),
            rise_mm=round(out * bulge * hypot(end[0] - x, end[1] - y) / 2, 3),
        )
        for ((x, y), bulge), end, length in zip(
            corners, ends, side_lengths(board.outline), strict=True
        )
    ]


def drawn_things(design: Design, library: Library) -> list[DrawnThing]:
    """All things; what lies behind comes first, what has no place stands in a row below its
    board.
    """
    brief = design.brief
    asked: dict[str, list[str]] = {}
    for need in needs_of(brief):
        asked.setdefault(need.thing, []).append(f"{need.title}: {need.kind}")
    waiting: dict[str, float] = {}
    found = [drawn(design, library, thing, asked, waiting) for thing in brief.things]
    return sorted(found, key=lambda t: (not t.far, t.group == "marks"))


def drawn(
    design: Design,
    library: Library,
    thing: Thing,
    asked: dict[str, list[str]],
    waiting: dict[str, float],
) -> DrawnThing:
    """One thing."""
    brief = design.brief
    seat = seat_of_thing(brief, thing) if thing.place else made_seat(design, thing)
    sizes = [size_of(body, library) for body in thing.bodies()]
    if seat is None:
        seat = beside(brief, thing, sizes, waiting)
    cover = cover_of(brief, library, thing)
    draw = draw_of(brief, thing, library.parts, library.screens)
    bodies = [
        body_view(thing, body, size, seat) for body, size in zip(thing.bodies(), sizes, strict=True)
    ]
    return DrawnThing(
        name=thing.name,
        label=thing.label,
        kind=thing.kind,
        title=thing.TITLE,
        group=thing.GROUP,
        mark=thing.MARK,
        board=thing.board,
        far=seat.far,
        edge=thing.EDGE,
        placed=thing.place is not None,
        x_mm=seat.x / 1e6,
        y_mm=seat.y / 1e6,
        turn_deg=seat.turn_deg,
        bodies=bodies,
        cover_mm=mm4(cover.rect) if cover else None,
        asks=asked.get(thing.name, []),
        draws_ma=round(draw.current_ma, 2) if draw else 0.0,
        parts=parts_for(thing, library),
        fed=how_fed(thing),
    )


def how_fed(thing: Thing) -> Literal["", "source", "from a rail", "by a rail"]:
    """What the rail that a thing names is to it: one that it feeds as well, one that it makes
    another of, or one that it takes; nothing for what no rail has to do with.
    """
    if is_source(thing):
        return "source"
    if thing.LOWER_FEED:
        return "from a rail"
    return "" if thing.GROUP in ("marks", "feeds") or thing.SWITCHES else "by a rail"


def mm4(rect: tuple[int, int, int, int]) -> tuple[float, float, float, float]:
    """A rectangle in millimetres."""
    return rect[0] / 1e6, rect[1] / 1e6, rect[2] / 1e6, rect[3] / 1e6


def made_seat(design: Design, thing: Thing) -> Seat | None:
    """Where Loquet has put a thing that has no place of its own."""
    made = design.placement.get(thing.board)
    if made is None or not thing.bodies():
        return None
    role = thing.role(thing.bodies()[0].piece)
    return next((part.seat for part in made.value.parts if part.role == role), None)


def beside(
    brief: Brief,
    thing: Thing,
    sizes: list[tuple[float, float, float, float]],
    waiting: dict[str, float],
) -> Seat:
    """A place in the row below the board."""
    left, bottom, _, _ = outline_polygon_mm(brief.board(thing.board).outline).bounds
    width = max((max(size[0], LEAST_MM) for size in sizes), default=LEAST_MM)
    x = waiting.get(thing.board, left)
    waiting[thing.board] = x + width + APART_MM
    return Seat(round((x + width / 2) * 1e6), round((bottom - BESIDE_MM) * 1e6))


def size_of(body: Body, library: Library) -> tuple[float, float, float, float]:
    """Width and height of a piece and of its courtyard in mm, as its part draws them or as the
    brief says.
    """
    try:
        pattern = library.pattern(body.part) if body.part else None
    except (PartError, KeyError):
        pattern = None
    if pattern is None:
        w, h = (max(v, LEAST_MM) for v in body.size_mm)
        return (w, h, w, h) if body.size_mm != (0.0, 0.0) else (7.0, 7.0, 7.0, 7.0)
    yard = pattern.courtyard
    return pattern.body.w / 1e6, pattern.body.h / 1e6, yard.w / 1e6, yard.h / 1e6


def body_view(
    thing: Thing, body: Body, size: tuple[float, float, float, float], seat: Seat
) -> BodyView:
    """A piece where it stands."""
    x, y = seat.point(body.dx, body.dy)
    w, h, yard_w, yard_h = size
    return BodyView(
        x_mm=x / 1e6,
        y_mm=y / 1e6,
        w_mm=w,
        h_mm=h,
        yard_w_mm=yard_w,
        yard_h_mm=yard_h,
        turn_deg=(seat.turn_deg + body.turn) % 360,
    )


def parts_for(thing: Thing, library: Library) -> list[str]:
    """Ids of the parts that a thing could be."""
    if thing.display() is not None:
        return sorted(library.screens)
    kinds = {kind for body in thing.bodies() for kind in body.kinds}
    if ANY_KIND in kinds:
        return sorted(part_id for part_id in library.parts if part_id.startswith(OWN))
    return sorted(part.id for part in library.parts.values() if part.kind in kinds)

"""Every body of a board's stack, from the parts as they are placed, the things that lie loose, the
screws, and what is plugged in.
"""

from collections.abc import Iterator
from functools import partial

import shapely
from shapely.affinity import rotate, scale, translate
from shapely.geometry import Point, Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView, Copper
from loquet.core.brief import Thing
from loquet.core.brief.module_sockets import module_sockets
from loquet.core.brief.seats import seat_of_thing
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.brief.thing import Loose
from loquet.core.circuit.model import Component
from loquet.core.geometry import Seat, polygon_of
from loquet.core.library import Library
from loquet.core.lookup.covers import covers_of
from loquet.core.parts.in_use import LEAD_MM, STAYS, InUse, Plug
from loquet.core.plain.remembering import Remembered
from loquet.core.quantities.lengths import MM, fine_mm
from loquet.core.stack.model import Piece
from loquet.core.stack.screw_sizes import POST, Screw, screw_of

MODULE_MM = 4.0
"""A screen module is so thick with its glass; common practice, no source."""
INSULATOR_MM = 1.0
"""A sheet or foam about a soft cell; common practice, no source."""


PARTS: Remembered[tuple[Piece, ...]] = Remembered(4096)


def use_of(component: Component, library: Library) -> InUse:
    """How a part goes on beyond its body."""
    part = library.parts.get(component.part)
    return library.roles.in_use(part) if part else STAYS


def plug_in(view: BoardView, component: Component, library: Library) -> Plug | None:
    """What is put into a part from outside; into a module where its socket is in use."""
    if component.is_chip and component.thing not in module_sockets(view.brief):
        return None
    return library.plug(component.part)


def part_pieces(view: BoardView, library: Library, board_mm: float) -> Iterator[Piece]:
    """Bodies of all parts, and the tips of leads that go through the board."""
    for component, pads in zip(view.circuit.components, view.pads_by_part, strict=True):
        name = f"{view.heights_mm[component.ref]} {board_mm}"
        about = (component, view.placed[component.ref], pads, library)
        make = partial(pieces_of, view, component, pads, use_of(component, library), board_mm)
        yield from PARTS.of(about, make, name)


def pieces_of(
    view: BoardView,
    component: Component,
    pads: tuple[Copper, ...],
    use: InUse,
    board_mm: float,
) -> tuple[Piece, ...]:
    """The body of a part, and the tips of its leads."""
    found = []
    ref, seat = component.ref, view.seats[component.ref]
    height, tips = view.heights_mm[ref], [polygon_of(p.shape) for p in pads if p.drill_nm]
    about = (f"part:{ref}", *thing_of(component.thing))
    words = f"{ref} ({component.purpose})"
    if height > 0:
        through = use.through_mm
        shoulder = outward(height - through, board_mm, seat.far)[0 if seat.far else 1]
        found.append(
            Piece(
                ref,
                words,
                "part",
                in_mm(view.body(ref)),
                *outward(height, board_mm, seat.far),
                seat.far,
                component.thing,
                about,
                through=through > 0,
                inside_mm=shoulder,
            )
        )
    if tips and not component.bare:
        found.append(
            Piece(
                f"leads of {ref}",
                f"the leads of {words}",
                "leads",
                in_mm(shapely.union_all(tips)),
                *outward(LEAD_MM, board_mm, not seat.far),
                not seat.far,
                component.thing,
                about,
                sharp=True,
            )
        )
    return tuple(found)


def wire_pieces(view: BoardView, library: Library, board_mm: float) -> Iterator[Piece]:
    """The room that a cable takes above its header, where a link goes over a cable."""
    for component in view.circuit.components:
        bend = use_of(component, library).bend_mm
        owner = view.brief.find(component.thing)
        joint = owner.joint() if owner else None
        if joint is None or joint.plugged or not bend:
            continue
        seat, height = view.seats[component.ref], view.heights_mm[component.ref]
        area = in_mm(view.body(component.ref))
        words = f"the cable at {component.ref} ({component.purpose})"
        yield Piece(
            f"cable at {component.ref}",
            words,
            "wires",
            area,
            *outward(bend, board_mm, seat.far, height),
            seat.far,
            component.thing,
            thing_of(component.thing),
        )


def module_pieces(view: BoardView, library: Library, board_mm: float) -> Iterator[Piece]:
    """Screens over the board; their glass stands at the front wall."""
    for cover in covers_of(view.brief, library, view.board.name):
        left, bottom, right, top = (value / MM for value in cover.rect)
        thing = view.brief.thing(cover.thing)
        far = thing.place is not None and thing.place.far
        low, high = outward(cover.above_mm, board_mm, far)
        low, high = (low, low + MODULE_MM) if far else (high - MODULE_MM, high)
        yield Piece(
            cover.thing,
            f"the glass of {cover.thing}",
            "module",
            shapely.box(left, bottom, right, top),
            low,
            high,
            far,
            cover.thing,
            thing_of(cover.thing),
        )


def screw_pieces(
    view: BoardView, choices: StackChoices, board_mm: float, far_room_mm: float, near_room_mm: float
) -> Iterator[Piece]:
    """Heads, shanks and posts at every fixing hole; countersunk heads lie in the board or in the
    wall.
    """
    for thing, seat, screw in screws_of(view, choices):
        spot = Point(seat.x / MM, seat.y / MM)
        about = thing_of(thing.name)
        post = spot.buffer(POST * screw.d_mm / 2)
        head_wide, head_high = screw.sunk_mm if choices.heads == "countersunk" else screw.pan_mm
        sunk = choices.heads == "countersunk"
        name = f"screw at {thing.name}"
        if choices.fixing == "posts":
            low = board_mm - (head_high if sunk else 0.0)
            head = spot.buffer(head_wide / 2)
            words = f"the head of the {name}"
            yield Piece(
                name,
                words,
                "screw head",
                head,
                low,
                low + head_high,
                False,
                thing.name,
                about,
                sharp=not sunk,
            )
        words = f"the post under {thing.name}"
        yield Piece(
            f"post at {thing.name}", words, "post", post, -far_room_mm, 0.0, True, thing.name, about
        )
        if choices.fixing == "through":
            yield Piece(
                f"boss at {thing.name}",
                f"the boss over {thing.name}",
                "post",
                post,
                board_mm,
                board_mm + near_room_mm,
                False,
                thing.name,
                about,
            )


def screws_of(view: BoardView, choices: StackChoices) -> Iterator[tuple[Thing, Seat, Screw]]:
    """The fixing holes of a board that take a screw."""
    for thing in view.brief.on(view.board.name):
        found = screw_of(thing, choices)
        if found is not None:
            yield thing, seat_of_thing(view.brief, thing), found[1]


def loose_pieces(
    view: BoardView, choices: StackChoices, board_mm: float, under: list[Piece]
) -> Iterator[Piece]:
    """What lies in the shell and not on the board: on the highest of what is under it, with an
    insulator between where there is one.
    """
    for thing in view.brief.on(view.board.name):
        loose = thing.loose()
        if loose is None or thing.place is None:
            continue
        seat = seat_of_thing(view.brief, thing)
        area = lying(loose, seat)
        height = choices.heights_mm.get(thing.name, loose.high_mm)
        swell = fine_mm(height * loose.swells)
        bed = bed_under(area, seat.far, board_mm, under)
        bed += INSULATOR_MM if view.brief.making.insulator and loose.soft else 0.0
        low, high = outward(height + swell, board_mm, seat.far, bed)
        yield Piece(
            thing.name,
            loose.words,
            "loose",
            area,
            low,
            high,
            seat.far,
            thing.name,
            thing_of(thing.name),
            soft=loose.soft,
            swell_mm=swell,
        )


def bed_under(area: BaseGeometry, far: bool, board_mm: float, under: list[Piece]) -> float:
    """How high above the face of the board something comes to lie that covers an area, in mm; posts
    and screws carry nothing.
    """
    carrying = ("part", "leads", "module")
    tops = [
        (-piece.low_mm if far else piece.high_mm - board_mm)
        for piece in under
        if piece.far == far and piece.sort in carrying and piece.area.intersects(area)
    ]
    return max([0.0, *tops])


def lying(loose: Loose, seat: Seat) -> Polygon:
    """The area of a loose thing on the board, in mm."""
    wide, long = loose.size_mm
    flat = shapely.box(-wide / 2, -long / 2, wide / 2, long / 2)
    return translate(rotate(flat, seat.turn_deg, origin=(0, 0)), seat.x / MM, seat.y / MM)


def outward(
    height_mm: float, board_mm: float, far: bool, bed_mm: float = 0.0
) -> tuple[float, float]:
    """From where to where something of this height reaches that stands on a side of the board, or
    on a bed there.
    """
    if far:
        return -bed_mm - height_mm, -bed_mm
    return board_mm + bed_mm, board_mm + bed_mm + height_mm


def in_mm(shape: BaseGeometry) -> BaseGeometry:
    """A shape in nanometres as millimetres."""
    return scale(shape, 1 / MM, 1 / MM, origin=(0, 0))


def thing_of(name: str) -> tuple[str, ...]:
    """How a finding refers to a thing, where there is one."""
    return (f"thing:{name}",) if name else ()

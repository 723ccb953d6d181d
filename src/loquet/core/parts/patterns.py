"""From a part's body to its land pattern, one function a body family."""

from dataclasses import replace
from functools import lru_cache
from math import ceil

from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.parts.ipc import (
    CHIP_LARGE,
    CHIP_SMALL,
    GULL_COARSE,
    GULL_FINE,
    NO_LEAD,
    Land,
    land,
)
from loquet.core.parts.land import LandPattern, Pad
from loquet.core.parts.part import Body, Drawn, GullWings, NoLeads, Rows, TwoEnds
from loquet.core.quantities.lengths import MM, nm_from_mm

GRID_NM = 10_000
THERMAL_HOLE_NM = 300_000
THERMAL_PAD_NM = 600_000
THERMAL_APART_NM = 700_000
SMALLEST_GAP_MM = 0.20


def on_grid(length_mm: float) -> int:
    """Millimetres as nanometres, rounded to 0.01 mm as the standard rounds patterns."""
    return round(length_mm * MM / GRID_NM) * GRID_NM


def even(length_mm: float) -> int:
    """Like `on_grid`, but a whole number of 0.02 mm, so that half of it is on the grid as well."""
    return round(length_mm * MM / (2 * GRID_NM)) * 2 * GRID_NM


@lru_cache(maxsize=2_000)
def pattern_of(body: Body) -> LandPattern:
    """The land pattern of a body: IPC-7351B for the standard families, the drawing itself
    otherwise.
    """
    match body:
        case TwoEnds():
            return two_ends(body)
        case GullWings():
            return gull_wings(body)
        case NoLeads():
            return no_leads(body)
        case Rows():
            return rows(body)
        case Drawn():
            return drawn(body)


def two_ends(body: TwoEnds) -> LandPattern:
    """Two pads left and right, pin 1 left."""
    goals = CHIP_LARGE if body.length_mm[1] >= 1.6 else CHIP_SMALL
    pads = land(body.length_mm, body.terminal_mm, body.width_mm, goals)
    x, w, h = on_grid(pads.middle), even(pads.length), even(pads.x)
    body_w, body_h = middle(body.length_mm), middle(body.width_mm)
    yard = Box(
        0,
        0,
        2 * x + w + 2 * nm_from_mm(goals.courtyard),
        max(h, nm_from_mm(body_h)) + 2 * nm_from_mm(goals.courtyard),
    )
    return LandPattern(
        name=body.prefix,
        pads=(Pad("1", Box(-x, 0, w, h)), Pad("2", Box(x, 0, w, h))),
        courtyard=yard,
        body=Box(0, 0, nm_from_mm(body_w), nm_from_mm(body_h)),
    )


def gull_wings(body: GullWings) -> LandPattern:
    """Leads on two sides (left and right, pin 1 top left, anticlockwise) or four."""
    goals = GULL_COARSE if body.pitch_mm > 0.625 else GULL_FINE
    pads = land(body.span_mm, body.foot_mm, body.lead_mm, goals)
    if body.positions:
        placed = tuple(
            side_pad(number, position, body, pads) for number, position in body.positions
        )
    else:
        placed = ring(body.pins, body.sides, body.pitch_mm, pads)
    return enclosed(body.prefix, placed, body.body_mm, goals.courtyard, mark=body.pins > 3)


def no_leads(body: NoLeads) -> LandPattern:
    """Terminals on four sides and an exposed pad with plated heat holes, five where there is room,
    on the cross that its paste leaves free, numbered one past the last pin; on the other side mask
    covers them.
    """
    pads = land(body.body_mm, body.terminal_mm, body.lead_mm, NO_LEAD)
    around = ring(body.pins, 4, body.pitch_mm, pads)
    exposed, number = even(body.exposed_mm), str(body.pins + 1)
    step = (exposed // 4 // GRID_NM) * GRID_NM
    cross = ((0, -step), (-step, 0), (step, 0), (0, step))
    thermal = tuple(
        Pad(number, Round(x, y, THERMAL_PAD_NM), THERMAL_HOLE_NM, False, x, y, covered=True)
        for x, y in ((0, 0), *(cross if step >= THERMAL_APART_NM else ()))
    )
    side = middle(body.body_mm)
    pads_all = (*around, Pad(number, Box(0, 0, exposed, exposed)), *thermal)
    return enclosed(body.prefix, pads_all, (side, side), NO_LEAD.courtyard, mark=True)


def rows(body: Rows) -> LandPattern:
    """Two rows left and right: round pads with a hole each, or bare rectangles under
    castellations.
    """
    a_side = body.pins // 2
    wide, high = (nm_from_mm(value) for value in body.pad_mm)
    hole, pitch = nm_from_mm(body.drill_mm), nm_from_mm(body.pitch_mm)
    pads = []
    for index in range(body.pins):
        left = index < a_side
        step = index if left else body.pins - 1 - index
        x = nm_from_mm(body.row_mm) // 2 * (-1 if left else 1)
        y = ((a_side - 1) - 2 * step) * pitch // 2
        shape: Shape = Round(x, y, wide) if hole and wide == high else Box(x, y, wide, high)
        pads.append(Pad(str(index + 1), shape, hole, not hole, x, y))
    return enclosed(body.name, tuple(pads), body.body_mm, 0.25, mark=True)


def ring(pins: int, sides: int, pitch_mm: float, pads: Land) -> tuple[Pad, ...]:
    """Pads anticlockwise from the top of the left side, as packages are numbered from above."""
    a_side, pitch, reach = pins // sides, nm_from_mm(pitch_mm), on_grid(pads.middle)
    length, width = even(pads.length), even(min(pads.x, pitch_mm - SMALLEST_GAP_MM))
    turns = ((-1, 0), (1, 0)) if sides == 2 else ((-1, 0), (0, -1), (1, 0), (0, 1))
    found: list[Pad] = []
    for side, (dx, dy) in enumerate(turns):
        for place in range(a_side):
            along = (2 * place - (a_side - 1)) * pitch // 2
            number = str(side * a_side + place + 1)
            if dx:
                found.append(Pad(number, Box(dx * reach, dx * along, length, width)))
            else:
                found.append(Pad(number, Box(-dy * along, dy * reach, width, length)))
    return tuple(found)


def side_pad(number: str, position: int, body: GullWings, pads: Land) -> Pad:
    """A pad of a body with uneven sides: positive positions on the right, negative on the left,
    counted from the middle.

    Position 1 is on the axis, 2 half a pitch up and 3 half a pitch down.
    """
    offsets = {1: 0, 2: nm_from_mm(body.pitch_mm), 3: -nm_from_mm(body.pitch_mm)}
    side = 1 if position > 0 else -1
    return Pad(
        number,
        Box(side * on_grid(pads.middle), offsets[abs(position)], even(pads.length), even(pads.x)),
    )


def drawn(body: Drawn) -> LandPattern:
    """The pads as the drawing has them."""
    pads = []
    for pad in body.pads:
        x, y, w, h = (nm_from_mm(value) for value in (pad.x_mm, pad.y_mm, pad.w_mm, pad.h_mm))
        shape: Shape = Round(x, y, w) if pad.round else Box(x, y, w, h)
        drill, paste = nm_from_mm(pad.drill_mm), pad.paste and not pad.drill_mm
        bare = nm_from_mm(pad.bare_mm)
        pads.append(Pad(pad.number, shape, drill, paste, x, y, pad.covered, bare))
    holes = tuple(Round(nm_from_mm(x), nm_from_mm(y), nm_from_mm(d)) for x, y, d in body.pegs_mm)
    pattern = enclosed(
        body.name, tuple(pads), body.body_mm, 0.25, body.first_pin_mark, holes, body.body_middle_mm
    )
    return replace(pattern, touched_nm=nm_from_mm(body.touched_mm))


def enclosed(
    name: str,
    pads: tuple[Pad, ...],
    body_mm: tuple[float, float],
    excess_mm: float,
    mark: bool,
    holes: tuple[Round, ...] = (),
    middle_mm: tuple[float, float] = (0.0, 0.0),
) -> LandPattern:
    """The pattern with its courtyard around pads, pegs and body, and its legend strokes."""
    body = Box(
        nm_from_mm(middle_mm[0]),
        nm_from_mm(middle_mm[1]),
        nm_from_mm(body_mm[0]),
        nm_from_mm(body_mm[1]),
    )
    boxes = [extent(pad.shape) for pad in pads] + [extent(hole) for hole in holes] + [extent(body)]
    excess = nm_from_mm(excess_mm)
    left, bottom = min(b[0] for b in boxes) - excess, min(b[1] for b in boxes) - excess
    right, top = max(b[2] for b in boxes) + excess, max(b[3] for b in boxes) + excess
    first = pads[0].shape if mark else None
    spot = None
    if isinstance(first, Box | Round):
        spot = (first.x, first.y)
    return LandPattern(
        name,
        pads,
        Box((left + right) // 2, (bottom + top) // 2, right - left, top - bottom),
        body,
        holes,
        outline(body),
        spot,
    )


def outline(body: Box) -> tuple[Bar, ...]:
    """The body's rectangle as legend strokes of 0.15 mm; the board cuts away what would lie on
    pads.
    """
    left, right, bottom, top = (
        body.x - body.w // 2,
        body.x + body.w // 2,
        body.y - body.h // 2,
        body.y + body.h // 2,
    )
    corners = ((left, bottom), (right, bottom), (right, top), (left, top))
    return tuple(Bar(*corners[i], *corners[(i + 1) % 4], 150_000) for i in range(4))


def extent(shape: Shape) -> tuple[int, int, int, int]:
    """Left, bottom, right and top of a shape in nm."""
    match shape:
        case Round():
            return (
                shape.x - shape.d // 2,
                shape.y - shape.d // 2,
                shape.x + shape.d // 2,
                shape.y + shape.d // 2,
            )
        case Box() if shape.turn:
            across, up = (ceil(v) for v in shape.reach)
            return shape.x - across, shape.y - up, shape.x + across, shape.y + up
        case Box():
            return (
                shape.x - shape.w // 2,
                shape.y - shape.h // 2,
                shape.x + shape.w // 2,
                shape.y + shape.h // 2,
            )
        case Bar():
            half = shape.w // 2
            return (
                min(shape.x1, shape.x2) - half,
                min(shape.y1, shape.y2) - half,
                max(shape.x1, shape.x2) + half,
                max(shape.y1, shape.y2) + half,
            )


def middle(limits: tuple[float, float]) -> float:
    """The nominal dimension between two limits."""
    return (limits[0] + limits[1]) / 2

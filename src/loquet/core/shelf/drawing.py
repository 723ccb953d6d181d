"""The drawing of a part for the shelf: pads, body and room in millimetres, with what each pad
does.
"""

from loquet.core.geometry import Box
from loquet.core.parts import LandPattern, Part
from loquet.core.parts.drawn_land import DrawnLand, lands_of
from loquet.core.parts.terminal import Does
from loquet.core.plain.frozen import Frozen


class DrawnPin(DrawnLand):
    """A pad as it is drawn, with its terminal and what that does."""

    terminal: str
    does: Does | None


class PartDrawing(Frozen):
    """A part from above: pads, unplated holes (x, y, d), body, and the room that it takes, as left,
    bottom, right and top.
    """

    pads: tuple[DrawnPin, ...]
    holes_mm: tuple[tuple[float, float, float], ...]
    body_mm: tuple[float, float, float, float]
    room_mm: tuple[float, float, float, float]
    first_mm: tuple[float, float] | None


def drawing_of(part: Part, pattern: LandPattern) -> PartDrawing:
    """The drawing of a part by its land pattern."""
    pads = []
    for land in lands_of(pattern):
        name = part.at_pad.get(land.number, "")
        does = part.terminals[name].does if name else None
        pads.append(DrawnPin(**land.model_dump(), terminal=name, does=does))
    first = pattern.first_pin
    return PartDrawing(
        pads=tuple(pads),
        holes_mm=tuple((h.x / 1e6, h.y / 1e6, h.d / 1e6) for h in pattern.holes),
        body_mm=edges(pattern.body),
        room_mm=edges(pattern.courtyard),
        first_mm=(first[0] / 1e6, first[1] / 1e6) if first else None,
    )


def edges(box: Box) -> tuple[float, float, float, float]:
    """Left, bottom, right and top in mm."""
    return (
        (box.x - box.w / 2) / 1e6,
        (box.y - box.h / 2) / 1e6,
        (box.x + box.w / 2) / 1e6,
        (box.y + box.h / 2) / 1e6,
    )

"""Where thumbs reach: comfortable arcs about the grip for small, medium and large hands.

Hand lengths are the 5th, 50th and 95th percentile of adults, 174, 189 and 205 mm (ISO 7250 measure,
values from memory). The thumb is taken as 0.32 of the hand from the grip, and the comfortable zone
as 0.55 to 1.0 of that (common practice, no source).
"""

from math import hypot
from typing import Literal

from loquet.core.brief.keys import keys_of
from loquet.core.brief.model import Brief
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.plain.frozen import Frozen

HAND_MM = {"small": 174.0, "medium": 189.0, "large": 205.0}
THUMB_SHARE, NEAR_SHARE, FAR_SHARE = 0.32, 0.55, 1.0
GRIP_IN_MM, GRIP_UP_SHARE = 4.0, 0.3
SOURCE = (
    "hand lengths of ISO 7250 percentiles from memory; thumb 0.32 of the hand, comfortable from"
    " 0.55 to 1.0 of it: common practice, no source"
)


class ReachArc(Frozen):
    """The comfortable zone of one thumb: its pivot and radii in mm."""

    hand: Literal["small", "medium", "large"]
    side: Literal["left", "right"]
    x_mm: float
    y_mm: float
    near_mm: float
    far_mm: float


def reach_arcs(brief: Brief) -> tuple[ReachArc, ...]:
    """Arcs of both thumbs for three hands; a device narrower than 70 mm is held in one hand, from
    its lower edge.
    """
    left, bottom, right, top = outline_polygon_mm(brief.board().outline).bounds
    arcs = []
    for hand, length in HAND_MM.items():
        thumb = length * THUMB_SHARE
        pivots = {
            "left": (left + GRIP_IN_MM, bottom + (top - bottom) * GRIP_UP_SHARE),
            "right": (right - GRIP_IN_MM, bottom + (top - bottom) * GRIP_UP_SHARE),
        }
        for side, (x, y) in pivots.items():
            arcs.append(
                ReachArc(
                    hand=hand,
                    side=side,
                    x_mm=x,
                    y_mm=y,
                    near_mm=round(thumb * NEAR_SHARE, 2),
                    far_mm=round(thumb * FAR_SHARE, 2),
                )
            )
    return tuple(arcs)


def out_of_reach(brief: Brief, hand: str = "small") -> tuple[tuple[str, str], ...]:
    """Things and titles of thumb keys beyond the far arc of their own thumb."""
    arcs = {str(arc.side): arc for arc in reach_arcs(brief) if arc.hand == hand}
    found = []
    for key in keys_of(brief):
        side, _, digit = key.digit.partition(" ")
        if digit == "thumb":
            arc = arcs[side]
            if hypot(key.x / 1e6 - arc.x_mm, key.y / 1e6 - arc.y_mm) > arc.far_mm:
                found.append((key.thing, key.title.removeprefix("button ")))
    return tuple(found)

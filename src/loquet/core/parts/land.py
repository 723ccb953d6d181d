"""A land pattern: the copper, holes and outlines that a part needs on the board, in its own
drawing.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.geometry import Bar, Box, Round, Shape, middle_of

ALIKE_NM = 20_000


@dataclass(frozen=True)
class Pad:
    """A pad; `drill_nm` is 0 for a surface pad.

    Several pads may share a number: they are one contact. A `covered` pad stays under the mask;
    around a fiducial a ring `bare_nm` wide is free of mask and copper.
    """

    number: str
    shape: Shape
    drill_nm: int = 0
    paste: bool = True
    drill_x_nm: int = 0
    drill_y_nm: int = 0
    covered: bool = False
    bare_nm: int = 0


@dataclass(frozen=True)
class LandPattern:
    """Pads, unplated holes, body and courtyard about the part's middle; x right, y up, seen from
    its own side; `poles` are the pads of plus and minus, `touched_nm` is the width of the
    round field that a finger or a pill touches.
    """

    name: str
    pads: tuple[Pad, ...]
    courtyard: Box
    body: Box
    holes: tuple[Round, ...] = ()
    strokes: tuple[Bar, ...] = ()
    first_pin: tuple[int, int] | None = None
    poles: tuple[str, ...] = ()
    touched_nm: int = 0


def pad_order(pad: str) -> tuple[int, str]:
    """Pads by number, then by letter."""
    return (int(pad) if pad.isdigit() else 10_000, pad)


def turns_unseen(pattern: LandPattern) -> bool:
    """Whether a part lies on its pads as well when it is turned by half a turn: then only a mark
    tells.
    """
    spots = sorted(extents(pattern))
    if not spots:
        return False
    middle_x = (min(x for x, *_ in spots) + max(x for x, *_ in spots)) / 2
    middle_y = (min(y for _, y, *_ in spots) + max(y for _, y, *_ in spots)) / 2
    turned = sorted((2 * middle_x - x, 2 * middle_y - y, w, h) for x, y, w, h in spots)
    return all(
        abs(a - b) <= ALIKE_NM
        for one, other in zip(spots, turned, strict=True)
        for a, b in zip(one, other, strict=True)
    )


def extents(pattern: LandPattern) -> Iterator[tuple[float, float, float, float]]:
    """Middle, width and height of every pad."""
    for pad in pattern.pads:
        x, y = middle_of(pad.shape)
        match pad.shape:
            case Box():
                yield x, y, pad.shape.w, pad.shape.h
            case Round():
                yield x, y, pad.shape.d, pad.shape.d

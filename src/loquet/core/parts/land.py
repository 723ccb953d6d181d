"""A land pattern: the copper, holes and outlines that a part needs on the board, in its own drawing."""

from dataclasses import dataclass

from loquet.core.geometry import Bar, Box, Round, Shape


@dataclass(frozen=True)
class Pad:
    """A pad; `drill_nm` is 0 for a surface pad. Several pads may share a number: they are one contact. A `covered` pad stays under the mask; around a fiducial a ring `bare_nm` wide is free of mask and copper."""

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
    """Pads, unplated holes, body and courtyard about the part's middle; x right, y up, seen from its own side."""

    name: str
    pads: tuple[Pad, ...]
    courtyard: Box
    body: Box
    holes: tuple[Round, ...] = ()
    strokes: tuple[Bar, ...] = ()
    first_pin: tuple[int, int] | None = None


def pad_order(pad: str) -> tuple[int, str]:
    """Pads by number, then by letter."""
    return (int(pad) if pad.isdigit() else 10_000, pad)

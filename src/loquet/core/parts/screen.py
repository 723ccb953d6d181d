"""A screen module that sits on a header, as its part says."""

from typing import Literal

from loquet.core.parts.part import Drawn, Part, PartError
from loquet.core.parts.terminal import PadNumber
from loquet.core.plain.frozen import Frozen

Bus = Literal["two-wire", "one-way serial", "parallel colour", "eight bits with strobe"]
BUSES: dict[str, Bus] = {
    "two-wire screen": "two-wire",
    "one-way serial screen": "one-way serial",
    "parallel colour screen": "parallel colour",
    "strobed screen": "eight bits with strobe",
}
"""How each kind of screen is written to."""


class ScreenModule(Frozen):
    """A module's size, pin order, pixels, load on the bus and the volts that it runs on;
    `active_mm` is the lit area, `backlight_ma` what its backlight pin takes of its current.
    """

    id: str
    description: str
    width_mm: float
    height_mm: float
    header_inset_mm: float
    pins: tuple[str, ...]
    bus_pf: float
    bus: Bus = "two-wire"
    width_px: int
    height_px: int
    bits_per_pixel: int
    active_mm: tuple[float, float]
    current_ma: float
    supply_v: tuple[float, float]
    backlight_ma: float = 0.0
    height_above_mm: float
    evidence_text: str


def screen_of(part: Part) -> ScreenModule:
    """The module of a part of a kind of screen, its pins in the order of its header's pads; raises
    PartError for one that does not say what is drawn and driven, or has no header in one row.
    """
    if part.kind not in BUSES or not isinstance(part.body, Drawn):
        raise PartError(part.id, "is no screen on a header", "Give it a header in one row.")
    top = part.body.body_middle_mm[1] + part.body.body_mm[1] / 2
    row = {pad.y_mm for pad in part.body.pads}
    if len(row) != 1:
        raise PartError(part.id, "has no header in one row", "Draw its pads on one line.")
    return ScreenModule(
        id=part.id,
        description=part.description,
        width_mm=part.body.body_mm[0],
        height_mm=part.body.body_mm[1],
        header_inset_mm=round(top - row.pop(), 3),
        pins=tuple(part.pin_names[pad] for pad in sorted(part.pin_names, key=in_order)),
        bus_pf=part.figure("bus_pf"),
        bus=BUSES[part.kind],
        width_px=round(part.figure("width_px")),
        height_px=round(part.figure("height_px")),
        bits_per_pixel=round(part.figure("bits_per_pixel")),
        active_mm=(part.figure("active_w_mm"), part.figure("active_h_mm")),
        current_ma=part.figure("draws_ma"),
        supply_v=(part.figure("input_min_v"), part.figure("input_max_v")),
        backlight_ma=part.values.get("backlight_ma", 0.0),
        height_above_mm=part.height_mm,
        evidence_text=part.evidence_text,
    )


def in_order(pad: PadNumber) -> tuple[int, str]:
    """Pads as they are counted."""
    return (int(pad), "") if pad.isdigit() else (1000, pad)

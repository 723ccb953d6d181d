"""A screen module that sits on a header."""

from typing import Literal

from loquet.core.plain.frozen import Frozen


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
    bus: Literal["two-wire", "one-way serial", "parallel colour"] = "two-wire"
    width_px: int
    height_px: int
    bits_per_pixel: int
    active_mm: tuple[float, float]
    current_ma: float
    supply_v: tuple[float, float]
    backlight_ma: float = 0.0
    height_above_mm: float
    evidence_text: str

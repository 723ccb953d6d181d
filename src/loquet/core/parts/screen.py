"""A screen module that sits on a header."""

from loquet.core.frozen import Frozen


class ScreenModule(Frozen):
    """A module's size, pin order and load on the bus."""

    id: str
    description: str
    width_mm: float
    height_mm: float
    header_inset_mm: float
    pins: tuple[str, ...]
    bus_pf: float
    current_ma: float
    height_above_mm: float
    evidence_text: str

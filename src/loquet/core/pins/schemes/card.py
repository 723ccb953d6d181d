"""What is compared between ways to read the keys."""

from loquet.core.brief import SchemeName
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Working


class PartLine(Frozen):
    """A part that a scheme adds, and how many."""

    part: str
    title: str
    count: int


class GhostPicture(Frozen):
    """A ghost way to draw: the key that appears, and the pressed keys on the way with their (row,
    column).
    """

    key: str
    path: tuple[str, ...]
    cells: tuple[tuple[str, int, int], ...]


class SchemeCard(Frozen):
    """One way to read the keys of one brief.

    `cells` says which key sits in which row and column, both from 0. `pins` counts the chip pins of
    the keys alone, `analogue` those of them that must be analogue. `reads_chords` says whether all
    chords of the brief are read rightly; `ghost` shows one that is not, `cure_diodes` and
    `cure_direct` the least that cures it.
    """

    name: SchemeName
    title: str
    shape: str
    pins: int
    analogue: int
    parts: tuple[PartLine, ...]
    price_cents: float
    area_mm2: float
    cells: tuple[tuple[str, int, int], ...] = ()
    scan_us: float
    latency_ms: float
    rollover: int
    reads_chords: bool
    ghosts: int
    ghost: GhostPicture | None = None
    cure_diodes: tuple[str, ...] = ()
    cure_direct: tuple[str, ...] = ()
    current_ua: float
    fits: bool
    why_not: str = ""
    chosen: bool = False
    recommended: bool = False
    reason: str = ""
    workings: tuple[Working, ...]

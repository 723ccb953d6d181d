"""What the board stages leave behind.

All lengths are integer nanometres, seen from the near side.
"""

from typing import Annotated

from pydantic import Field

from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Seat
from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Working


class PlacedPart(Frozen):
    """A part with its seat; `locked` where the brief or a person put it."""

    role: str
    ref: str
    x_nm: int
    y_nm: int
    turn_deg: int
    far: bool = False
    locked: bool = False

    @property
    def seat(self) -> Seat:
        """The seat as geometry."""
        return Seat(self.x_nm, self.y_nm, self.turn_deg, self.far)


class Placement(Frozen):
    """All parts in reference order of the circuit."""

    parts: tuple[PlacedPart, ...]
    workings: tuple[Working, ...] = ()


Nm = Annotated[int, Field(ge=-1_000_000_000, le=1_000_000_000)]
NetName = Annotated[str, Field(min_length=1, max_length=80)]


class Track(Frozen):
    """A straight piece of track; `by_hand` where a person drew or kept it."""

    net: NetName
    far: bool
    x1_nm: Nm
    y1_nm: Nm
    x2_nm: Nm
    y2_nm: Nm
    width_nm: Annotated[int, Field(ge=1_000, le=20_000_000)]
    by_hand: bool = False


class Via(Frozen):
    """A plated hole that joins both sides; `by_hand` where a person set or kept it."""

    net: NetName
    x_nm: Nm
    y_nm: Nm
    by_hand: bool = False


class Wires(Frozen):
    """Tracks and vias of a board that a person drew or kept: the router leaves them as they lie."""

    tracks: tuple[Track, ...] = ()
    vias: tuple[Via, ...] = ()


class Routing(Frozen):
    """Tracks and vias; `open_links` are connections that could not be made, as (net, from, to)."""

    tracks: tuple[Track, ...]
    vias: tuple[Via, ...]
    open_links: tuple[tuple[str, str, str], ...] = ()
    workings: tuple[Working, ...] = ()


Ring = tuple[tuple[int, int], ...]


class PourPiece(Frozen):
    """One piece of a pour: its outer line and the holes in it, and its net."""

    far: bool
    outer: Ring
    holes: tuple[Ring, ...] = ()
    net: NetName = GROUND


class PourArea(Frozen):
    """An area of one side that a person wants poured with a net other than ground: its corners in
    nm.
    """

    net: NetName
    far: bool = False
    ring: Annotated[tuple[tuple[Nm, Nm], ...], Field(min_length=3, max_length=100)]


class PourChoice(Frozen):
    """What is to be poured beside ground: areas, of which the first has its way where two overlap,
    and whether tracks are led into round lands with a tear-drop.
    """

    areas: Annotated[tuple[PourArea, ...], Field(max_length=40)] = ()
    tear_drops: bool = False


GROUND_ALONE = PourChoice()


class Plane(Frozen):
    """An inner plane of a board with four layers: its net, and whether it is the one next to the
    far side.
    """

    net: NetName
    far: bool
    pieces: tuple[PourPiece, ...]


class Pour(Frozen):
    """Ground poured on both sides, and the vias added to stitch it; `areas` are pieces of other
    nets, inner planes where the board has four layers.
    """

    net: str
    pieces: tuple[PourPiece, ...]
    stitches: tuple[Via, ...]
    islands: int
    areas: tuple[PourPiece, ...] = ()
    planes: tuple[Plane, ...] = ()
    workings: tuple[Working, ...] = ()

"""The pieces of a stack."""

from dataclasses import dataclass, field
from typing import Literal

from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

Sort = Literal["part", "leads", "module", "screw head", "post", "loose", "wires"]


@dataclass(frozen=True)
class Piece:
    """A body in the device: what it is, the area that it covers (mm), from where to where it
    reaches (mm, z), and what a finding about it points at.

    `soft` bodies burn when they are pierced, `sharp` ones pierce; one that comes `through` a wall
    has a shoulder at `inside_mm`, which stays inside. `swell_mm` is what it may grow by with age,
    which is in `high_mm` already.
    """

    name: str
    words: str
    sort: Sort
    area: BaseGeometry
    low_mm: float
    high_mm: float
    far: bool
    thing: str = ""
    about: tuple[str, ...] = ()
    soft: bool = False
    sharp: bool = False
    through: bool = False
    inside_mm: float | None = None
    swell_mm: float = 0.0

    @property
    def shoulder_mm(self) -> float:
        """The outermost point that has to stay inside the shell."""
        outermost = self.low_mm if self.far else self.high_mm
        return outermost if self.inside_mm is None else self.inside_mm

    @property
    def height_mm(self) -> float:
        """From its lowest to its highest point."""
        return self.high_mm - self.low_mm


@dataclass(frozen=True)
class Walls:
    """The shell about a board: the room on both sides and how it was found, the thickness of its
    walls and the gap around the edge of the board, all in mm.
    """

    near_room_mm: float
    far_room_mm: float
    near_said: bool
    far_said: bool
    wall_mm: float
    side_gap_mm: float
    board_mm: float

    @property
    def near_mm(self) -> float:
        """Inside of the front wall."""
        return self.board_mm + self.near_room_mm

    @property
    def far_mm(self) -> float:
        """Inside of the back wall."""
        return -self.far_room_mm

    @property
    def whole_mm(self) -> float:
        """From the outside of the back to the outside of the front."""
        return self.near_room_mm + self.far_room_mm + self.board_mm + 2 * self.wall_mm


@dataclass(frozen=True)
class Gap:
    """How far two bodies, or a body and a wall, are apart in mm; less than nothing is how far they
    are in one another. `way` says in which direction, the place is where.
    """

    one: str
    other: str
    mm: float
    way: Literal["above each other", "side by side", "to the front wall", "to the back wall"]
    x_mm: float
    y_mm: float
    about: tuple[str, ...]
    least_mm: float


@dataclass(frozen=True)
class Stack:
    """A board with everything about it: its outline (mm), the walls, the pieces, the gaps from the
    tightest on, and the things of which nobody knows where they lie.
    """

    board: str
    outline: Polygon
    walls: Walls
    pieces: tuple[Piece, ...]
    gaps: tuple[Gap, ...]
    unplaced: tuple[str, ...] = field(default=())
    guessed: tuple[str, ...] = field(default=())

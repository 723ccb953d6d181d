"""The frame of a panel: rails along one direction, copies of the board between them, with
everything that a machine needs on the rails.

`u` runs along the rails, `v` across them; `at` gives the true place.
"""

from dataclasses import dataclass

from loquet.core.board import BoardView
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.panel.sides import Extent, Side, Span, extent_of, overhang
from loquet.core.quantities.lengths import MM

SLOT_NM, BODY_GAP_NM = 2 * MM, MM // 2
"""A slot is as wide as the usual mill; bodies that stand out keep half a millimetre from what comes
next. Common practice, no source.
"""
TOOLING_NM, TOOLING_IN_NM = 2 * MM, 4 * MM
MARK_NM, MARK_BARE_NM, MARK_IN_NM = MM, 2 * MM, 9 * MM
"""Tooling holes of 2 mm and round marks of 1 mm in a bare ring of 2 mm, so far from the ends of the
rails; common practice, no source.
"""
SHORTEST_NM = 2 * MARK_IN_NM + 6 * MM
Place = tuple[int, int]


@dataclass(frozen=True)
class Frame:
    """Rails below and above (`below`) or at the left and right; where copies start along and
    across, and how long and high the panel is, in nm.
    """

    below: bool
    rail: int
    extent: Extent
    along: tuple[int, ...]
    across: tuple[int, ...]
    length: int
    height: int

    @property
    def first(self) -> Side:
        """The side of a board that faces the first rail."""
        return "bottom" if self.below else "left"

    @property
    def last(self) -> Side:
        """The side of a board that faces the last rail."""
        return "top" if self.below else "right"

    @property
    def origin(self) -> Place:
        """The lowest u and v of the board in its own drawing."""
        e = self.extent
        return (e.left, e.bottom) if self.below else (e.bottom, e.left)

    @property
    def deep(self) -> int:
        """How far a board reaches across the rails."""
        return self.extent.at(self.last) - self.extent.at(self.first)

    @property
    def run(self) -> Span:
        """The run of the sides that face the rails, in the board's own drawing."""
        return self.extent.run(self.first)

    @property
    def rows(self) -> tuple[Span, ...]:
        """From where to where everything across reaches: the first rail, every row of boards, the
        last rail.
        """
        boards = ((v, v + self.deep) for v in self.across)
        return ((0, self.rail), *boards, (self.height - self.rail, self.height))

    def at(self, u: int, v: int) -> Place:
        """A place on the panel."""
        return (u, v) if self.below else (v, u)

    @property
    def size(self) -> Place:
        """Width and height of the panel."""
        return self.at(self.length, self.height)

    @property
    def copies(self) -> tuple[Place, ...]:
        """Where the origin of every copy lies, row by row."""
        u0, v0 = self.origin
        return tuple(self.at(u - u0, v - v0) for v in self.across for u in self.along)

    @property
    def tooling(self) -> tuple[Place, ...]:
        """The middles of the tooling holes, one at each end of each rail."""
        ends, middles = (TOOLING_IN_NM, self.length - TOOLING_IN_NM), self.rail_middles
        return tuple(self.at(u, v) for v in middles for u in ends)

    @property
    def marks(self) -> tuple[Place, ...]:
        """Three marks for the machine: at three corners alone, so that a panel that lies the wrong
        way round is noticed.
        """
        low, high = self.rail_middles
        first, last = MARK_IN_NM, self.length - MARK_IN_NM
        return self.at(first, low), self.at(last, low), self.at(first, high)

    @property
    def rail_middles(self) -> Place:
        """The middle lines of both rails."""
        return self.rail // 2, self.height - self.rail // 2


def frame_of(view: BoardView, choice: PanelChoice, below: bool) -> Frame:
    """The frame of a panel; its slots are closed where the boards are parted by score."""
    extent = extent_of(view)
    slotted = choice.by == "tabs"
    ranks, files = (choice.rows, choice.columns) if below else (choice.columns, choice.rows)
    upward = spaced(view, ("bottom", "top"), slotted)
    sideways = spaced(view, ("left", "right"), slotted)
    (first, between, last), (_, beside, _) = (upward, sideways) if below else (sideways, upward)
    tall, wide = extent.top - extent.bottom, extent.right - extent.left
    deep, broad = (tall, wide) if below else (wide, tall)
    rail = round(choice.rail_mm * MM)
    across = tuple(rail + first + i * (deep + between) for i in range(ranks))
    along = tuple(i * (broad + beside) for i in range(files))
    return Frame(
        below, rail, extent, along, across, along[-1] + broad, across[-1] + deep + last + rail
    )


def spaced(view: BoardView, sides: tuple[Side, Side], slotted: bool) -> tuple[int, int, int]:
    """The slots before a board, between two, and after one: as wide as the mill, wider where bodies
    stand out.
    """
    if not slotted:
        return 0, 0, 0
    low, high = (overhang(view, side) for side in sides)
    return tuple(  # type: ignore[return-value]
        max(SLOT_NM, out + BODY_GAP_NM if out else 0) for out in (low, low + high, high)
    )

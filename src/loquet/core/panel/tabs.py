"""Tabs: short bridges over a milled slot, each with a row of small holes along the board's edge,
where it is broken off.

Sizes are common practice, no source: 5 mm wide, six holes of 0.5 mm at 0.8 mm, so that webs of 0.3
mm stay between them.
"""

from dataclasses import dataclass

from loquet.core.panel.sides import Span

TAB_NM, HOLE_NM, PITCH_NM, HOLES = 5_000_000, 500_000, 800_000, 6
CLEAR_NM = 200_000
"""Copper keeps so far from a hole of a tab."""
TWO_FROM_NM = 25_000_000
"""A side as long as this is held by two tabs."""


@dataclass(frozen=True)
class Tab:
    """A bridge: its middle `u` along the slot, from `low` to `high` across it, and which of the two
    ends is a board's (the other may be a rail's).
    """

    u: int
    low: int
    high: int
    low_is_board: bool
    high_is_board: bool

    @property
    def span(self) -> Span:
        """From where to where it lies along the slot."""
        return self.u - TAB_NM // 2, self.u + TAB_NM // 2

    def bites(self, edge_nm: int) -> list[tuple[int, int]]:
        """The middles (u, v) of its holes at every end that is a board's; they reach into the board
        only as far as copper, which keeps `edge_nm` from its edge, stays clear of them.
        """
        out = HOLE_NM // 2 - max(0, edge_nm - CLEAR_NM)
        us = [self.u + (2 * i - HOLES + 1) * PITCH_NM // 2 for i in range(HOLES)]
        ends = [self.low + out] * self.low_is_board + [self.high - out] * self.high_is_board
        return [(u, v) for v in ends for u in us]


def tab_places(allowed: list[Span], run: Span) -> tuple[int, ...]:
    """The middles of the tabs of a side that runs so: two near its quarters, or one near the middle
    of a short one or where there is room for one alone; none where nothing is wide enough.
    """
    half = TAB_NM // 2
    fits = [(a + half, b - half) for a, b in allowed if b - a >= TAB_NM]
    if not fits:
        return ()
    length = run[1] - run[0]
    if length < TWO_FROM_NM:
        return (nearest(fits, run[0] + length // 2),)
    first = nearest(fits, run[0] + length // 4)
    second = nearest(fits, run[0] + 3 * length // 4)
    if second - first < 2 * TAB_NM:
        return (nearest(fits, run[0] + length // 2),)
    return first, second


def nearest(spans: list[Span], wanted: int) -> int:
    """The place in the spans that is nearest to a wanted one."""
    return min((min(max(wanted, a), b) for a, b in spans), key=lambda u: (abs(u - wanted), u))

"""Tracks for tests, from spot to spot in mm."""

from itertools import pairwise

from loquet.core.board import Track

MM = 1_000_000


def way(
    *spots: tuple[float, float],
    net: str = "A",
    width: float = 0.2,
    far: bool = False,
    drawn: bool = False,
) -> list[Track]:
    """One track for every step."""
    return [
        Track(
            net=net,
            far=far,
            x1_nm=round(a[0] * MM),
            y1_nm=round(a[1] * MM),
            x2_nm=round(b[0] * MM),
            y2_nm=round(b[1] * MM),
            width_nm=round(width * MM),
            by_hand=drawn,
        )
        for a, b in pairwise(spots)
    ]

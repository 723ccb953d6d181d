"""Ground pads that are soldered by hand hang on spokes, and on two at least."""

from collections import Counter
from collections.abc import Iterator

import shapely

from loquet.core.board.areas import areas_of
from loquet.core.board.copper import Copper
from loquet.core.board.model import Pour
from loquet.core.board.pouring import relieved, spokes_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Bar, gap_between
from loquet.core.provenance import NotApplicable, Outcome, Source

LEAST_SPOKES = 2
NEAR_NM = 20_000


def run(subject: Subject) -> Outcome:
    """Count the ends of the spokes of every through-hole ground pad that lie in the pour, on both
    sides together, and the ground tracks that reach it.
    """
    view = subject.view
    assert view is not None
    if view.pour is None:
        return NotApplicable("nothing is poured")
    pads = [p for p in view.pads if p.net == GROUND and p.drill_nm and relieved(p)]
    tracks = [w.shape for w in view.wiring if w.net == GROUND and isinstance(w.shape, Bar)]
    found = []
    for pad, ends, count in joined_spokes(pads, view.pour):
        count += sum(gap_between(pad.shape, track) <= 0 for track in tracks)
        if count < LEAST_SPOKES:
            found.append(
                RULE.finding(
                    f"{pad.owner} hangs on the ground by {count} of {2 * ends} spokes.",
                    "Make room around it.",
                    (f"part:{pad.ref}",),
                    pad.drill_x,
                    pad.drill_y,
                )
            )
    return outcome(found, len(pads))


def joined_spokes(pads: list[Copper], pour: Pour) -> Iterator[tuple[Copper, int, int]]:
    """Every pad with the ends of its spokes on one side, and how many of them lie in the pour on
    both.
    """
    ends = [
        [(x, y) for bar in spokes_of(pad.shape) for x, y in ((bar.x1, bar.y1), (bar.x2, bar.y2))]
        for pad in pads
    ]
    owners = [index for index, own in enumerate(ends) for _ in own]
    spots = shapely.STRtree([shapely.Point(spot) for own in ends for spot in own])
    pairs = spots.query(areas_of(pour.pieces), predicate="dwithin", distance=NEAR_NM).T.tolist()
    met = Counter(owners[end] for end, _ in {(e, pour.pieces[i].far) for i, e in pairs})
    for index, pad in enumerate(pads):
        yield pad, len(ends[index]), met[index]


RULE = Rule(
    "heat-relief",
    "board",
    "look",
    "A pad on one thin spoke breaks off, and its current has one way only.",
    Source(kind="common practice", text="two spokes of four at least; no source"),
    run,
    ("view",),
)

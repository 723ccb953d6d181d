"""No via lies in a pad that is soldered with paste."""

import shapely

from loquet.core.board.copper import BoardView, Copper
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygons_of
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the holes of all vias with all surface pads."""
    view = subject.view
    assert view is not None
    vias = [c for c in view.wiring if c.kind == "via"]
    pads = [p for p in view.pads if not p.drill_nm and not p.in_full]
    found = [
        RULE.finding(
            f"The hole of a via of {vias[v].net} opens in {pads[p].owner}: solder runs down it.",
            "Move the via off the pad.",
            (f"part:{pads[p].ref}", f"net:{vias[v].net}"),
            vias[v].drill_x,
            vias[v].drill_y,
        )
        for v, p in holes_in_pads(view, vias, pads)
    ]
    return outcome(found, len(vias))


def holes_in_pads(view: BoardView, vias: list[Copper], pads: list[Copper]) -> list[tuple[int, int]]:
    """Numbers of vias and of the pads that their holes cut."""
    if not vias or not pads:
        return []
    holes = shapely.buffer(
        shapely.points([(v.drill_x, v.drill_y) for v in vias]), view.rules.via_hole_nm / 2
    )
    tree = shapely.STRtree(polygons_of([p.shape for p in pads]))
    pairs = tree.query(holes, predicate="intersects").T.tolist()
    return [(int(v), int(p)) for v, p in pairs]


RULE = Rule(
    "vias-in-pads",
    "board",
    "look",
    "Solder that runs down a hole is missing at the joint.",
    Source(
        kind="common practice", text="open vias stay out of solder lands; IPC-7351B section 3.4"
    ),
    run,
    ("view",),
)

"""A side with fine pads has marks by which a placing machine finds it."""

from itertools import combinations
from math import hypot

from loquet.core.board import BoardView
from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import middle_of
from loquet.core.provenance import Outcome, Repair, Source

FINE_NM = 510_000
WANTED = 3


def run(subject: Subject) -> Outcome:
    """Look for pads half a millimetre apart, and count the marks of their side."""
    view = subject.view
    assert view is not None
    found = []
    for side in (NEAR, FAR):
        fine = fine_parts(view, side)
        marks = {c.ref for c in view.pads if c.bare_nm and side in c.sides}
        if not fine or len(marks) >= WANTED:
            continue
        board = view.board.name
        missing = [
            {"kind": "fiducial", "name": "fiducial", "board": board}
            for _ in range(WANTED - len(marks))
        ]
        add = Repair(
            label=f"Add {len(missing)} in the corners",
            edit={"kind": "paste-things", "things": missing},
        )
        one = len(fine) == 1
        found.append(
            RULE.finding(
                f"{', '.join(fine)} {'has' if one else 'have'} pads half a millimetre apart on the"
                f" {side} side, which has {len(marks)} of {WANTED} fiducials.",
                "Add them where a machine places the parts; by hand they are not needed.",
                tuple(f"part:{ref}" for ref in fine),
                repairs=(add,) if side == NEAR else (),
            )
        )
    return outcome(found, len(view.seats))


def fine_parts(view: BoardView, side: str) -> list[str]:
    """Parts of a side with pads half a millimetre apart or less, by reference."""
    found = []
    for ref, seat in sorted(view.seats.items()):
        pads = [p for p in view.patterns[ref].pads if not p.drill_nm]
        if (FAR if seat.far else NEAR) == side and any(
            a.number != b.number
            and hypot(
                middle_of(a.shape)[0] - middle_of(b.shape)[0],
                middle_of(a.shape)[1] - middle_of(b.shape)[1],
            )
            <= FINE_NM
            for a, b in combinations(pads, 2)
        ):
            found.append(ref)
    return found


RULE = Rule(
    "fiducials",
    "board",
    "note",
    "Without marks a machine finds the board by its edge, which is true to 0.2 mm at the best.",
    Source(kind="common practice", text="three marks a side where the pitch is 0.5 mm or less"),
    run,
    ("view",),
)

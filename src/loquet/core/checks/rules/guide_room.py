"""Around a control there is room for its guide."""

import shapely

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

GUIDE_MM = 0.8


def run(subject: Subject) -> Outcome:
    """Measure from the body of every control to whatever beside it is higher than its own body."""
    view = subject.view
    assert view is not None
    controls = {t.name for t in view.brief.group("controls") if t.board == view.board.name}
    rows = [c for c in view.circuit.components if c.thing in controls and pressed(subject, c.part)]
    if not rows:
        return NotApplicable("no control needs a guide")
    found = []
    beside = [c for c in view.circuit.components if c.thing not in controls]
    tree = shapely.STRtree([view.body(c.ref) for c in beside])
    for control in rows:
        body, seat = view.body(control.ref), view.seats[control.ref]
        near = tree.query(body, predicate="dwithin", distance=GUIDE_MM * MM)
        for other in (beside[index] for index in sorted(near.tolist())):
            there, away = view.seats[other.ref], body.distance(view.body(other.ref))
            high = view.heights_mm[other.ref] > view.heights_mm[control.ref]
            if there.far == seat.far and high and away < GUIDE_MM * MM:
                found.append(
                    RULE.finding(
                        f"{other.ref} ({other.purpose}) is higher than {control.ref} and stands"
                        f" {away / MM:.1f} mm beside it; a guide wants {GUIDE_MM:g} mm.",
                        f"Move {other.ref} away.",
                        (f"part:{other.ref}", thing(control.thing)),
                        there.x,
                        there.y,
                    )
                )
    return outcome(found, len(rows))


def pressed(subject: Subject, part: str) -> bool:
    """Whether a part is a button that a cap is guided over."""
    known = subject.library.parts.get(part)
    return known is not None and known.kind in ("button", "five-way")


RULE = Rule(
    "guide-room",
    "board",
    "look",
    "Without room for a guide beside it, a cap is loose and tilts.",
    Source(kind="common practice", text="a printed wall of 0.8 mm; no source"),
    run,
    ("view",),
)

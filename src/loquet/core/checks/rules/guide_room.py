"""Around a control there is room for its guide."""

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.geometry import polygon_of
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

GUIDE_MM = 0.8


def run(subject: Subject) -> Outcome:
    """Measure from the body of every control to whatever beside it is higher than its own body."""
    view = subject.view
    assert view is not None
    controls = {t.name for t in view.brief.group("controls") if t.board == view.board.name}
    bodies = {
        c.ref: polygon_of(view.seats[c.ref].shape(view.patterns[c.ref].body))
        for c in view.circuit.components
    }
    rows = [c for c in view.circuit.components if c.thing in controls and pressed(subject, c.part)]
    if not rows:
        return NotApplicable("no control needs a guide")
    found = []
    for control in rows:
        for other in view.circuit.components:
            if other.thing in controls or view.seats[other.ref].far != view.seats[control.ref].far:
                continue
            high = view.heights_mm[other.ref] > view.heights_mm[control.ref]
            away = bodies[control.ref].distance(bodies[other.ref])
            if high and away < GUIDE_MM * MM:
                seat = view.seats[other.ref]
                found.append(
                    RULE.finding(
                        f"{other.ref} ({other.purpose}) is higher than {control.ref} and stands {away / MM:.1f} mm beside it; a guide wants {GUIDE_MM:g} mm.",
                        f"Move {other.ref} away.",
                        (f"part:{other.ref}", thing(control.thing)),
                        seat.x,
                        seat.y,
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

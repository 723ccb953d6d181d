"""Test points can be reached from one side."""

import shapely

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.lookup.covers import covers_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look at the side of every test point, and at what stands over it."""
    view = subject.view
    assert view is not None
    points = [
        c
        for c in view.circuit.components
        if c.part in subject.library.parts and subject.library.parts[c.part].kind == "test point"
    ]
    if not points:
        return NotApplicable("there is no test point")
    far = [c for c in points if view.seats[c.ref].far]
    found = []
    if far and len(far) < len(points):
        names = ", ".join(c.ref for c in far)
        found.append(
            RULE.finding(
                f"{names} {'is' if len(far) == 1 else 'are'} on the far side, and the other test"
                " points on the near one.",
                "Put all on one side: the board is probed lying on its back.",
                tuple(f"part:{c.ref}" for c in far),
            )
        )
    covers = {c.thing: c for c in covers_of(view.brief, subject.library, view.board.name)}
    for point in points:
        seat = view.seats[point.ref]
        over = [
            name
            for name, cover in covers.items()
            if not seat.far and shapely.box(*cover.rect).intersects(view.body(point.ref))
        ]
        if over:
            found.append(
                RULE.finding(
                    f"{point.ref} ({point.purpose}) lies under '{over[0]}', where no probe"
                    " reaches.",
                    "Move it out from under it.",
                    (f"part:{point.ref}",),
                    seat.x,
                    seat.y,
                )
            )
    return outcome(found, len(points))


RULE = Rule(
    "probe-side",
    "board",
    "look",
    "A point that no probe reaches tests nothing.",
    Source(kind="common practice", text="test points on one side, in the open; no source"),
    run,
    ("view",),
)

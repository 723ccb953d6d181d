"""Nothing crosses a bare contact that a finger or a pill touches."""

from loquet.core.board.copper import FAR, NEAR
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygon_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look for vias and foreign tracks within the body of every contact field, on its side."""
    view = subject.view
    assert view is not None
    fields = [
        c
        for c in view.circuit.components
        if c.part.startswith("button-carbon") and c.ref in view.seats
    ]
    if not fields:
        return NotApplicable("no contact is bare")
    found = []
    for field in fields:
        seat = view.seats[field.ref]
        side = FAR if seat.far else NEAR
        body = view.body(field.ref)
        own = set(field.pads.values())
        for copper in view.wiring:
            foreign = copper.kind == "via" or copper.net not in own
            if side in copper.sides and foreign and polygon_of(copper.shape).intersects(body):
                place = polygon_of(copper.shape).intersection(body).representative_point()
                found.append(
                    RULE.finding(
                        f"A {copper.kind} of {copper.net} lies in the contact field of {field.ref} ({field.purpose}).",
                        "Lead it round the field.",
                        (f"part:{field.ref}", f"net:{copper.net}"),
                        place.x,
                        place.y,
                    )
                )
    return outcome(found, len(fields))


RULE = Rule(
    "bare-contacts",
    "board",
    "stop",
    "A pill presses on what lies in its field: it is worn through, or touches.",
    Source(
        kind="common practice",
        text="contact fields free of vias, foreign tracks, mask and legend; no source",
    ),
    run,
    ("view",),
)

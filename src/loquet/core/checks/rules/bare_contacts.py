"""Nothing crosses a bare contact that a finger or a pill touches."""

from loquet.core.board.areas import area_of
from loquet.core.board.copper import FAR
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygon_of
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look for vias and tracks in every field that is touched, and for what is poured on its
    side.
    """
    view = subject.view
    assert view is not None
    if not view.fields:
        return NotApplicable("no contact is bare")
    found = []
    for field in view.fields:
        disc = polygon_of(field.shape)
        own = {pad.net for pad in view.pads if pad.ref == field.ref}
        lying = [
            (c, polygon_of(c.shape))
            for c in view.wiring
            if c.sides[0] in field.sides or c.kind == "via"
        ]
        pools = [area_of(piece) for piece in view.poured if piece.far == (FAR in field.sides)]
        rows = [
            (f"A {copper.kind} of {copper.net}", copper.net, shape.intersection(disc))
            for copper, shape in lying
            if (copper.kind == "via" or copper.net not in own) and shape.intersects(disc)
        ]
        rows += [
            ("What is poured", "", pool.intersection(disc))
            for pool in pools
            if pool.intersects(disc)
        ]
        for words, net, where in rows:
            place = where.representative_point()
            found.append(
                RULE.finding(
                    f"{words} lies in the contact field of {field.ref}"
                    f" ({view.circuit.component(field.ref).purpose}).",
                    "Lead it round the field.",
                    (f"part:{field.ref}", *((f"net:{net}",) if net else ())),
                    place.x,
                    place.y,
                )
            )
    return outcome(found, len(view.fields))


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

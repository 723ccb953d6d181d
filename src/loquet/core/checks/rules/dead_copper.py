"""Every poured piece hangs on something."""

from loquet.core.board.areas import area_of
from loquet.core.board.islands import ground_of
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Find poured pieces in whose group there is no pad."""
    view = subject.view
    assert view is not None
    if view.pour is None:
        return NotApplicable("nothing is poured")
    ground = ground_of(view, view.pour.pieces, view.pour.stitches)
    held, first = ground.of_pads(), len(ground.copper) + ground.stitches
    found = []
    for index, piece in enumerate(view.pour.pieces, first):
        if ground.groups[index] not in held:
            spot = area_of(piece).representative_point()
            side = "far" if piece.far else "near"
            found.append(
                RULE.finding(
                    f"A piece of the pour on the {side} side hangs on nothing.",
                    "Pour again, or stitch it.",
                    (f"net:{view.pour.net}",),
                    spot.x,
                    spot.y,
                )
            )
    return outcome(found, len(view.pour.pieces))


RULE = Rule(
    "dead-copper",
    "board",
    "look",
    "Copper that hangs on nothing is an aerial.",
    Source(kind="computed", text="what touches what, from exact shapes"),
    run,
    ("view",),
)

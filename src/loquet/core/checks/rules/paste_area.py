"""Openings of the stencil let go of their paste."""

from collections import defaultdict

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import polygon_of
from loquet.core.provenance import Outcome, Source

STENCIL_NM, LEAST = 120_000, 0.66


def run(subject: Subject) -> Outcome:
    """Compare the area of every opening with the area of its walls, for a stencil of 0.12 mm."""
    view = subject.view
    assert view is not None
    pads = [p for p in view.pads if p.paste and not p.drill_nm]
    worst: dict[str, float] = defaultdict(lambda: 9.0)
    for pad in pads:
        area = polygon_of(pad.shape)
        worst[pad.ref] = min(worst[pad.ref], area.area / (area.length * STENCIL_NM))
    found = [
        RULE.finding(
            f"The smallest opening of {ref} has {ratio:.2f} of the area of its walls in a stencil"
            f" of 0.12 mm; below {LEAST:g} the paste stays in it.",
            "Order a thinner stencil, or solder this part by hand.",
            (f"part:{ref}",),
            view.seats[ref].x,
            view.seats[ref].y,
        )
        for ref, ratio in sorted(worst.items())
        if ratio < LEAST
    ]
    return outcome(found, len(pads))


RULE = Rule(
    "paste-area",
    "board",
    "look",
    "Paste that stays in the stencil is missing at the pad.",
    Source(kind="standard", text="IPC-7525B, area ratio above 0.66; from memory"),
    run,
    ("view",),
)

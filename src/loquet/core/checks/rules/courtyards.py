"""Parts keep their courtyards to themselves, and stay on the board."""

from itertools import combinations

import shapely

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.parts.patterns import extent
from loquet.core.placement.seating import courtyard_rect
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare all courtyards of the same side, and each with the outline."""
    view = subject.view
    assert view is not None
    found = []
    rects = [
        (ref, seat.far, courtyard_rect(view.patterns[ref], seat))
        for ref, seat in sorted(view.seats.items())
    ]
    for (a, far_a, ra), (b, far_b, rb) in combinations(rects, 2):
        overlap_x, overlap_y = (
            min(ra[2], rb[2]) - max(ra[0], rb[0]),
            min(ra[3], rb[3]) - max(ra[1], rb[1]),
        )
        if far_a == far_b and overlap_x > 0 and overlap_y > 0:
            names = f"{a} ({purpose(subject, a)}) and {b} ({purpose(subject, b)})"
            place = (max(ra[0], rb[0]) + overlap_x / 2, max(ra[1], rb[1]) + overlap_y / 2)
            found.append(
                RULE.finding(
                    f"The courtyards of {names} overlap.",
                    f"Move {b} at least {min(overlap_x, overlap_y) / 1e6:.2f} mm away.",
                    (f"part:{a}", f"part:{b}"),
                    *place,
                )
            )
    pad_edge = view.outline.buffer(-view.rules.edge_nm + 1)
    for pad in view.pads:
        x1, y1, x2, y2 = extent(pad.shape)
        if not pad_edge.contains(shapely.box(x1, y1, x2, y2)):
            found.append(
                RULE.finding(
                    f"{pad.owner} ({purpose(subject, pad.ref)}) is too near the board's edge or beyond it.",
                    "Move it inwards.",
                    (f"part:{pad.ref}",),
                    (x1 + x2) / 2,
                    (y1 + y2) / 2,
                )
            )
    return outcome(found, len(rects))


def purpose(subject: Subject, ref: str) -> str:
    """What a part is for, in lower case."""
    assert subject.circuit is not None
    text = subject.circuit.component(ref).purpose
    return text[0].lower() + text[1:]


RULE = Rule(
    "courtyards",
    "board",
    "stop",
    "Parts that overlap cannot be soldered.",
    Source(kind="standard", text="IPC-7351B courtyards"),
    run,
    ("view", "circuit"),
)

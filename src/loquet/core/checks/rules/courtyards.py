"""Parts keep their courtyards to themselves, and stay on the board."""

from functools import partial
from itertools import product

import shapely
from shapely.geometry.base import BaseGeometry

from loquet.core.board import BoardView
from loquet.core.board.copper import Copper
from loquet.core.board.openings import kept_free
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.geometry import middle_of, polygon_of
from loquet.core.plain.remembering import Remembered
from loquet.core.provenance import Outcome, Source

LEAST_NM2 = 1e6
OVER: Remembered[tuple[Copper, ...]] = Remembered(4096)
INNER: Remembered[BaseGeometry] = Remembered(64)


def run(subject: Subject) -> Outcome:
    """Compare all courtyards of the same side, and each with the outline."""
    view = subject.view
    assert view is not None
    found = []
    yards = [(ref, seat.far, view.courtyard(ref)) for ref, seat in sorted(view.seats.items())]
    shapes = [yard for _, _, yard in yards]
    touching = sorted(shapely.STRtree(shapes).query(shapes, "intersects").T.tolist())
    for (a, far_a, ya), (b, far_b, yb) in ((yards[i], yards[j]) for i, j in touching if i < j):
        shared = ya.intersection(yb) if far_a == far_b else None
        if shared is not None and shared.area > LEAST_NM2:
            left, bottom, right, top = shared.bounds
            names = f"{a} ({purpose(subject, a)}) and {b} ({purpose(subject, b)})"
            found.append(
                RULE.finding(
                    f"The courtyards of {names} overlap.",
                    f"Move {b} at least {min(right - left, top - bottom) / 1e6:.2f} mm away.",
                    (f"part:{a}", f"part:{b}"),
                    shared.centroid.x,
                    shared.centroid.y,
                )
            )
    for (ref, far, yard), area in product(yards, kept_free(view.brief, view.board)):
        barred = area.bars(far, view.heights_mm[ref])
        if barred and yard.intersection(area.area).area > LEAST_NM2:
            found.append(
                RULE.finding(
                    f"{ref} ({purpose(subject, ref)}) stands in '{area.thing}', which is kept free"
                    f" of {area.words}.",
                    "Move one of them.",
                    (f"part:{ref}",),
                    area.area.centroid.x,
                    area.area.centroid.y,
                )
            )
    for pads in view.pads_by_part:
        for pad in OVER.of(
            (pads, view.outline), partial(over_edge, view, pads), f"{view.rules.edge_nm}"
        ):
            found.append(
                RULE.finding(
                    f"{pad.owner} ({purpose(subject, pad.ref)}) is too near the board's edge or"
                    " beyond it.",
                    "Move it inwards.",
                    (f"part:{pad.ref}",),
                    *middle_of(pad.shape),
                )
            )
    return outcome(found, len(yards))


def over_edge(view: BoardView, pads: tuple[Copper, ...]) -> tuple[Copper, ...]:
    """Those pads of a part that do not keep their distance from the edge."""
    inset = 1 - view.rules.edge_nm
    inner = INNER.of((view.outline,), lambda: view.outline.buffer(inset), f"{inset}")
    return tuple(pad for pad in pads if not inner.contains(polygon_of(pad.shape)))


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

"""No pin comes out under the body of a part on the other side."""

from itertools import product

from loquet.core.board.through import pins_under
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare all pins with all bodies of the other side."""
    view, circuit = subject.view, subject.circuit
    assert view is not None
    assert circuit is not None
    found = []
    seats = sorted(view.seats.items())
    pinned = [
        (ref, seat)
        for ref, seat in seats
        if view.patterns[ref].holes or any(p.drill_nm for p in view.patterns[ref].pads)
    ]
    high = [(ref, seat) for ref, seat in seats if view.heights_mm[ref]]
    for (ref, seat), (over, over_seat) in product(pinned, high):
        if seat.far == over_seat.far:
            continue
        spots = pins_under(view.patterns[ref], seat, view.patterns[over], over_seat)
        if spots:
            word = "pin" if any(p.drill_nm for p in view.patterns[ref].pads) else "peg"
            pins = f"a {word}" if len(spots) == 1 else f"{len(spots)} {word}s"
            found.append(
                RULE.finding(
                    f"{ref} ({circuit.component(ref).purpose}) has {pins} coming out under {over}"
                    f" ({circuit.component(over).purpose}) on the other side.",
                    "Move one of them, or take a part that is soldered on the surface.",
                    (f"part:{ref}", f"part:{over}"),
                    *spots[0],
                )
            )
    return outcome(found, len(seats))


RULE = Rule(
    "pins-through",
    "board",
    "stop",
    "A pin stands out a millimetre: the part over it lies askew, and next to a cell it is a"
    " danger.",
    Source(kind="common practice", text="trimmed pins stand out 0.5 to 1.5 mm; IPC-A-610"),
    run,
    ("view", "circuit"),
)

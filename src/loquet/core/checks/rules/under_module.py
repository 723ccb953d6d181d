"""What stands under a module on its header is low."""

import shapely

from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.lookup.covers import covers_of
from loquet.core.placement.rooms import LOW_MM
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Compare the heights of all parts under every module with the room that its header leaves."""
    view = subject.view
    assert view is not None
    covers = covers_of(view.brief, subject.library, view.board.name)
    if not covers:
        return NotApplicable("no module hangs over the board")
    found, looked = [], 0
    for cover in covers:
        area = shapely.box(*cover.rect)
        for component in view.circuit.components:
            seat = view.seats[component.ref]
            body = view.body(component.ref)
            if seat.far or component.thing == cover.thing or not area.intersects(body):
                continue
            looked += 1
            height = view.heights_mm[component.ref]
            if height > LOW_MM:
                found.append(
                    RULE.finding(
                        f"{component.ref} ({component.purpose}) is {height:.1f} mm high and stands"
                        f" under '{cover.thing}', where {LOW_MM:g} mm are free.",
                        "Move it out from under the module, or take a lower part.",
                        (f"part:{component.ref}", thing(cover.thing)),
                        seat.x,
                        seat.y,
                    )
                )
    return outcome(found, looked)


RULE = Rule(
    "under-module",
    "board",
    "stop",
    "The module does not go into its header, or bends.",
    Source(kind="common practice", text="2 mm under a module on a plain header; no source"),
    run,
    ("view",),
)

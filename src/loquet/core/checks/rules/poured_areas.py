"""Every area that a person wants poured holds copper of its net."""

import shapely

from loquet.core.board.areas import areas_of, drawn_area
from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Look for poured pieces of the net in every area that was drawn."""
    view = subject.view
    assert view is not None
    wanted = view.pour_choice.areas
    if not wanted or view.pour is None:
        return NotApplicable("nothing but ground is to be poured")
    pieces = list(zip(view.pour.areas, areas_of(view.pour.areas), strict=True))
    found = []
    for area in wanted:
        drawn = drawn_area(area)
        own = [a for p, a in pieces if p.net == area.net and p.far == area.far]
        if not shapely.intersects(drawn, own).any():
            side = "far" if area.far else "near"
            found.append(
                RULE.finding(
                    f"The area drawn for {area.net} on the {side} side holds no copper: nothing of"
                    " that net lies in it, or there is no room.",
                    "Draw it over pads of its net, or take it out.",
                    (f"net:{area.net}",),
                    drawn.centroid.x,
                    drawn.centroid.y,
                )
            )
    return outcome(found, len(wanted))


RULE = Rule(
    "poured-areas",
    "board",
    "look",
    "Who drew it counts on the copper for current or for heat.",
    Source(kind="computed", text="exact polygons of the pour"),
    run,
    ("view",),
)

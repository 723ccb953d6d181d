"""Ports stand at the edge with their mating side out."""

import shapely

from loquet.core.brief.module_sockets import module_sockets
from loquet.core.checks.rule import Rule, Subject, outcome, thing
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

MOST_MM = 1.0


def run(subject: Subject) -> Outcome:
    """Measure from the body of every port to the edge of the board, along the way that its plug
    comes.
    """
    view = subject.view
    assert view is not None
    ports = {t.name: t for t in view.brief.on(view.board.name) if t.EDGE and t.bodies()}
    sockets = module_sockets(view.brief)
    rows = [
        c
        for c in view.circuit.components
        if (c.thing in ports and c.role == ports[c.thing].role(ports[c.thing].bodies()[0].piece))
        or (c.is_chip and c.thing in sockets and subject.library.plug(c.part))
    ]
    if not rows:
        return NotApplicable("no port has a plug at the edge")
    line = view.outline.boundary
    found = []
    for component in rows:
        seat, body = view.seats[component.ref], view.patterns[component.ref].body
        face = shapely.LineString(
            [
                seat.point(body.x - body.w // 4, body.y - body.h // 2),
                seat.point(body.x + body.w // 4, body.y - body.h // 2),
            ]
        )
        away = face.distance(line) if view.outline.contains(face) else 0.0
        if away > MOST_MM * MM:
            found.append(
                RULE.finding(
                    f"The mating side of {component.ref} ({component.purpose}) lies {away / MM:.1f}"
                    " mm inside the edge.",
                    "Move it to the edge and turn its mating side out.",
                    (thing(component.thing), f"part:{component.ref}"),
                    seat.x,
                    seat.y,
                )
            )
    return outcome(found, len(rows))


RULE = Rule(
    "port-at-edge",
    "board",
    "look",
    "A plug does not reach into a socket behind the edge of the board and the wall of the shell.",
    Source(kind="common practice", text="sockets flush with the edge; drawings of their makers"),
    run,
    ("view",),
)

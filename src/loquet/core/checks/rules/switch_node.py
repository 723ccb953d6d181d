"""The net that jumps between coil and switch is short, wide and on one side."""

from math import hypot

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.provenance import NotApplicable, Outcome, Source
from loquet.core.quantities.lengths import MM

LONGEST_MM, NARROWEST_MM, NECK_MM = 10.0, 0.4, 1.5


def run(subject: Subject) -> Outcome:
    """Measure the tracks of every such net."""
    view = subject.view
    assert view is not None
    nets = [net for net in view.circuit.nets if net.kind == "switched"]
    if not nets or view.routing is None:
        return NotApplicable("no converter switches on this board")
    found = []
    for net in nets:
        tracks = [t for t in view.routing.tracks if t.net == net.name]
        vias = sum(via.net == net.name for via in view.routing.vias)
        long = sum(hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) for t in tracks) / MM
        narrow = [t for t in tracks if t.width_nm < NARROWEST_MM * MM]
        neck = sum(hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) for t in narrow) / MM
        faults = [f"goes over {vias} vias"] if vias else []
        faults += [f"is {long:.1f} mm long"] if long > LONGEST_MM else []
        faults += [f"is thin over {neck:.1f} mm"] if neck > NECK_MM else []
        if faults:
            place = tracks[0] if tracks else None
            found.append(
                RULE.finding(
                    f"{net.name} jumps with every stroke of its converter, and "
                    f"{' and '.join(faults)}.",
                    "Turn the coil towards the converter, and draw it short and wide on one side.",
                    (f"net:{net.name}",),
                    place.x1_nm if place else None,
                    place.y1_nm if place else None,
                )
            )
    return outcome(found, len(nets))


RULE = Rule(
    "switch-node",
    "board",
    "look",
    "A long thin switch node is an aerial, and heats where it is thin.",
    Source(kind="common practice", text="layout guides of converters; no source for the figures"),
    run,
    ("view",),
)

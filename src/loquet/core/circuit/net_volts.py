"""The highest volts that a net can come to: those of the sources and rails that reach it without a
converter between.
"""

from collections.abc import Mapping

from loquet.core.brief import Brief
from loquet.core.circuit.backfeed import ONE_WAY, TURNED_ROUND, edges_of, origins_of, walk
from loquet.core.circuit.model import Circuit
from loquet.core.parts import Part
from loquet.core.power import rails_of

CONVERTERS = (TURNED_ROUND | ONE_WAY) - {"ideal diode"}


def highest_volts(circuit: Circuit, brief: Brief, parts: Mapping[str, Part]) -> dict[str, float]:
    """By net, in V; a net that no source and no rail reaches is not there."""
    known = [c for c in circuit.components if c.part in parts]
    edges = [
        edge
        for component in known
        if parts[component.part].kind not in CONVERTERS
        for edge in edges_of(component, parts[component.part])
    ]
    things = {thing.name: thing for thing in brief.things}
    starts = [(rail.net, rail.fresh_v) for rail in rails_of(brief)]
    for origin in origins_of(circuit.components, parts):
        volts = things[origin.thing].plug_v() if origin.thing in things else 0.0
        starts.append((origin.net, volts))
    found: dict[str, float] = {}
    for net, volts in starts:
        for reached in walk(net, edges):
            found[reached] = max(found.get(reached, 0.0), volts)
    return found

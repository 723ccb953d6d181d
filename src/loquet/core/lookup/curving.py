"""The curves of a design: what nodal analysis answers about its circuit, with its rails and sources
at hand.
"""

from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.circuit.nodal import Curve, curves_of
from loquet.core.library import Library
from loquet.core.power import rails_of


def curves_for(brief: Brief, circuit: Circuit, library: Library) -> tuple[Curve, ...]:
    """Every curve of a circuit; raises NodalError."""
    rails = rails_of(brief)
    sources = [s.fresh_v for thing in brief.things if (s := thing.source()) is not None]
    highest = max([*sources, *(rail.fresh_v for rail in rails)])
    return curves_of(circuit, library.parts, rails, highest)

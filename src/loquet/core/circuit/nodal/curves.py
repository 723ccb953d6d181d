"""Questions about a circuit that nodal analysis answers, each as a curve beside the figure that it
proves.
"""

from collections.abc import Mapping, Sequence

from loquet.core.circuit.model import Circuit
from loquet.core.circuit.nodal.dividing import dividers
from loquet.core.circuit.nodal.filtering import filters
from loquet.core.circuit.nodal.known import Curve, Known
from loquet.core.circuit.nodal.laddering import ladders
from loquet.core.circuit.nodal.starting import resets, rising
from loquet.core.parts import Part
from loquet.core.power import Rail


def curves_of(
    circuit: Circuit, parts: Mapping[str, Part], rails: Sequence[Rail], highest_v: float
) -> tuple[Curve, ...]:
    """Dividers, low passes, resets, rails at power-up and ladders of a circuit; `highest_v` is the
    most that any source gives.
    """
    known = Known(circuit, parts, rails, highest_v)
    return tuple(
        curve for ask in (dividers, filters, resets, rising, ladders) for curve in ask(known)
    )

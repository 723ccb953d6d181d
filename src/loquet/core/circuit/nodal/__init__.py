"""Nodal analysis of a netlist: volts at rest, over frequency, and after a step."""

from loquet.core.circuit.nodal.curves import curves_of
from loquet.core.circuit.nodal.known import Axis, Curve

__all__ = ["Axis", "Curve", "curves_of"]

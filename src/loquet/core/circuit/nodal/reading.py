"""The elements of a netlist: what of its parts nodal analysis knows."""

from collections.abc import Iterable, Mapping

from loquet.core.circuit.model import Component
from loquet.core.circuit.nodal.solving import Element
from loquet.core.parts import Part
from loquet.core.quantities.shown import read_si

UNITS = {"resistor": "Ω", "capacitor": "F", "inductor": "H"}
CLOSED_OHM = 0.05


def element_of(component: Component, parts: Mapping[str, Part]) -> Element | None:
    """A resistor, capacitor or inductor with its value; nothing for anything else, or for a value
    that cannot be read.
    """
    part = parts.get(component.part)
    unit = UNITS.get(part.kind) if part else None
    nets = tuple(component.pads.values())
    value = read_si(component.value, unit) if unit else None
    if not value or len(nets) != 2 or nets[0] == nets[1]:
        return None
    return Element(part.kind, *nets, value)  # type: ignore[union-attr, arg-type]


def elements_of(components: Iterable[Component], parts: Mapping[str, Part]) -> list[Element]:
    """All elements of a circuit; chips, switches and diodes are taken as open."""
    found = (element_of(component, parts) for component in components)
    return [element for element in found if element is not None]


def pressed(component: Component) -> list[Element]:
    """A key that is held: its nets joined."""
    nets = sorted(set(component.pads.values()))
    return [Element("resistor", nets[0], net, CLOSED_OHM) for net in nets[1:]]

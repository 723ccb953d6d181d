"""A curve, and what is known of the circuit that it is about."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from loquet.core.circuit.model import GROUND, Circuit, Component
from loquet.core.circuit.nodal.reading import element_of, elements_of
from loquet.core.circuit.nodal.solving import Element
from loquet.core.parts import Part
from loquet.core.plain.frozen import Frozen
from loquet.core.power import Rail

POINTS = 61
Row = tuple[Component, Element]


class Axis(Frozen):
    """A quantity with its unit; `log` axes are drawn by decades."""

    title: str
    unit: str
    log: bool = False


class Curve(Frozen):
    """A curve: the block and the parts it is about, its axes, its points, the point that matters
    with its words, what it assumes, and the figure it proves.
    """

    id: str
    block: str
    board: str
    title: str
    parts: tuple[str, ...]
    across: Axis
    up: Axis
    points: tuple[tuple[float, float], ...]
    mark: tuple[float, float]
    says: str
    assumes: str
    working: str = ""


@dataclass(frozen=True)
class Known:
    """A circuit with its parts, its rails, and the highest volts of any source."""

    circuit: Circuit
    parts: Mapping[str, Part]
    rails: Sequence[Rail]
    highest_v: float

    @cached_property
    def elements(self) -> list[Element]:
        """All resistors, capacitors and inductors."""
        return elements_of(self.circuit.components, self.parts)

    @cached_property
    def supply(self) -> frozenset[str]:
        """Nets of supplies."""
        return frozenset(n.name for n in self.circuit.nets if n.kind == "supply")

    @property
    def rail_v(self) -> float:
        """Usual volts of the first rail."""
        return self.rails[0].usual_v

    def most_v(self, net: str) -> float:
        """The highest volts of a supply net: of its rail, or of any source."""
        return next((rail.fresh_v for rail in self.rails if rail.net == net), self.highest_v)

    def around(self, *held: str) -> list[Element]:
        """All elements, with every supply but the held nets at a steady 0 V, as a sine sees
        them.
        """
        still = sorted(self.supply - set(held))
        return [*self.elements, *(Element("source", net, GROUND, 0.0) for net in still)]

    def of_kind(self, kind: str) -> list[Row]:
        """Components of a kind with their elements."""
        found = ((c, element_of(c, self.parts)) for c in self.circuit.components)
        return [(c, e) for c, e in found if e is not None and e.kind == kind]


def other_end(element: Element, net: str) -> str:
    """The net at the other end of an element."""
    return element.second if element.first == net else element.first


def to_ground(element: Element) -> bool:
    """Whether an element goes to ground."""
    return GROUND in (element.first, element.second)


def on(rows: Iterable[Row], net: str) -> list[Row]:
    """Those that are on a net."""
    return [row for row in rows if net in (row[1].first, row[1].second)]

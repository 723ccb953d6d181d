"""How a component looks on a sheet: two ends with a symbol, a switch with three legs, or a box with
its pins.
"""

from collections.abc import Iterable
from dataclasses import dataclass

from loquet.core.circuit.model import GROUND, Circuit, Component
from loquet.core.library import Library
from loquet.core.parts import pattern_of
from loquet.core.parts.land import pad_order
from loquet.core.sheets.symbols import FIRST_ENDS, SYMBOLS

BESIDE = ("can", "hold", "shell", "frame")
LEGS = {
    ("base", "collector", "emitter"): "npn",
    ("drain", "gate", "source"): "field effect",
}


@dataclass(frozen=True)
class Row:
    """Pads of one name on one net, shown as one pin."""

    pads: tuple[str, ...]
    name: str
    net: str


@dataclass(frozen=True)
class Face:
    """A component with its pins as rows; `ends` are the rows at a two-ended symbol's first and
    second end, `beside` what hangs on its body.
    """

    component: Component
    symbol: str
    rows: tuple[Row, ...]
    open: tuple[tuple[str, str], ...]
    ends: tuple[Row, Row] | None = None
    beside: tuple[Row, ...] = ()
    near: str = ""

    @property
    def ref(self) -> str:
        """Its reference."""
        return self.component.ref

    @property
    def plug(self) -> bool:
        """Whether it is a connector, whose pins all stand on one side."""
        return self.ref.startswith(("J", "X"))


def names_of(component: Component, library: Library) -> tuple[str, dict[str, str], list[str]]:
    """The kind of a part, the names of its pads, and all numbers that it has."""
    if component.is_chip:
        chip = library.find_chip(component.part[5:])
        names = {pin.number: pin.name for pin in chip.pins}
        return "chip", names, sorted({*names, *component.pads}, key=pad_order)
    part = library.parts[component.part]
    numbers = {pad.number for pad in pattern_of(part.body).pads} - {""}
    kind = "schottky" if part.kind == "diode" and "chottky" in part.description else part.kind
    return kind, part.pin_names, sorted(numbers | set(component.pads), key=pad_order)


def rows_of(component: Component, names: dict[str, str]) -> tuple[Row, ...]:
    """Its connected pads, those of one name on one net together, in the order of their numbers."""
    found: dict[tuple[str, str], list[str]] = {}
    for pad in sorted(component.pads, key=pad_order):
        found.setdefault((names.get(pad, ""), component.pads[pad]), []).append(pad)
    return tuple(Row(tuple(pads), name, net) for (name, net), pads in found.items())


def face_of(component: Component, library: Library) -> Face:
    """How a component is drawn."""
    kind, names, numbers = names_of(component, library)
    rows = rows_of(component, names)
    left = tuple((n, names.get(n, "")) for n in numbers if n not in component.pads)
    legs = LEGS.get(tuple(sorted(row.name for row in rows)))  # type: ignore[arg-type]
    if legs:
        return Face(component, legs, rows, left)
    if kind in SYMBOLS:
        beside = tuple(row for row in rows if row.name in BESIDE)
        ends = joined([row for row in rows if row.name not in BESIDE])
        if len(ends) == 2:
            first, second = sorted(ends, key=lambda row: row.name not in FIRST_ENDS)
            return Face(component, kind, rows, left, (first, second), beside)
    return Face(component, "box", rows, left)


def joined(rows: Iterable[Row]) -> list[Row]:
    """Rows of one net together, such as the joined legs of a button."""
    found: dict[str, Row] = {}
    for row in rows:
        old = found.get(row.net)
        found[row.net] = Row(old.pads + row.pads, old.name, row.net) if old else row
    return list(found.values())


@dataclass(frozen=True)
class Nets:
    """What is known of the nets of a circuit: which are ground or supply, and how many pads each
    has.
    """

    ground: frozenset[str]
    supply: frozenset[str]
    pads: dict[str, int]

    def rail(self, net: str) -> bool:
        """Whether a net is ground or supply."""
        return net in self.ground or net in self.supply


def nets_of(circuit: Circuit) -> Nets:
    """The nets of a circuit by their kind."""
    return Nets(
        ground=frozenset(n.name for n in circuit.nets if n.kind == "ground") | {GROUND},
        supply=frozenset(n.name for n in circuit.nets if n.kind == "supply"),
        pads={n.name: len(n.pads) for n in circuit.nets},
    )

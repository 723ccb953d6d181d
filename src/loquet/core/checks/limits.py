"""The volts that the parts of a circuit run on, each with the net that feeds it."""

from dataclasses import dataclass

from loquet.core.brief import Brief
from loquet.core.circuit import Circuit, Component
from loquet.core.library import Library
from loquet.core.parts.screen import ScreenModule
from loquet.core.parts.terminal import way

SUPPLY = "supply"


@dataclass(frozen=True)
class Limits:
    """A part with the net of its supply pin, its least and highest volts, and where they are
    from.
    """

    component: Component
    net: str
    least_v: float
    most_v: float
    origin: str


def limits_on(circuit: Circuit, brief: Brief, library: Library) -> tuple[Limits, ...]:
    """All parts and modules whose limits are known and that have a supply pin."""
    modules = {
        thing.role(): library.screens[display.part]
        for thing in brief.things
        if (display := thing.display()) is not None and display.part in library.screens
    }
    rows = (limits_of(c, modules.get(c.role), library) for c in circuit.components)
    return tuple(row for row in rows if row is not None)


def limits_of(component: Component, module: ScreenModule | None, library: Library) -> Limits | None:
    """The limits of a part, or of the module in its header."""
    if module is not None:
        header = library.parts[component.part]
        entry = way(module.pins.index(SUPPLY) + 1)
        net = component.pads.get(header.pad(entry), "") if entry in header.terminals else ""
        return Limits(component, net, *module.supply_v, module.evidence_text)
    part = library.parts.get(component.part)
    if part is None or "input_min_v" not in part.values:
        return None
    pad = part.pad(SUPPLY) if SUPPLY in part.terminals else ""
    volts = part.figure("input_min_v"), part.figure("input_max_v")
    net = component.pads.get(pad, "")
    return Limits(component, net, *volts, part.evidence_text) if net else None

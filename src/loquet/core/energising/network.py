"""The network of a device: every part as what its terminals do."""

from collections.abc import Iterable, Iterator, Mapping

from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.energising.device import PASSIVE, At, Device, Spot
from loquet.core.energising.elements import Draw, Element, Network
from loquet.core.energising.feeds import fed, from_outside
from loquet.core.energising.passives import passive
from loquet.core.energising.pins import driven
from loquet.core.energising.semiconductors import semiconductor


def lead_at(device: Device) -> At:
    """The node of every lead of a device without a fault: its net."""
    pads = {c.ref: c.pads for c in device.circuit.components}
    return lambda ref, pad: pads[ref][pad]


def network_of(
    device: Device,
    at: At | None = None,
    gone: frozenset[str] = frozenset(),
    scaled: Mapping[str, float] | None = None,
    extra: Iterable[Element] = (),
) -> Network:
    """The network of a device: `at` names the node of a lead, parts that are `gone` are left out,
    values are `scaled`, `extra` is put in as well.
    """
    found, at = Network(GROUND), at or lead_at(device)
    found.add(*extra)
    for component in device.circuit.components:
        if component.ref not in gone:
            scale = (scaled or {}).get(component.ref, 1.0)
            found.add(*elements_of(Spot(device, component, at, scale)))
    found.add(*loads(device, at, gone), *from_outside(device))
    return found


def elements_of(spot: Spot) -> Iterator[Element]:
    """What one part is."""
    yield from passive(spot)
    yield from semiconductor(spot)
    yield from fed(spot)
    yield from driven(spot)


def loads(device: Device, at: At, gone: frozenset[str]) -> Iterator[Element]:
    """What every thing draws, at the first of its parts that has its rail and ground: while it
    waits, unless a state says otherwise.
    """
    rails = {row.rail.name: row.rail for row in device.made}
    for load in device.loads:
        rail = rails.get(load.rail)
        component = taker(device, load.thing, rail.net, gone) if rail is not None else None
        if rail is None or component is None:
            continue
        pads = {net: pad for pad, net in reversed(component.pads.items())}
        ends = at(component.ref, pads[rail.net]), at(component.ref, pads[GROUND])
        amperes = load.currents.idle / 1000
        yield Draw(*ends, amperes, rail.usual_v, component.ref, name=load.thing)


def taker(device: Device, thing: str, net: str, gone: frozenset[str]) -> Component | None:
    """The part at which a thing takes its current."""
    for component in device.circuit.components:
        own = component.thing == thing and component.ref not in gone
        nets = component.pads.values()
        if own and device.kind(component) not in PASSIVE and net in nets and GROUND in nets:
            return component
    return None

"""The network of a device: every part as what its terminals do."""

from collections.abc import Iterable, Iterator, Mapping

from loquet.core.circuit import Component
from loquet.core.circuit.model import GROUND
from loquet.core.energising.conditions import BY_DUTY
from loquet.core.energising.device import PASSIVE, At, Device, Spot
from loquet.core.energising.elements import Draw, Element, Network
from loquet.core.energising.feeds import CONVERTERS, fed, from_outside
from loquet.core.energising.passives import passive
from loquet.core.energising.pins import driven
from loquet.core.energising.semiconductors import semiconductor
from loquet.core.plain.remembering import Remembered

GOOD: Remembered[dict[str, tuple[Element, ...]]] = Remembered(8)


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
    values are `scaled`, `extra` is put in as well. Parts to which nothing of this happens are
    worked out once for a device.
    """
    found, usual = Network(GROUND), lead_at(device)
    found.add(*extra)
    good = GOOD.of((device,), lambda: good_elements(device))
    for component in device.circuit.components:
        ref = component.ref
        if ref in gone:
            continue
        scale = (scaled or {}).get(ref, 1.0)
        moved = at is not None and any(at(ref, pad) != net for pad, net in component.pads.items())
        if scale == 1.0 and not moved and not (looks_around(device, component) and scaled):
            found.add(*good[ref])
        else:
            spot = Spot(device, component, at or usual, scale, scaled or {})
            found.add(*elements_of(spot))
    at = at or usual
    found.add(*loads(device, at, gone), *from_outside(device))
    return found


def good_elements(device: Device) -> dict[str, tuple[Element, ...]]:
    """What every part of a device without a fault is, by reference."""
    at = lead_at(device)
    return {c.ref: tuple(elements_of(Spot(device, c, at))) for c in device.circuit.components}


def looks_around(device: Device, component: Component) -> bool:
    """Whether what a part is depends on the values of others, as of its divider."""
    return device.kind(component) in (*CONVERTERS, "charger")


def elements_of(spot: Spot) -> Iterator[Element]:
    """What one part is."""
    yield from passive(spot)
    yield from semiconductor(spot)
    yield from fed(spot)
    yield from driven(spot)


def loads(device: Device, at: At, gone: frozenset[str]) -> Iterator[Element]:
    """What every thing draws, at the first of its parts that has its rail and ground: while it
    waits, unless a state says otherwise. What a pin drives, such as a light, draws by its duty
    where a state asks for that.
    """
    rails = {row.rail.name: row.rail for row in device.made}
    for load in device.loads:
        rail = rails.get(load.rail)
        if rail is None:
            continue
        component = taker(device, load.thing, rail.net, gone)
        if component is None:
            own = owner(device, load.thing)
            ends, amperes = (rail.net, GROUND), load.currents.idle / 1000
            yield Draw(*ends, amperes, rail.usual_v, own, BY_DUTY, load.thing)
            continue
        pads = {net: pad for pad, net in reversed(component.pads.items())}
        ends = at(component.ref, pads[rail.net]), at(component.ref, pads[GROUND])
        amperes = load.currents.idle / 1000
        yield Draw(*ends, amperes, rail.usual_v, component.ref, name=load.thing)


def owner(device: Device, thing: str) -> str:
    """The first part of a thing; nothing where it has none."""
    return next((c.ref for c in device.circuit.components if c.thing == thing), "")


def taker(device: Device, thing: str, net: str, gone: frozenset[str]) -> Component | None:
    """The part at which a thing takes its current."""
    for component in device.circuit.components:
        own = component.thing == thing and component.ref not in gone
        nets = component.pads.values()
        if own and device.kind(component) not in PASSIVE and net in nets and GROUND in nets:
            return component
    return None

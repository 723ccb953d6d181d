"""Parts that only conduct, and what they do alone or with a finger: resistors, coils, fuses,
contacts, tracks.
"""

import itertools
from collections.abc import Iterator

from loquet.core.circuit.model import GROUND
from loquet.core.energising.conditions import (
    METERED,
    PARTS_HIGH,
    PARTS_LOW,
    held,
    pressed,
    switched,
)
from loquet.core.energising.device import PASSIVE, SOURCES, Spot
from loquet.core.energising.elements import Element
from loquet.core.quantities.shown import read_si

CONTACT_OHM, FUSE_OHM = 0.05, 0.15
"""A closed contact, and a fuse that is whole; assumed."""
INNER_OHM = 2.0
"""Supply pins of a chip are joined inside by so much; assumed."""
CHIP_OHM = 200_000.0
"""An unpowered chip shows a meter so much between supply and ground; assumed, makers differ."""
END_OHM = 50.0
"""Between a wiper and the end of its track; assumed."""
COIL_OHM, SOUNDER_OHM, TRACK_OHM = 0.06, 42.0, 10_000.0
AT_REST, IN_THE_MIDDLE = 0.95, 0.5
"""The share of a track that lies above its wiper: of a trigger that nobody pulls, of anything
else.
"""
OPEN_INSIDE = frozenset(
    {"header", "socket", "USB-C socket", "USB socket", "barrel jack", "lead pads", "stick port"}
)


def passive(spot: Spot) -> Iterator[Element]:
    """What a part conducts, whatever is on."""
    kind, leads = spot.device.kind(spot.component), spot.leads()
    yield from own_metal(spot)
    match kind:
        case "resistor" | "inductor" | "fuse" if len(leads) >= 2:
            yield spot.resistance(leads[0], leads[1], max(ohms_of(spot, kind), 0.001))
        case "buzzer":
            ends = spot.two("plus", "minus")
            if ends:
                yield spot.resistance(*ends, spot.figure("coil_ohm", SOUNDER_OHM))
        case "resistive stick" | "slider" | "slide trigger":
            yield from track(spot)
        case _:
            pass
    yield from contacts(spot)
    yield from inside(spot)


def own_metal(spot: Spot) -> Iterator[Element]:
    """Legs that the part's own metal joins."""
    pads = spot.component.pads
    for legs in spot.part.joined if spot.part else ():
        for one, other in itertools.pairwise(legs):
            if one in pads and other in pads:
                yield spot.resistance(spot.at(spot.ref, one), spot.at(spot.ref, other), CONTACT_OHM)


def ohms_of(spot: Spot, kind: str) -> float:
    """The resistance of a part with two ends."""
    if kind == "resistor":
        return (read_si(spot.component.value, "Ω") or 1e7) * spot.scale
    if kind == "inductor":
        return spot.figure("resistance_ohm", COIL_OHM) * spot.scale
    return FUSE_OHM * spot.scale


def track(spot: Spot) -> Iterator[Element]:
    """Resistive tracks: from the supply over the wiper to ground; pushed to either end."""
    ohm, part = spot.figure("track_ohm", TRACK_OHM), spot.part
    supplies, grounds = spot.named.get("supply", []), spot.named.get("ground", [])
    if part is None or not supplies or not grounds:
        return
    wipers = [
        (name, pads[0])
        for name, pads in spot.named.items()
        if part.terminals[name].does == "analogue out"
    ]
    for index, (name, wiper) in enumerate(sorted(wipers, reverse=True)):
        share = AT_REST if name == "pull" else IN_THE_MIDDLE
        supply = spot.at(spot.ref, supplies[min(index, len(supplies) - 1)])
        ground = spot.at(spot.ref, grounds[min(index, len(grounds) - 1)])
        middle = spot.at(spot.ref, wiper)
        yield spot.resistance(supply, middle, ohm * share)
        yield spot.resistance(middle, ground, ohm * (1 - share))
        yield spot.resistance(supply, middle, END_OHM, PARTS_HIGH)
        yield spot.resistance(middle, ground, END_OHM, PARTS_LOW)


def contacts(spot: Spot) -> Iterator[Element]:
    """Keys and slide switches: closed while a finger holds them, or where they stand."""
    component, thing = spot.component, spot.device.things.get(spot.component.thing)
    if spot.device.kind(component) == "slide switch" and thing is not None and thing.SWITCHES:
        common = spot.node("common")
        for name in ("on", "off"):
            for pad in spot.named.get(name, []):
                on = pad == component.on_pad if component.on_pad else name == "on"
                if common:
                    end, when = spot.at(spot.ref, pad), switched(thing.name, on)
                    yield spot.resistance(common, end, CONTACT_OHM, when)
        return
    if thing is None:
        return
    if thing.ASKS_FIRST and component.role == thing.role():
        one, other = spot.leads()[:2]
        yield spot.resistance(one, other, CONTACT_OHM, pressed(thing.name))
    for contact in thing.contacts():
        ends = [spot.node(end) for end in contact.ends]
        if component.role == thing.role(contact.body) and ends[0] and ends[1]:
            yield spot.resistance(ends[0], ends[1], CONTACT_OHM, held(component.role, contact.ends))


def inside(spot: Spot) -> Iterator[Element]:
    """What takes power between a rail and ground: its pins of one net are joined inside, and a
    meter sees some resistance while it is off.
    """
    kind, pads, rails = spot.device.kind(spot.component), spot.component.pads, spot.device.rails
    if kind in PASSIVE or kind in SOURCES:
        return
    power = [pad for pad, net in pads.items() if net in rails]
    ground = [pad for pad, net in pads.items() if net == GROUND]
    for group in (power, ground):
        by_net: dict[str, list[str]] = {}
        for pad in group:
            by_net.setdefault(pads[pad], []).append(pad)
        for alike in by_net.values():
            for one, other in itertools.pairwise(alike):
                yield spot.resistance(spot.at(spot.ref, one), spot.at(spot.ref, other), INNER_OHM)
    if power and ground and kind not in OPEN_INSIDE:
        yield spot.resistance(
            spot.at(spot.ref, power[0]), spot.at(spot.ref, ground[0]), CHIP_OHM, METERED
        )

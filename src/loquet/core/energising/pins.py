"""What pins are to a network: drivers that pull to a supply or to ground, and the diodes by which
every pin is clamped to its own supply.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.brief import plain_name
from loquet.core.circuit.model import GROUND
from loquet.core.energising.conditions import (
    PARTS_HIGH,
    PARTS_LOW,
    drives,
    holds,
    passes,
    pulls,
)
from loquet.core.energising.device import PASSIVE, Spot
from loquet.core.energising.elements import Converter, Element, Junction, junction_of
from loquet.core.energising.feeds import CONVERTERS
from loquet.core.energising.semiconductors import BODY_A, BODY_V, CLAMP_A, CLAMP_V
from loquet.core.parts.terminal import Does
from loquet.core.pins.model import NeedKind
from loquet.core.power import logic_rail_of, rail_of

PIN_OHM = 50.0
"""A pin loses 0.4 V at 8 mA; from memory of data sheets."""
SENSOR_OHM = 200.0
"""Behind the output of a sensor; assumed."""
INNER_A, INNER_LEAST_V, INNER_DROP_OHM = 0.3, 0.9, 1.0
"""A small regulator on a module; assumed."""
MAKERS = (*CONVERTERS, "charger", "ideal diode", "supply negotiator")
"""What makes or passes a supply: its pins see what is behind it, and are not clamped to what is
before.
"""
OUTPUTS: tuple[Does, ...] = ("output", "analogue out")
PINS: tuple[Does, ...] = (*OUTPUTS, "input", "analogue in", "open drain", "both ways")
DRIVES: frozenset[NeedKind] = frozenset(
    {
        "output",
        "high drive",
        "timer",
        "converter output",
        "serial clock",
        "serial out",
        "port transmit",
        "sound clock",
        "sound word",
        "sound data",
    }
)
PULLS_LOW: frozenset[NeedKind] = frozenset({"two-wire clock", "two-wire data"})
MEASURES: frozenset[NeedKind] = frozenset({"analogue", "touch", "touch sample"})
READS: frozenset[NeedKind] = frozenset(
    {"input", "interrupt", "wake-up", "serial in", "port receive", *PULLS_LOW}
)


@dataclass(frozen=True)
class Pin:
    """A pin of a part with a supply: what it is, and the nodes of itself, its supply and its
    ground; of a brain whether it is known to take 5 V.
    """

    ref: str
    pad: str
    node: str
    supply: str
    ground: str
    does: Does
    use: NeedKind | None = None
    five_volt: bool | None = None
    takes_v: float = 0.0
    asks_v: float = 0.0

    @property
    def reads(self) -> bool:
        """Whether it tells high from low."""
        return self.use in READS if self.use else self.does == "input"

    @property
    def clamped(self) -> bool:
        """Whether a diode leads from it to its supply."""
        return not (self.five_volt or self.takes_v or self.does == "open drain")


def pins_of(spot: Spot) -> Iterator[Pin]:
    """All pins of a part that lie on a net and have a supply to count from."""
    if spot.component.is_chip:
        yield from pins_of_brain(spot)
        return
    part, supply = spot.part, supply_of(spot)
    if part is None or supply is None or part.kind in MAKERS or part.kind in PASSIVE:
        return
    ground = spot.node("ground") or GROUND
    takes, asks = part.values.get("takes_v", 0.0), part.values.get("input_high_v", 0.0)
    for name, terminal in part.terminals.items():
        does = own_does(spot, name, terminal.does)
        for pad in spot.named.get(name, []):
            if does in PINS:
                node = spot.at(spot.ref, pad)
                if node not in (supply, ground):
                    yield Pin(spot.ref, pad, node, supply, ground, does, takes_v=takes, asks_v=asks)


def own_does(spot: Spot, name: str, does: Does) -> Does:
    """What a terminal does; one of a part or block of somebody's own that does not say drives what
    a brain reads, and reads the rest.
    """
    if does in PINS or spot.component.block != "own" or does in ("supply", "ground", "nothing"):
        return does
    nets = {spot.component.pads[pad] for pad in spot.named.get(name, [])}
    if nets & set(spot.device.rails) or GROUND in nets:
        return does
    for component in spot.device.circuit.components:
        for pad, use in spot.device.uses.get(component.ref, {}).items():
            if component.pads.get(pad) in nets and (use.kind in READS or use.kind in MEASURES):
                return "both ways" if use.kind in PULLS_LOW else "output"
    return "input"


def supply_of(spot: Spot) -> str | None:
    """The node of a part's supply: of its own pin, or the rail of a part that has no such pin."""
    part = spot.part
    for name, terminal in (part.terminals if part else {}).items():
        if terminal.does == "supply" and spot.named.get(name):
            return spot.node(name)
    if spot.component.block == "own":
        rails = spot.device.rails
        pad = next((p for p, net in spot.component.pads.items() if net in rails), None)
        return spot.at(spot.ref, pad) if pad else None
    return None


def pins_of_brain(spot: Spot) -> Iterator[Pin]:
    """The pins of a chip or module that its plan uses."""
    supply = logic_supply(spot)
    if supply is None:
        return
    for pad, use in spot.device.uses.get(spot.ref, {}).items():
        if pad in spot.component.pads:
            node = spot.at(spot.ref, pad)
            does: Does = "output" if use.kind in DRIVES else "input"
            yield Pin(spot.ref, pad, node, supply, GROUND, does, use.kind, use.five_volt)


def logic_supply(spot: Spot) -> str | None:
    """The node from which a brain's lines are driven: its rail, or one that it makes inside."""
    brain = spot.device.things.get(spot.component.thing)
    if brain is None:
        return None
    rail = logic_rail_of(spot.device.brief, brain)
    pads = {net: pad for pad, net in spot.component.pads.items()}
    if rail is not None and rail.net in pads:
        return spot.at(spot.ref, pads[rail.net])
    taken = rail_of(spot.device.brief, brain).net
    if taken in pads:
        return f"{spot.ref} inside" if brain.logic_v() else spot.at(spot.ref, pads[taken])
    return rail.net if rail is not None and brain.READY_MADE else None


def driven(spot: Spot) -> Iterator[Element]:
    """Drivers and clamps of all its pins, and the regulator inside of a brain that has one."""
    brain = spot.device.things.get(spot.component.thing)
    yield from own_regulator(spot)
    supply = logic_supply(spot) if spot.component.is_chip else supply_of(spot)
    if supply is not None and spot.device.kind(spot.component) not in (*PASSIVE, *MAKERS):
        yield Junction(GROUND, supply, junction_of(BODY_V, BODY_A), 1.0, spot.ref)
    things = spot.device.brief.things
    lines = {plain_name(t.role("hold")): holds(t.name) for t in things if t.ASKS_FIRST}
    lines |= {plain_name(t.role("on")): passes(t.name) for t in things if t.PASSES}
    for pin in pins_of(spot):
        weak = pin.does == "analogue out"
        ohm = SENSOR_OHM if weak else PIN_OHM
        if pin.use is not None and brain is not None:
            high, low = drives(brain.name, True), drives(brain.name, False)
        else:
            high, low = PARTS_HIGH, PARTS_LOW
        own = lines.get(pin.node, "")
        if pin.does in OUTPUTS:
            yield spot.resistance(pin.supply, pin.node, ohm, own or high)
        if pin.does in OUTPUTS and not own:
            yield spot.resistance(pin.node, pin.ground, ohm, low)
        if pin.use in PULLS_LOW and brain is not None:
            yield spot.resistance(pin.node, pin.ground, ohm, pulls(brain.name))
        saturation = junction_of(CLAMP_V, CLAMP_A)
        if pin.clamped:
            yield Junction(pin.node, pin.supply, saturation, 1.0, pin.ref)
        yield Junction(pin.ground, pin.node, saturation, 1.0, pin.ref)


def own_regulator(spot: Spot) -> Iterator[Element]:
    """The regulator on a module whose lines live on volts that it makes for itself."""
    brain, supply = spot.device.things.get(spot.component.thing), f"{spot.ref} inside"
    if brain is None or not brain.logic_v() or logic_supply(spot) != supply:
        return
    taken = rail_of(spot.device.brief, brain).net
    pads = {net: pad for pad, net in spot.component.pads.items()}
    before = spot.at(spot.ref, pads[taken])
    yield Converter(
        before,
        supply,
        GROUND,
        before,
        brain.logic_v(),
        INNER_LEAST_V,
        INNER_A,
        drop_ohm=INNER_DROP_OHM,
        ref=spot.ref,
    )

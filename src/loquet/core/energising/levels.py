"""Pins that are brought above what they take, inputs that are never high enough, and by whom."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from loquet.core.energising.answering import shockley
from loquet.core.energising.elements import THERMAL_V, Resistance, junction_of, nodes_of
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import meant
from loquet.core.energising.pins import Pin
from loquet.core.energising.semiconductors import CLAMP_A, CLAMP_V

ABOVE_V = 0.3
"""So far above its own supply, and below ground, a pin may be driven; from memory of data
sheets.
"""
FIVE_V = 5.5
"""What a pin that takes 5 V takes at the most; from memory of data sheets."""
TRICKLE_A = 10e-6
"""A current into a clamp that nobody minds; common practice, no source."""
ALIVE_SHARE = 0.8
"""A part whose supply has less than such a share of what its rail has counts as off."""


@dataclass(frozen=True)
class Over:
    """A pin above what it takes, where it is worst: the state, its volts, what it takes, the
    current in A that goes into its supply, who brings it there, and whether its part is on.
    """

    pin: Pin
    state: int
    volts: float
    takes_v: float
    amperes: float
    by: str
    pulled: bool
    alive: bool


def takes_v(energised: Energised, pin: Pin) -> NDArray[np.float64]:
    """What a pin takes at the most, by state; a rail that is itself brought above its volts does
    not count for more.
    """
    fixed = max(pin.takes_v, FIVE_V if pin.five_volt else 0.0)
    made, supply = energised.device.rails.get(pin.supply), energised.volt(pin.supply)
    if made is not None:
        supply = np.minimum(supply, made.rail.fresh_v)
    return np.maximum(supply + ABOVE_V, fixed)


def supply_usual_v(energised: Energised, pin: Pin) -> float:
    """What the supply of a pin has usually: its rail, or the most that it has while everything is
    as it was meant to be.
    """
    made = energised.device.rails.get(pin.supply)
    if made is not None:
        return made.rail.empty_v
    rows = meant(energised)
    volts = energised.volt(pin.supply)[rows]
    return float(volts.max()) if len(volts) else 0.0


def overs(energised: Energised) -> Iterator[Over]:
    """Every pin that is brought above what it takes while all is as it was meant to be, once while
    its part is on and once while it is off.
    """
    rows, saturation = meant(energised), junction_of(CLAMP_V, CLAMP_A)
    for pin in energised.pins:
        volts, supply = energised.volt(pin.node), energised.volt(pin.supply)
        takes = takes_v(energised, pin)
        amps = shockley(volts - supply, saturation, THERMAL_V)
        amps = amps if pin.clamped else np.zeros_like(amps)
        high = rows & (volts > takes + 1e-6) & ((amps > TRICKLE_A) | (not pin.clamped))
        if not high.any():
            continue
        alive = supply >= ALIVE_SHARE * supply_usual_v(energised, pin)
        for wanted in (True, False):
            here = high & (alive == wanted)
            if here.any():
                state = int(np.argmax(np.where(here, volts - takes, -1e9)))
                by, pulled = brought_by(energised, pin, state)
                yield Over(
                    pin,
                    state,
                    open_v(energised, pin, state),
                    float(takes[state]),
                    float(amps[state]),
                    by,
                    pulled,
                    wanted,
                )


def brought_by(energised: Energised, pin: Pin, state: int) -> tuple[str, bool]:
    """The part out of which most of the current flows into a pin's node, and whether it is a
    resistor.
    """
    best, most, pulled = "", 0.0, False
    for element, amps in energised.answers.each:
        if element.ref == pin.ref or not element.ref:
            continue
        for end, node in enumerate(nodes_of(element)):
            given = -float(amps[state, end])
            if node == pin.node and given > most:
                kind = energised.device.kind(energised.device.by_ref[element.ref])
                best, most, pulled = element.ref, given, kind == "resistor"
    return best, pulled


def open_v(energised: Energised, pin: Pin, state: int) -> float:
    """The volts that a pin would be brought to if its own clamp did not hold it: of what the
    element that brings it there has at its other end.
    """
    best, most = float(energised.volt(pin.node)[state]), 0.0
    for element, flows in energised.answers.each:
        if not isinstance(element, Resistance) or element.ref == pin.ref:
            continue
        if pin.node in (element.a, element.b):
            other = element.b if element.a == pin.node else element.a
            amps = abs(float(flows[state, 0]))
            if amps > most and energised.volt(other)[state] > best:
                best, most = float(energised.volt(other)[state]), amps
    return best


HIGH_SHARE = 0.7
"""From such a share of its supply on a CMOS input is high (JEDEC JESD8)."""
LIFTED_V = 0.5
"""A line that nothing lifts so far is not held high by anything but the pin's own pull-up."""


@dataclass(frozen=True)
class Low:
    """An input that its driver does not bring high, where it is worst: the state, the volts, what
    it asks, and who drives it; `late` is one that is low only when a source is nearly empty.
    """

    pin: Pin
    state: int
    volts: float
    asks_v: float
    by: str
    pulled: bool
    late: bool


def lows(energised: Energised) -> Iterator[Low]:
    """Every input that stays below what it asks for high while lines are driven high, or held so
    by resistors.
    """
    high = meant(energised) & np.array([s.acts == "high" for s in energised.states])
    driven: dict[str, set[str]] = {}
    for pin in energised.pins:
        if pin.does in ("output", "analogue out"):
            driven.setdefault(pin.node, set()).add(pin.ref)
    for pin in energised.pins:
        if not pin.reads:
            continue
        drivers = driven.get(pin.node, set()) - {pin.ref}
        by_others = bool(drivers)
        supply = energised.volt(pin.supply)
        alive = supply >= ALIVE_SHARE * supply_usual_v(energised, pin)
        asks = np.maximum(pin.asks_v, 0.0) if pin.asks_v else HIGH_SHARE * supply
        asks = np.broadcast_to(asks, supply.shape)
        volts = energised.volt(pin.node)
        here = high & alive & (volts > LIFTED_V) & (volts < asks)
        if here.any():
            state = int(np.argmax(np.where(here, asks - volts, -1e9)))
            by, pulled = min(drivers, default=""), False
            if not by_others:
                by, pulled = brought_by(energised, pin, state)
            amounts = float(volts[state]), float(asks[state])
            fresh = [all(x != "least" for _, x in s.sources) for s in energised.states]
            late = not bool((here & np.array(fresh)).any())
            yield Low(pin, state, *amounts, by, pulled, late)

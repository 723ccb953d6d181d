"""What a brain measures of controls: how far they swing, and where the middle of a resistive one
lies between both ends.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import meant
from loquet.core.energising.pins import MEASURES, Pin

TRACKS = ("resistive stick", "slider")
SPAN_V = 0.5
"""What moves by less is no control that is measured; common practice, no source."""


@dataclass(frozen=True)
class Middle:
    """A control in its middle: its part, the pin that measures it, the state, and where it is
    between its lowest (0) and its highest volts (1).
    """

    ref: str
    pin: Pin
    state: int
    share: float


@dataclass(frozen=True)
class Swing:
    """What a measured pin swings over: a state in which it rests, its least and its most volts
    while the same sources are there, and the volts of its supply at the most.
    """

    pin: Pin
    state: int
    low_v: float
    high_v: float
    full_v: float


def middles(energised: Energised) -> Iterator[Middle]:
    """Every wiper that a brain measures, at its own net or behind a resistor."""
    network = energised.answers.made.network
    wipers = {
        energised.device.by_ref[spot.ref].pads[pads[0]]: spot.ref
        for spot in energised.spots.values()
        if energised.device.kind(spot.component) in TRACKS and spot.part
        for name, pads in spot.named.items()
        if spot.part.terminals[name].does == "analogue out"
    }
    for swing in swings(energised):
        node = swing.pin.node
        beside = {node} | {
            other
            for r in network.resistances
            if not r.when
            for one, other in ((r.a, r.b), (r.b, r.a))
            if one == node
        }
        ref = next((wipers[node] for node in sorted(beside) if node in wipers), "")
        if ref:
            here = float(energised.volt(node)[swing.state]) - swing.low_v
            yield Middle(ref, swing.pin, swing.state, here / (swing.high_v - swing.low_v))


def swings(energised: Energised) -> Iterator[Swing]:
    """Every pin that measures something which moves."""
    rows = meant(energised)
    states = [(s.acts, s.mode, s.sources) for s in energised.states]
    for pin in energised.pins:
        if pin.use not in MEASURES:
            continue
        volts = energised.volt(pin.node)
        for index, (acts, mode, sources) in enumerate(states):
            if acts != "reset" or mode != "play" or not sources or not rows[index]:
                continue
            ends = [
                k
                for k, (does, how, there) in enumerate(states)
                if does in ("high", "low")
                and (how, there) == ("play", sources)
                and not energised.states[k].alone
            ]
            most = max(ends, key=lambda k: float(volts[k]), default=index)
            low, high = min(float(volts[k]) for k in (*ends, most)), float(volts[most])
            if high - low > SPAN_V:
                yield Swing(pin, index, low, high, float(energised.volt(pin.supply)[most]))
                break

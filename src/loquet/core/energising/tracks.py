"""What a brain measures of resistive controls: where their middle lies between both ends."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

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
    rows = meant(energised)
    states = [(s.acts, s.mode, len(s.sources)) for s in energised.states]
    for pin in energised.pins:
        if pin.use not in MEASURES:
            continue
        beside = {pin.node} | {
            other
            for r in network.resistances
            if not r.when
            for one, other in ((r.a, r.b), (r.b, r.a))
            if one == pin.node
        }
        ref = next((wipers[node] for node in sorted(beside) if node in wipers), "")
        if not ref:
            continue
        volts = energised.volt(pin.node)
        for index, (acts, mode, sources) in enumerate(states):
            if acts != "reset" or mode != "play" or not sources or not rows[index]:
                continue
            ends = [
                volts[k]
                for k, other in enumerate(states)
                if other[0] in ("high", "low")
                and other[1] == "play"
                and energised.states[k].sources == energised.states[index].sources
                and not energised.states[k].alone
            ]
            low, high = float(np.min(ends)), float(np.max(ends))
            if high - low > SPAN_V:
                yield Middle(ref, pin, index, (float(volts[index]) - low) / (high - low))
                break

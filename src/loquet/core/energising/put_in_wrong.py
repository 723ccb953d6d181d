"""What a source does that is the wrong way round, and another adapter with the same plug."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from loquet.core.energising.answering import Floats
from loquet.core.energising.device import Spot
from loquet.core.energising.elements import Junction
from loquet.core.energising.energised import Energised

WRONG_A = 1e-3
"""A current out of ground through a pin that is below it, from which on a part is harmed; common
practice, no source.
"""
SHORT_A = 0.2
"""A current of a source that is in the wrong way round from which on something burns; common
practice, no source.
"""


@dataclass(frozen=True)
class Wrong:
    """What a source does that is put in the wrong way: the state, the part that it harms (nothing
    where it is shorted), the node, and how many volts or amperes.
    """

    state: int
    ref: str
    node: str
    volts: float
    amperes: float


@dataclass(frozen=True)
class Burst:
    """A part that stands fewer volts than the wrong adapter gives it: the state, its reference, the
    volts and what it stands.
    """

    state: int
    ref: str
    volts: float
    most_v: float


def bursts(energised: Energised) -> Iterator[Burst]:
    """Parts that the wrong adapter destroys: at their supply, across them, or at their gate."""
    rows = energised.rows([any(x == "wrong" for _, x in s.sources) for s in energised.states])
    if not rows.any():
        return
    for spot in energised.spots.values():
        for limit, across in stood_by(energised, spot):
            volts = np.where(rows, across, 0.0)
            if volts.max() > limit:
                state = int(volts.argmax())
                yield Burst(state, spot.ref, float(volts[state]), limit)
                break


def stood_by(energised: Energised, spot: Spot) -> Iterator[tuple[float, Floats]]:
    """The limits of a part with the volts that it gets by state."""
    values = spot.part.values if spot.part else {}
    entry = spot.node("in") or spot.node("supply")
    gate = spot.two("gate", "source")
    if gate and "gate_v" in values:
        yield values["gate_v"], np.abs(energised.volt(gate[0]) - energised.volt(gate[1]))
    if entry and "input_max_v" in values:
        yield values["input_max_v"], np.abs(energised.volt(entry))
    elif "voltage" in values and spot.leads():
        yield values["voltage"], np.max([np.abs(energised.volt(n)) for n in spot.leads()], axis=0)


def wrongs(energised: Energised) -> Iterator[Wrong]:
    """Parts that stand below ground, and sources that are shorted, while one is the wrong way
    round; each part once.
    """
    turned = [any(x == "reversed" for _, x in s.sources) for s in energised.states]
    rows = energised.rows(turned)
    if not rows.any():
        return
    seen: set[str] = set()
    ground = energised.answers.made.network.ground
    for element, amps in energised.answers.each:
        if not isinstance(element, Junction) or element.a != ground:
            continue
        flows = np.where(rows, amps[:, 0], 0.0)
        kind = energised.device.kind(energised.device.by_ref[element.ref])
        clamp = kind not in ("diode", "light")
        if clamp and flows.max() > WRONG_A and element.ref not in seen:
            seen.add(element.ref)
            state = int(flows.argmax())
            volts = float(energised.volt(element.b)[state])
            yield Wrong(state, element.ref, element.b, volts, float(flows[state]))
    for name, given in energised.given_a.items():
        own = [any(x == (name, "reversed") for x in s.sources) for s in energised.states]
        flows = np.where(energised.rows(own), np.abs(given), 0.0)
        if flows.max() > SHORT_A and not seen:
            state = int(flows.argmax())
            yield Wrong(state, "", name, 0.0, float(flows[state]))

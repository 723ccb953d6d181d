"""What every part and net carries at the most while all is as it was meant to be."""

from dataclasses import dataclass, field

import numpy as np

from loquet.core.energising.elements import Converter
from loquet.core.energising.energised import Energised
from loquet.core.energising.meant import meant, through_a

RIPPLE = 1.2
"""The highest current of a coil over its mean: a ripple of 40 %; common practice, no source."""
SIGNAL_MA = 50.0
"""A net of lines is in nobody's way below so much; common practice, no source."""


@dataclass
class Carried:
    """In mA: by reference of a part, and by net; and by part the state in which it is most."""

    parts: dict[str, float] = field(default_factory=dict)
    nets: dict[str, float] = field(default_factory=dict)
    states: dict[str, int] = field(default_factory=dict)


def carried(energised: Energised) -> Carried:
    """The highest current through every part, and into every supply and every line that carries
    much, with the state of a part in which that is.
    """
    rows, found = meant(energised), Carried()
    ground = energised.answers.made.network.ground
    for component in energised.device.circuit.components:
        amps = np.where(rows, through_a(energised, component.ref), 0.0)
        if len(amps) and amps.max() > 0:
            found.parts[component.ref] = 1000 * float(amps.max())
            found.states[component.ref] = int(amps.argmax())
    flowing = np.where(rows[:, None], energised.answers.sums[1], 0.0)
    supplies = {net.name: net.kind != "signal" for net in energised.device.circuit.nets}
    for node, row in energised.answers.made.at.items():
        most = 1000 * float(flowing[:, row].max(initial=0.0))
        if node != ground and node in supplies and (supplies[node] or most > SIGNAL_MA):
            found.nets[node] = most
    coils(energised, found)
    return found


def coils(energised: Energised, found: Carried) -> None:
    """Every coil carries what its converter gives or takes, whichever flows in it, and the
    ripple.
    """
    rows = meant(energised)
    device = energised.device
    by_thing: dict[str, float] = {}
    for element, amps in energised.answers.each:
        if not isinstance(element, Converter) or not element.efficiency:
            continue
        component = device.by_ref[element.ref]
        kind = device.kind(component)
        taken = np.abs(amps[:, 0]) if kind != "buck converter" else 0.0
        given = np.abs(amps[:, 1]) if kind != "boost converter" else 0.0
        most = np.where(rows, np.maximum(taken, given), 0.0)
        by_thing[component.thing] = 1000 * RIPPLE * float(most.max(initial=0.0))
    for component in device.circuit.components:
        if device.kind(component) == "inductor" and component.thing in by_thing:
            most_ma = by_thing[component.thing]
            found.parts[component.ref] = most_ma
            for net in component.pads.values():
                found.nets[net] = max(found.nets.get(net, 0.0), most_ma)

"""Low passes: a resistor into a capacitor to ground, with all that hangs on them."""

from collections.abc import Iterable
from math import log10

import numpy as np

from loquet.core.circuit.model import GROUND
from loquet.core.circuit.nodal.known import POINTS, Axis, Curve, Known, on, other_end, to_ground
from loquet.core.circuit.nodal.solving import Element, Floats, over_frequency
from loquet.core.quantities.shown import show_si

LOW_HZ, HIGH_HZ = 1.0, 1e6
LEAST_FARAD = 0.9e-9


def filters(known: Known) -> Iterable[Curve]:
    """A resistor into a capacitor to ground: what is left of a sine behind it, with everything that
    hangs on it.
    """
    resistors, capacitors = known.of_kind("resistor"), known.of_kind("capacitor")
    hertz = np.logspace(log10(LOW_HZ), log10(HIGH_HZ), POINTS)
    for capacitor, shunt in capacitors:
        if not to_ground(shunt) or shunt.value < LEAST_FARAD:
            continue
        net = other_end(shunt, GROUND)
        leads = [row for row in on(resistors, net) if other_end(row[1], net) != GROUND]
        if net in known.supply or not leads:
            continue
        lead, series = leads[0]
        source = other_end(series, net)
        drive = Element("source", source, GROUND, 1.0)
        left = np.abs(over_frequency([*known.around(source), drive], net, hertz))
        corner = corner_of(hertz, left)
        if corner is None:
            continue
        decibels = 20 * np.log10(np.maximum(left, 1e-6))
        yield Curve(
            id=f"filter {net}",
            block=capacitor.block,
            board=capacitor.board,
            title=f"Low pass at {net}",
            parts=(lead.ref, capacitor.ref),
            across=Axis(title="frequency", unit="Hz", log=True),
            up=Axis(title="left behind it", unit="dB"),
            points=tuple((float(f), float(v)) for f, v in zip(hertz, decibels, strict=True)),
            mark=(corner, 20 * log10(float(left[0])) - 3.01),
            says=f"Corner at {show_si(corner, 'Hz')}, with all that hangs on it.",
            assumes=f"{source} driven without inner resistance; pins take no current",
            working=capacitor.working or lead.working,
        )


def corner_of(hertz: Floats, left: Floats) -> float | None:
    """Where the volts have fallen to 1 / sqrt 2 of those at the lowest frequency, between two
    points by their logarithms; none where they do not.
    """
    limit = float(left[0]) / 2**0.5
    below = np.nonzero(left < limit)[0]
    if len(below) == 0 or below[0] == 0:
        return None
    at = int(below[0])
    share = (left[at - 1] - limit) / (left[at - 1] - left[at])
    ends = log10(float(hertz[at - 1])), log10(float(hertz[at]))
    return float(10 ** (ends[0] + float(share) * (ends[1] - ends[0])))

"""Diodes, lights, transistors, and what keeps charge from lines."""

from collections.abc import Iterator

from loquet.core.circuit.model import GROUND
from loquet.core.energising.device import Spot
from loquet.core.energising.elements import Bipolar, Channel, Element, Junction, junction_of

LIT_A, LIGHT_IDEALITY = 0.005, 2.0
"""A light has its forward volts at so many amperes; common practice."""
SIGNAL_A = 0.1
"""A small diode has its forward volts at a tenth of an ampere; from memory of data sheets."""
BODY_V, BODY_A = 0.75, 0.5
"""The diode in the body of a MOS transistor, or under a pin's supply; from memory of data
sheets.
"""
CLAMP_V, CLAMP_A = 0.65, 0.005
"""The diodes from a pin to its supply and from ground to it; from memory of data sheets."""
IDEAL_A, IDEAL_IDEALITY, IDEAL_OHM = 1e-6, 0.12, 0.08
"""A controller that acts as a diode: some 40 mV, and its channel; assumed."""
THRESHOLD_V, CHANNEL_OHM, OPENS_V = 1.0, 0.1, 2.5
BASE_V, BASE_A, GAIN = 0.7, 0.01, 100.0
"""Of small transistors whose parts do not say more; from memory of data sheets."""


def semiconductor(spot: Spot) -> Iterator[Element]:
    """What a part without a supply of its own does once there are volts."""
    match spot.device.kind(spot.component):
        case "diode":
            yield from diode(spot, spot.figure("forward_v", CLAMP_V), SIGNAL_A, 1.0)
        case "light":
            yield from diode(spot, spot.figure("forward_v", 2.0), LIT_A, LIGHT_IDEALITY)
        case "P-channel transistor":
            yield from channel(spot, -1)
        case "N-channel transistor":
            yield from channel(spot, 1)
        case "NPN transistor":
            ends = spot.three("base", "collector", "emitter")
            if ends:
                saturation = junction_of(spot.figure("base_v", BASE_V), BASE_A)
                yield Bipolar(*ends, saturation, spot.figure("gain_min", GAIN), ref=spot.ref)
        case "ideal diode":
            way = spot.two("in", "out")
            if way:
                inner = f"{spot.ref} channel"
                yield Junction(way[0], inner, IDEAL_A, IDEAL_IDEALITY, spot.ref)
                yield spot.resistance(inner, way[1], spot.figure("resistance_ohm", IDEAL_OHM))
        case "guard array":
            yield from guard(spot)
        case _:
            pass


def diode(spot: Spot, volts: float, amperes: float, ideality: float) -> Iterator[Element]:
    """A diode with so many volts at so many amperes; a large one has them at its own rating."""
    ends = spot.two("anode", "cathode")
    if ends:
        rated = max(amperes, spot.figure("current_ma", 0.0) / 1000)
        at = rated if ideality == 1.0 else amperes
        yield Junction(*ends, junction_of(volts, at, ideality), ideality, spot.ref)


def channel(spot: Spot, sign: int) -> Iterator[Element]:
    """A MOS transistor: its channel has its resistance at the gate volts for which that is said,
    and beside it lies the diode of its body.
    """
    ends = spot.three("gate", "drain", "source")
    if ends is None:
        return
    threshold = spot.figure("threshold_v", THRESHOLD_V)
    over = max(spot.figure("opens_v", OPENS_V) - threshold, 0.1)
    k = 1 / (spot.figure("resistance_ohm", CHANNEL_OHM) * over)
    yield Channel(*ends, sign, threshold, k, spot.ref)
    _, drain, source = ends
    body = (drain, source) if sign < 0 else (source, drain)
    yield Junction(*body, junction_of(BODY_V, BODY_A), 1.0, spot.ref)


def guard(spot: Spot) -> Iterator[Element]:
    """An array of diodes from its lines to a supply and from ground to its lines."""
    supply, saturation = spot.node("supply"), junction_of(CLAMP_V, CLAMP_A)
    ground = spot.node("ground") or GROUND
    for name in ("line 1", "line 2"):
        line = spot.node(name)
        if line and supply:
            yield Junction(line, supply, saturation, 1.0, spot.ref)
        if line:
            yield Junction(ground, line, saturation, 1.0, spot.ref)
    if supply:
        yield Junction(ground, supply, junction_of(BODY_V, BODY_A), 1.0, spot.ref)

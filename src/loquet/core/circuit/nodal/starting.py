"""What happens at power-up: rails rise as their sources allow, and the reset pins of chips after
them.
"""

from collections.abc import Iterable

import numpy as np

from loquet.core.circuit.key_levels import CHIP_PULL_UP_OHM
from loquet.core.circuit.lifting import high_asked_v
from loquet.core.circuit.model import GROUND
from loquet.core.circuit.nodal.known import POINTS, Axis, Curve, Known, other_end, to_ground
from loquet.core.circuit.nodal.solving import Element, Floats, after_step

UP_PART = 0.95


def resets(known: Known) -> Iterable[Curve]:
    """A reset pin with its capacitor: its volts after power-up, through the pull-up inside the
    chip.
    """
    rail = known.rail_v
    for capacitor, shunt in known.of_kind("capacitor"):
        net = other_end(shunt, GROUND) if to_ground(shunt) else ""
        if not net.endswith("RESET") or net in known.supply:
            continue
        seconds = 5 * CHIP_PULL_UP_OHM * shunt.value
        inside = [
            Element("source", "inside", GROUND, rail),
            Element("resistor", "inside", net, CHIP_PULL_UP_OHM),
        ]
        volts = after_step([*known.around(), *inside], net, seconds)
        times, at = times_of(volts, seconds), int(np.argmax(volts >= high_asked_v(rail)))
        yield Curve(
            id=f"reset {net}",
            block=capacitor.block,
            board=capacitor.board,
            title=f"{net} after power-up",
            parts=(capacitor.ref,),
            across=Axis(title="time", unit="ms"),
            up=Axis(title=net, unit="V"),
            points=thinned(times, volts),
            mark=(float(times[at]) * 1e3, float(volts[at])),
            says=f"The chip starts {times[at] * 1e3:.1f} ms after its rail.",
            assumes=(
                "pull-up inside the chip 40 kΩ, high from 0.7 of the rail (data sheets, from"
                " memory); the rail comes at once"
            ),
        )


def rising(known: Known) -> Iterable[Curve]:
    """A rail behind what its source can give, into all capacitors that hang on it."""
    for rail in known.rails:
        held = [
            e
            for _, e in known.of_kind("capacitor")
            if to_ground(e) and rail.net in (e.first, e.second)
        ]
        if not held or rail.limit_ma <= 0:
            continue
        ohm, farad = rail.usual_v / (rail.limit_ma / 1e3), sum(e.value for e in held)
        first = next(c for c, e in known.of_kind("capacitor") if e in held)
        seconds = 5 * ohm * farad
        source = [
            Element("source", "source", GROUND, rail.usual_v),
            Element("resistor", "source", rail.net, ohm),
        ]
        volts = after_step([*held, *source], rail.net, seconds)
        times, at = times_of(volts, seconds), int(np.argmax(volts >= UP_PART * rail.usual_v))
        yield Curve(
            id=f"rise {rail.net}",
            block=first.block,
            board=first.board,
            title=f"{rail.net} at power-up",
            parts=tuple(c.ref for c, e in known.of_kind("capacitor") if e in held),
            across=Axis(title="time", unit="ms"),
            up=Axis(title=rail.net, unit="V"),
            points=thinned(times, volts),
            mark=(float(times[at]) * 1e3, float(volts[at])),
            says=f"At 95 % after {times[at] * 1e3:.2f} ms, with {farad * 1e6:.1f} µF on it.",
            assumes=(
                f"a model: the source gives at most {rail.limit_ma:.0f} mA, as through {ohm:.2f} Ω;"
                " nothing draws yet"
            ),
        )


def times_of(volts: Floats, seconds: float) -> Floats:
    """The times at which the volts after a step stand."""
    return np.linspace(seconds / len(volts), seconds, len(volts))


def thinned(times: Floats, volts: Floats) -> tuple[tuple[float, float], ...]:
    """As many points as a curve needs, from 0, in ms."""
    step = len(volts) // (POINTS - 1)
    rows = zip(times[step - 1 :: step], volts[step - 1 :: step], strict=True)
    return ((0.0, 0.0), *((float(t) * 1e3, float(v)) for t, v in rows))

"""A converter of a digital sound bus with a filtered line output on a plug."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.sound_converter import SoundConverter
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts.choosing import plug
from loquet.core.parts.terminal import OTHER, way

PITCH_MM = 2.0


def recipe(thing: SoundConverter, bench: Bench) -> Fragment:
    """Bus in; each output through 470 Ω with 2.2 nF to ground (154 kHz) to the line plug: left,
    ground, right.
    """
    drawer, part, role = Drawer("sound", bench.parts), thing.bodies()[0].part, thing.role()
    rail, bypass = bench.rail(thing).net, plain_name(thing.role("bypass"))
    raw = {side: plain_name(thing.role(f"{side} raw")) for side in ("left", "right")}
    out = {side: plain_name(thing.role(side)) for side in ("left", "right")}
    nets = {line: plain_name(thing.role(line)) for line in ("clock", "word", "data")}
    nets |= {"supply": rail, "ground": GROUND, "bypass": bypass, **raw}
    found = [
        drawer.named(role, part, (bench.parts[part].short, "Makes sound of the bus"), nets),
        drawer.quiet(role, part, rail),
    ]
    words = ("1 µF", "Quiets the middle of the converter")
    found.append(
        drawer.capacitor(
            f"{role} bypass",
            *words,
            (bypass, GROUND),
            Near(role, "bypass"),
        )
    )
    for side in ("left", "right"):
        series = drawer.resistor(
            f"{role} {side} series",
            "470 Ω",
            "Low pass of the line output",
            (raw[side], out[side]),
            Near(role, side),
        )
        shunt = ("2.2 nF", "Low pass of the line output")
        found += [
            series,
            drawer.capacitor(
                f"{role} {side} shunt",
                *shunt,
                (out[side], GROUND),
                Near(series.role, OTHER),
            ),
        ]
    pads = {way(1): out["left"], way(2): GROUND, way(3): out["right"]}
    found.append(
        drawer.take(
            thing.role("line"), plug(bench.parts, 3, PITCH_MM), ("line out", "Line output"), pads
        )
    )
    return Fragment(tuple(found))


RECIPE = (SoundConverter, recipe)

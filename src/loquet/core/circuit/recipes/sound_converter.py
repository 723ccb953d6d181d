"""A converter of a digital sound bus with a filtered line output on a plug."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.sound_converter import SoundConverter
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near

PLUG = "wire-plug-2.0-3"


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
        drawer.take(
            f"{role} bypass", "capacitor-1608", words, {"1": bypass, "2": GROUND}, Near(role, "8")
        )
    )
    for side, pad in (("left", "6"), ("right", "7")):
        series = drawer.resistor(
            f"{role} {side} series",
            "470 Ω",
            "Low pass of the line output",
            (raw[side], out[side]),
            Near(role, pad),
        )
        shunt = ("2.2 nF", "Low pass of the line output")
        found += [
            series,
            drawer.take(
                f"{role} {side} shunt",
                "capacitor-1608",
                shunt,
                {"1": out[side], "2": GROUND},
                Near(series.role, "2"),
            ),
        ]
    pads = {"1": out["left"], "2": GROUND, "3": out["right"]}
    found.append(drawer.take(thing.role("line"), PLUG, ("line out", "Line output"), pads))
    return Fragment(tuple(found))


RECIPE = (SoundConverter, recipe)

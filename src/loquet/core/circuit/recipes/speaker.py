"""An amplifier with a speaker: what feeds it is filtered, coupled and amplified; the speaker hangs
between two outputs and never touches ground.
"""

from math import pi

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.speaker import Speaker
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts.choosing import Wanted, pick, plug
from loquet.core.parts.terminal import OTHER, way
from loquet.core.provenance import Source, Working, WorkingInput

PITCH_MM = 2.0

FILTER_OHM, FILTER_FARAD, SHUNT = 1_000.0, 10e-9, "10 nF"
SUM_OHM, SUM_FARAD, SUM_SHUNT = 10_000.0, 2.2e-9, "2.2 nF"
"""Two resistors add the sides of a converter, and are the low pass together with a smaller
capacitor.
"""
INPUT_OHM, SOUND_BUS = "22 kΩ", "sound bus"


def recipe(thing: Speaker, bench: Bench) -> Fragment:
    """Low pass, coupling, amplifier, plug; a wheel for the volume is read by the brain."""
    drawer, role, rail = Drawer("sound", bench.parts), thing.role(), bench.rail(thing).net
    found, signal = source_of(thing, drawer, rail)
    low, coupled, sum_ = (plain_name(thing.role(w)) for w in ("filtered", "coupled", "sum"))
    amplifier, part = f"{role} amplifier", bench.pick("speaker amplifier")
    near = Near(amplifier, "in minus")
    summed = thing.feed_by == SOUND_BUS
    beside = Near(f"{role} converter left" if summed else f"{role} filter", OTHER)
    if not summed:
        low_pass = "Low pass before the amplifier"
        found.append(drawer.resistor(f"{role} filter", "1 kΩ", low_pass, (signal, low), near))
    found += [
        drawer.capacitor(
            f"{role} filter shunt",
            SUM_SHUNT if summed else SHUNT,
            "Low pass before the amplifier",
            (low, GROUND),
            beside,
        ),
        drawer.capacitor(
            f"{role} coupling",
            "1 µF",
            "Keeps steady volts from the amplifier",
            (low, coupled),
            beside,
        ),
        drawer.resistor(
            f"{role} input",
            INPUT_OHM,
            "Sets the gain with what is inside the amplifier",
            (coupled, sum_),
            near,
        ),
    ]
    plus, minus = (plain_name(thing.role(w)) for w in ("out plus", "out minus"))
    bypass = plain_name(thing.role("bypass"))
    enable = plain_name(thing.role("mute")) if thing.mute_line else rail
    nets = {
        "enable": enable,
        "bypass": bypass,
        "in plus": bypass,
        "in minus": sum_,
        "out plus": plus,
    }
    nets |= {"supply": rail, "ground": GROUND, "out minus": minus}
    words = (part.short, "Amplifier of the speaker")
    found += [
        drawer.named(amplifier, part.id, words, nets),
        drawer.quiet(amplifier, part.id, rail),
        drawer.capacitor(
            f"{role} reserve",
            "10 µF",
            "Feeds the peaks of the amplifier",
            (rail, GROUND),
            Near(amplifier, "supply"),
        ),
        drawer.capacitor(
            f"{role} bypass",
            "1 µF",
            "Quiets the middle of the amplifier",
            (bypass, GROUND),
            Near(amplifier, "bypass"),
        ),
        drawer.take(
            thing.role("plug"),
            plug(bench.parts, 2, PITCH_MM),
            ("speaker", "Plug of the speaker"),
            {way(1): plus, way(2): minus},
        ),
    ]
    if thing.volume:
        wheel = bench.pick("slider")
        volume = {"supply": rail, "ground": GROUND, "out": plain_name(thing.role("volume"))}
        named = {n: volume.get(n, volume["out"]) for n in wheel.terminals}
        found.append(
            drawer.named(thing.role("wheel"), wheel.id, ("volume", "Sets the volume"), named)
        )
    return Fragment(tuple(found), workings=(corner_working(thing),))


def source_of(thing: Speaker, drawer: Drawer, rail: str) -> tuple[list[Component], str]:
    """What the sound comes from: a pin of the brain, or a converter of the sound bus, whose two
    sides are summed.
    """
    if thing.feed_by != SOUND_BUS:
        return [], plain_name(thing.role("feed"))
    role, bypass = f"{thing.role()} converter", plain_name(thing.role("middle"))
    sides = {side: plain_name(thing.role(f"{side} raw")) for side in ("left", "right")}
    nets = {line: plain_name(thing.role(line)) for line in ("clock", "word", "data")}
    nets |= {"supply": rail, "ground": GROUND, "bypass": bypass, **sides}
    signal = plain_name(thing.role("filtered"))
    part = pick(drawer.parts, Wanted("sound converter"))
    words = (part.short, "Makes sound of the bus")
    found = [drawer.named(role, part.id, words, nets), drawer.quiet(role, part.id, rail)]
    quiet = ("1 µF", "Quiets the middle of the converter")
    found.append(
        drawer.capacitor(
            f"{role} bypass",
            *quiet,
            (bypass, GROUND),
            Near(role, "bypass"),
        )
    )
    for side, net in sides.items():
        near = Near(role, side)
        found.append(
            drawer.resistor(f"{role} {side}", "10 kΩ", "Adds both sides", (net, signal), near)
        )
    return found, signal


def corner_working(thing: Speaker) -> Working:
    """Where the low pass begins."""
    summed = thing.feed_by == SOUND_BUS
    ohm, farad = (SUM_OHM / 2, SUM_FARAD) if summed else (FILTER_OHM, FILTER_FARAD)
    value = 1 / (2 * pi * ohm * farad)
    origin = f"two of {SUM_OHM / 1000:g} kΩ side by side" if summed else "common practice"
    return Working(
        id=f"{thing.name}.corner",
        title=f"Corner of the low pass before {thing.label}",
        value=value / 1000,
        unit="kHz",
        shown=f"{value / 1000:.1f} kHz",
        formula="1 / (2 x pi x R x C)",
        inputs=(
            WorkingInput(name="pi", value="3.14159265", origin="circle"),
            WorkingInput(name="R", value=f"{ohm:g}", unit="Ω", origin=origin),
            WorkingInput(name="C", value=f"{farad * 1e9:g}", unit="nF", origin="common practice"),
        ),
        source=Source(kind="standard", text="first-order low pass, f = 1 / (2 pi R C)"),
    )


RECIPE = (Speaker, recipe)

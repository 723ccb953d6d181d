"""A soft latch: a P-channel transistor in the way of the source, which the button opens and the
brain holds open.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.power_button import PowerButton
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import Below, low_side
from loquet.core.circuit.model import GROUND, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.switching import switched_way
from loquet.core.parts import Part
from loquet.core.parts.choosing import Wanted, p_channel, serving
from loquet.core.parts.terminal import ONE, OTHER

HOLD = "10 kΩ"


def recipe(thing: PowerButton, bench: Bench) -> Fragment:
    """From the guarded net to what stands behind.

    The gate rests at the source's volts; the button pulls it down through one diode and the line
    that reads it through the other, so that neither can feed the other; the brain holds the gate
    down with a transistor.

    Above what a gate takes it is pulled through a resistor as large as the one that holds it up, so
    that it sees half the volts. Raises RecipeNotPossible where half of them is too much still.
    """
    source, before, behind = switched_way(thing, bench)
    supply = source.source()
    volts = supply.fresh_v if supply else 0.0
    channel = latch_part(bench, volts)
    if channel is None:
        limit = f"{volts:g} V are more than any transistor of the shelf takes"
        raise RecipeNotPossible(thing.name, limit, "Take a slide switch, or a lower source.")
    halved, diode = volts > channel.figure("gate_v"), bench.pick("diode").id
    drawer, role = Drawer("power", bench.parts), thing.role()
    gate, key, base = (plain_name(thing.role(word)) for word in ("gate", "key", "base"))
    hold, pressed = (plain_name(thing.role(word)) for word in ("hold", "pressed"))
    latch = f"{role} latch"
    pulled = plain_name(thing.role("pulled")) if halved else gate
    at_gate = Near(latch, "gate")
    found = (
        drawer.take(
            latch,
            channel.id,
            ("P-channel", "Feeds the device while its gate is low"),
            {"gate": gate, "source": before, "drain": behind},
        ),
        drawer.resistor(
            f"{role} rest",
            "100 kΩ",
            "Keeps the device off while nobody holds it",
            (before, gate),
            at_gate,
        ),
        *(
            [
                drawer.resistor(
                    f"{role} halves",
                    "100 kΩ",
                    "Lets the gate see half the volts of the source",
                    (gate, pulled),
                    at_gate,
                )
            ]
            if halved
            else []
        ),
        drawer.take(
            role,
            thing.part,
            ("on and off", "Turns the device on, and asks it to turn off"),
            {ONE: key, OTHER: GROUND},
        ),
        drawer.take(
            f"{role} opens",
            diode,
            ("100 V", "Opens the latch while the button is pressed"),
            {"cathode": key, "anode": pulled},
            at_gate,
        ),
        drawer.take(
            f"{role} reads",
            diode,
            ("100 V", "Lets the brain read the button"),
            {"cathode": key, "anode": pressed},
            Near(role, ONE),
        ),
        *low_side(drawer, f"{role} hold", Below(pulled, hold, base, "the latch", at_gate), HOLD),
    )
    return Fragment(found, {before: "supply", behind: "supply"})


def latch_part(bench: Bench, volts: float) -> Part | None:
    """The P-channel transistor of a latch: one whose gate takes the volts, or half of them."""
    whole = p_channel(bench.parts, volts)
    halved = Wanted("P-channel transistor", least={"voltage": volts, "gate_v": volts / 2})
    return whole or next(iter(serving(bench.parts, halved)), None)


RECIPE = (PowerButton, recipe)

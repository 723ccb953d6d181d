"""A soft latch: a P-channel transistor in the way of the source, which the button opens and the
brain holds open.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.power_button import PowerButton
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import Below, low_side
from loquet.core.circuit.feeding import GATE_LIMIT_V, GUARD_P
from loquet.core.circuit.model import GROUND, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.switching import switched_way

DIODE, HOLD = "diode-sod123", "10 kΩ"


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
    halved = supply is not None and supply.fresh_v > GATE_LIMIT_V
    if supply is not None and supply.fresh_v > bench.parts[GUARD_P].values["voltage"]:
        limit = f"{supply.fresh_v:g} V are more than its transistor takes"
        raise RecipeNotPossible(thing.name, limit, "Take a slide switch, or a lower source.")
    drawer, role = Drawer("power", bench.parts), thing.role()
    gate, key, base = (plain_name(thing.role(word)) for word in ("gate", "key", "base"))
    hold, pressed = (plain_name(thing.role(word)) for word in ("hold", "pressed"))
    latch = f"{role} latch"
    pulled = plain_name(thing.role("pulled")) if halved else gate
    at_gate = Near(latch, "1")
    found = (
        drawer.take(
            latch,
            GUARD_P,
            ("P-channel", "Feeds the device while its gate is low"),
            {"1": gate, "2": before, "3": behind},
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
            {"1": key, "4": GROUND},
        ),
        drawer.take(
            f"{role} opens",
            DIODE,
            ("100 V", "Opens the latch while the button is pressed"),
            {"1": key, "2": pulled},
            at_gate,
        ),
        drawer.take(
            f"{role} reads",
            DIODE,
            ("100 V", "Lets the brain read the button"),
            {"1": key, "2": pressed},
            Near(role, "1"),
        ),
        *low_side(drawer, f"{role} hold", Below(pulled, hold, base, "the latch", at_gate), HOLD),
    )
    return Fragment(found, {before: "supply", behind: "supply"})


RECIPE = (PowerButton, recipe)

"""A soft latch: a P-channel transistor in the way of the source, which the button opens and the brain holds open."""

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
    """From the guarded net to what stands behind. The gate rests at the source's volts; the button pulls it down through one diode and the line that reads it through the other, so that neither can feed the other; the brain holds the gate down with a transistor. Raises RecipeNotPossible where the source is too high for the gate."""
    source, before, behind = switched_way(thing, bench)
    supply = source.source()
    if supply is not None and supply.fresh_v > GATE_LIMIT_V:
        limit = f"{supply.fresh_v:g} V are more than the gate of its transistor takes"
        raise RecipeNotPossible(thing.name, limit, "Take a slide switch, or a lower source.")
    drawer, role = Drawer("power", bench.parts), thing.role()
    gate, key, base = (plain_name(thing.role(word)) for word in ("gate", "key", "base"))
    hold, pressed = (plain_name(thing.role(word)) for word in ("hold", "pressed"))
    latch = f"{role} latch"
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
            {"1": key, "2": gate},
            at_gate,
        ),
        drawer.take(
            f"{role} reads",
            DIODE,
            ("100 V", "Lets the brain read the button"),
            {"1": key, "2": pressed},
            Near(role, "1"),
        ),
        *low_side(drawer, f"{role} hold", Below(gate, hold, base, "the latch", at_gate), HOLD),
    )
    return Fragment(found, {before: "supply", behind: "supply"})


RECIPE = (PowerButton, recipe)

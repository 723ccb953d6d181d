"""A sounder: a transistor to ground that saturates and rests off, and a diode across the coil."""

from math import ceil

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.buzzer import Buzzer
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import (
    FORCED_GAIN,
    Below,
    base_working,
    low_side,
)
from loquet.core.circuit.model import Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts import Part
from loquet.core.power import Rail
from loquet.core.provenance import given

PIN_LIMIT_A = 8e-3


def recipe(thing: Buzzer, bench: Bench) -> Fragment:
    """The driver; raises RecipeNotPossible where the coil asks more than transistor or pin can
    give.
    """
    sounder, transistor, rail = bench.parts[thing.part], bench.npn, bench.rail(thing)
    coil_a = coil_current(sounder, transistor, rail)
    load = given("I", coil_a, "A", f"coil at its rail: {sounder.evidence_text}")
    working = base_working("buzzer", "the sounder", load, transistor, bench.reader_rail(thing))
    drawer, role = Drawer("buzzer", bench.parts), thing.role()
    low, base, drive = (plain_name(thing.role(word)) for word in ("low", "base", "drive"))
    words = ("100 V", "Takes the coil's current when the transistor opens")
    components = (
        drawer.take(
            role, thing.part, (sounder.description, "Sounder"), {"plus": rail.net, "minus": low}
        ),
        *low_side(
            drawer, role, Below(low, drive, base, "the sounder", Near(role, "minus")), working.shown
        ),
        drawer.take(
            f"{role} diode",
            bench.pick("diode").id,
            words,
            {"cathode": rail.net, "anode": low},
            Near(role, "plus"),
        ),
    )
    return Fragment(components, workings=(working,))


def coil_current(sounder: Part, transistor: Part, rail: Rail) -> float:
    """What the coil draws, in A; raises RecipeNotPossible."""
    coil_a = rail.usual_v / sounder.figure("coil_ohm")
    if coil_a * 1e3 > transistor.figure("current_ma"):
        least = ceil(rail.usual_v / transistor.figure("current_ma") * 1e3)
        raise RecipeNotPossible(
            "buzzer driver",
            f"the coil draws {coil_a * 1e3:.0f} mA",
            f"Choose a coil of at least {least} ohm.",
        )
    base_a = coil_a / FORCED_GAIN
    if base_a > PIN_LIMIT_A:
        limit = f"the base asks {base_a * 1e3:.1f} mA of a pin"
        way = "Choose a sounder with a higher coil resistance."
        raise RecipeNotPossible("buzzer driver", limit, way)
    return coil_a


RECIPE = (Buzzer, recipe)

"""A touch electrode: its series resistor, and the capacitor on which the charge is counted."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.touch import Touch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.controls import BLOCK
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near

SERIES, SAMPLE = "1 kΩ", "47 nF"


def recipe(thing: Touch, bench: Bench) -> Fragment:
    """The electrode behind 1 kΩ against discharges, and 47 nF at the other pin of its group: charge
    transfer as the makers' notes on their touch blocks have it, values from memory.
    """
    drawer, role = Drawer(BLOCK, bench.parts), thing.role()
    line, plate = plain_name(role), plain_name(thing.role("plate"))
    electrode = drawer.take(
        role, thing.part, (thing.name, f"Touch electrode {thing.name}"), {"plate": plate}
    )
    electrode = electrode.model_copy(update={"bare": True})
    series = drawer.resistor(
        f"{role} series", SERIES, "Takes discharges of a finger", (line, plate), Near(role, "plate")
    )
    ends = (plain_name(thing.role("sample")), GROUND)
    words = "Counts the charge of the electrode"
    capacitor = drawer.capacitor(f"{role} sample", SAMPLE, words, ends)
    return Fragment((electrode,), around=(series, capacitor))


RECIPE = (Touch, recipe)

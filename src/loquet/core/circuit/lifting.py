"""Lines that a brain drives into a part on a higher rail: lifted by a buffer where the part would not take them for high."""

from loquet.core.brief import Thing
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component
from loquet.core.circuit.parting import Drawer

BUFFER = "buffer-lifting"
HIGH_PART, DROP_V = 0.7, 0.4


def wants_lifting(bench: Bench, thing: Thing) -> bool:
    """Whether 0.7 of a thing's rail (CMOS inputs, JEDEC JESD8) is more than its brain drives: the brain's rail less 0.4 V."""
    brain = next(b for b in bench.brief.brains if bench.desk(thing) is bench.desks[b.name])
    return HIGH_PART * bench.rail(thing).fresh_v > bench.rail(brain).empty_v - DROP_V


def lifted(
    drawer: Drawer, role: str, ends: tuple[str, str], rail: str
) -> tuple[Component, Component]:
    """The buffer from a line of the brain to the line of the part, on the part's rail, with its capacitor."""
    nets = {
        "disable": GROUND,
        "line in": ends[0],
        "line out": ends[1],
        "ground": GROUND,
        "supply": rail,
    }
    words = (drawer.parts[BUFFER].short, "Lifts the line to the higher rail")
    return drawer.named(role, BUFFER, words, nets), drawer.quiet(role, BUFFER, rail)

"""Lines that a brain drives into a part on a higher rail: lifted by a buffer where the part would
not take them for high.
"""

from loquet.core.brief import Thing
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import PIN_DROP_V
from loquet.core.circuit.model import GROUND, Component
from loquet.core.circuit.parting import Drawer
from loquet.core.parts.choosing import Wanted, pick

HIGH_PART = 0.7


def wants_lifting(bench: Bench, thing: Thing) -> bool:
    """Whether what a thing's inputs ask on its rail is more than its brain drives."""
    return high_asked_v(bench.rail(thing).fresh_v) > high_driven_v(bench.reader_rail(thing).empty_v)


def high_asked_v(rail_v: float) -> float:
    """From how many volts on a CMOS input is high: 0.7 of its rail (JEDEC JESD8)."""
    return HIGH_PART * rail_v


def high_driven_v(logic_v: float) -> float:
    """To how many volts a pin drives under load: its rail less 0.4 V (from memory of data
    sheets).
    """
    return logic_v - PIN_DROP_V


def lifted(
    drawer: Drawer, role: str, ends: tuple[str, str], rail: str
) -> tuple[Component, Component]:
    """The buffer from a line of the brain to the line of the part, on the part's rail, with its
    capacitor.
    """
    nets = {
        "disable": GROUND,
        "line in": ends[0],
        "line out": ends[1],
        "ground": GROUND,
        "supply": rail,
    }
    part = pick(drawer.parts, Wanted("buffer"))
    words = (part.short, "Lifts the line to the higher rail")
    return drawer.named(role, part.id, words, nets), drawer.quiet(role, part.id, rail)

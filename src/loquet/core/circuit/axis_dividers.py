"""Dividers behind the voltages of controls and sensors that live on a higher rail than their
brain.
"""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.quantities.preferred import at_least
from loquet.core.quantities.shown import show_si

LOWER_OHM, SAME_V = 10_000.0, 0.1
BLOCK = "buttons"


def upper_ohm(thing: Thing, bench: Bench) -> float:
    """The upper resistor of the dividers of a control, in ohm; 0 where its rail is not above that
    of its brain.
    """
    full, own = bench.rail(thing).usual_v, bench.reader_rail(thing).usual_v
    return at_least(LOWER_OHM * (full / own - 1)) if full > own + SAME_V else 0.0


def divided(thing: Thing, bench: Bench, role: str, pads: dict[str, str]) -> list[Component]:
    """Dividers behind the voltages of a control that lives on a higher rail than its brain: full
    scale stays at or below the brain's rail.
    """
    return [
        component
        for axis in thing.axes()
        for component in divided_line(
            thing, bench, (role, thing.role(axis.piece), axis.words), pads, BLOCK
        )
    ]


def divided_line(
    thing: Thing, bench: Bench, names: tuple[str, str, str], pads: dict[str, str], block: str
) -> list[Component]:
    """The divider of one line, put between a terminal of a part and the brain; nothing
    where both live on one rail. `names` are the part's role, the line's, and its words.
    """
    (role, signal, words), upper = names, upper_ohm(thing, bench)
    line = plain_name(signal)
    terminal = next((name for name, net in pads.items() if net == line), None)
    if not upper or terminal is None:
        return []
    full, own = bench.rail(thing).usual_v, bench.reader_rail(thing).usual_v
    pads[terminal] = f"{line}_FULL"
    return [
        Component(
            role=f"divider {name} {signal}",
            part=bench.resistor,
            block=block,
            value=show_si(ohm, "Ω"),
            purpose=f"Divides {words} from {full:g} V to {own:g} V or less",
            pads={ONE: ends[0], OTHER: ends[1]},
            near_role=near[0],
            near_pad=near[1],
        )
        for name, ohm, ends, near in (
            ("upper", upper, (pads[terminal], line), (role, terminal)),
            ("lower", LOWER_OHM, (line, GROUND), (f"divider upper {signal}", OTHER)),
        )
    ]

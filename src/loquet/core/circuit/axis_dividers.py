"""Dividers behind the voltages of a control that lives on a higher rail than its brain."""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component
from loquet.core.quantities.preferred import at_least
from loquet.core.quantities.shown import show_si

LOWER_OHM, SAME_V = 10_000.0, 0.1


def upper_ohm(thing: Thing, bench: Bench) -> float:
    """The upper resistor of the dividers of a control, in ohm; 0 where its rail is not above that of its brain."""
    full, own = bench.rail(thing).usual_v, bench.reader_rail(thing).usual_v
    return at_least(LOWER_OHM * (full / own - 1)) if full > own + SAME_V else 0.0


def divided(thing: Thing, bench: Bench, role: str, pads: dict[str, str]) -> list[Component]:
    """Dividers behind the voltages of a control that lives on a higher rail than its brain: full scale stays at or below the brain's rail."""
    full, own = bench.rail(thing).usual_v, bench.reader_rail(thing).usual_v
    upper = upper_ohm(thing, bench)
    if not upper:
        return []
    found = []
    for axis in thing.axes():
        line = plain_name(thing.role(axis.piece))
        pad = next((pad for pad, net in pads.items() if net == line), None)
        if pad is None:
            continue
        pads[pad] = f"{line}_FULL"
        words = f"Divides {axis.words} from {full:g} V to {own:g} V or less"
        for name, ohm, ends, near in (
            ("upper", upper, (pads[pad], line), (role, pad)),
            ("lower", LOWER_OHM, (line, GROUND), (f"divider upper {thing.role(axis.piece)}", "2")),
        ):
            found.append(
                Component(
                    role=f"divider {name} {thing.role(axis.piece)}",
                    part="resistor-1608",
                    block="buttons",
                    value=show_si(ohm, "Ω"),
                    purpose=words,
                    pads={"1": ends[0], "2": ends[1]},
                    near_role=near[0],
                    near_pad=near[1],
                )
            )
    return found

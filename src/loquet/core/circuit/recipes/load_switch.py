"""A switched rail: a P-channel transistor above its loads, which a line of a brain turns on through
a smaller one.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.load_switch import LoadSwitch
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import (
    Above,
    base_working,
    gate_current,
    high_side,
)
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near


def recipe(thing: LoadSwitch, bench: Bench) -> Fragment:
    """Off until the brain turns it on; a capacitor at the gate lets the rail rise slowly, so that
    what is empty behind it does not pull the rail before it down.
    """
    role, before, behind = thing.role(), bench.rail(thing), bench.rail_fed_by(thing)
    gate, drive, base = (plain_name(thing.role(word)) for word in ("gate", "on", "base"))
    worked = base_working(
        f"{thing.name}.switch",
        thing.label,
        gate_current(before.usual_v),
        bench.npn,
        bench.reader_rail(thing),
    )
    drawer = Drawer("power", bench.parts)
    above = Above(before.net, behind.net, drive, gate, base, thing.label, itself=role)
    slow = ("10 nF", f"Lets {thing.label} rise slowly")
    steady = ("1 µF", f"Steadies {thing.label}")
    found = (
        *high_side(drawer, role, above, worked.shown),
        drawer.capacitor(
            f"{role} slow",
            *slow,
            (before.net, gate),
            Near(role, "gate"),
        ),
        drawer.capacitor(
            f"{role} steady",
            *steady,
            (behind.net, GROUND),
            Near(role, "drain"),
        ),
    )
    return Fragment(found, {behind.net: "supply"}, (worked,))


RECIPE = (LoadSwitch, recipe)

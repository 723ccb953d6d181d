"""A USB port into which another device is plugged: 5 V through a fuse, with the capacitor that a
host must have.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.usb_downstream import UsbDownstream
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts.choosing import fuse_for
from loquet.core.parts.terminal import ONE, OTHER

LOWEST_V = 4.75
BULK = 6  # 6 x 22 µF: USB 2.0 section 7.2.4.1 asks 120 µF at a port


def recipe(thing: UsbDownstream, bench: Bench) -> Fragment:
    """Socket, fuse, capacitors, guard array; raises RecipeNotPossible where its rail is not 5 V."""
    rail, role = bench.rail(thing), thing.role()
    if rail.empty_v < LOWEST_V:
        limit = f"its rail gives {rail.usual_v:g} V, and a USB device takes 4.75 V or more"
        raise RecipeNotPossible(
            thing.name, limit, "Add a converter to 5 V and name it as its rail."
        )
    drawer = Drawer("ports", bench.parts)
    five, plus, minus = (plain_name(thing.role(word)) for word in ("5v", "plus", "minus"))
    nets = {"supply": five, "plus": plus, "minus": minus, "ground": GROUND, "shell": GROUND}
    lines = {"line 1": plus, "line 2": minus, "ground": GROUND, "supply": five}
    found = [
        drawer.named(role, thing.bodies()[0].part, ("USB", "Port for another device"), nets),
        drawer.take(
            f"{role} fuse",
            fuse_for(bench.parts, thing.gives_ma).id,
            ("0.5 A", "Opens where the other device draws too much"),
            {ONE: rail.net, OTHER: five},
            Near(role, "supply"),
        ),
        drawer.named(
            f"{role} guard array",
            bench.pick("guard array").id,
            ("guard array", "Takes discharges of the plug"),
            lines,
        ),
    ]
    words = ("22 µF", "Holds 5 V while a device is plugged in")
    found += [
        drawer.capacitor(
            f"{role} bulk {i + 1}",
            *words,
            (five, GROUND),
            Near(role, "supply"),
        )
        for i in range(BULK)
    ]
    return Fragment(tuple(found), {five: "supply"})


RECIPE = (UsbDownstream, recipe)

"""A host computer: its contacts on their nets; power in from the board, or its own rail out."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.host_computer import HostComputer
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import CHIP_PART, GROUND, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near

LEAST_V = 4.75


def recipe(thing: HostComputer, bench: Bench) -> Fragment:
    """Signals by the plan. Raises RecipeNotPossible where the board feeds it less than 4.75 V."""
    desk, own = bench.desk(thing), thing.power == "its own plug"
    rail = bench.rail(thing)
    if not own and rail.empty_v < LEAST_V:
        limit = f"its rail gives {rail.empty_v:g} V, and it takes {LEAST_V} V or more"
        raise RecipeNotPossible(
            thing.name, limit, "Add a converter to 5 V and name it as its rail."
        )
    five = plain_name(thing.role("5v")) if own else rail.net
    fixed = {"supply": five, "ground": GROUND}
    if own:
        fixed["gives"] = bench.rail_fed_by(thing).net
    signals = {row.pin: row.net for row in desk.plan.assignments}
    pads = {
        pin.number: net
        for pin in desk.chip.pins
        if (net := fixed.get(pin.kind) or signals.get(pin.number))
    }
    entry = next(pin.number for pin in desk.chip.pins if pin.kind == "supply")
    drawer, near = Drawer("host", bench.parts), Near(thing.role(), entry)
    words = ("10 µF", "Steadies 5 V at the host")
    host = drawer.take(
        thing.role(), f"{CHIP_PART}{desk.chip.name}", (desk.chip.name, "Host computer"), pads
    )
    bulk = drawer.capacitor(f"{thing.role()} bulk", *words, (five, GROUND), near)
    kinds = dict.fromkeys((five, *fixed.values()), "supply") | {GROUND: "ground"}
    return Fragment((host, bulk), kinds)  # type: ignore[arg-type]


RECIPE = (HostComputer, recipe)

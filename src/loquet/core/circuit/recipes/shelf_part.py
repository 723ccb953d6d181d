"""A part of the shelf as it is joined by hand, with a capacitor at every supply pin."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.shelf_part import LINES, ShelfPart
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, JOIN, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.two_wire import bus_net
from loquet.core.parts import Part
from loquet.core.parts.terminal import Terminal


def recipe(thing: ShelfPart, bench: Bench) -> Fragment:
    """Every terminal on its net; raises RecipeNotPossible for a part that is not there, terminals
    that it does not have, and terminals of which nobody said where they go.
    """
    part = bench.parts.get(thing.part)
    if part is None:
        way = "Take one into the project at Parts, from the shelf, and name it at the Brief."
        limit = f"the shelf has no {thing.part}" if thing.part else "no part is named yet"
        raise RecipeNotPossible(thing.label, limit, way)
    nets = nets_of(thing, part, bench)
    drawer, role = Drawer("own", bench.parts), thing.role()
    main = Component(
        role=role,
        part=part.id,
        block="own",
        value=part.short,
        purpose=f"{thing.TITLE}: {thing.label}",
        pads=nets,
        bare=part.height_mm == 0,
    )
    around = [
        drawer.capacitor(
            f"{role} {name} decoupling",
            "100 nF",
            f"Decoupling of {thing.label}",
            (nets[name], GROUND),
            Near(role, name),
        )
        for name, terminal in part.terminals.items()
        if terminal.does == "supply" and name in nets
    ]
    return Fragment((main, *around))


def nets_of(thing: ShelfPart, part: Part, bench: Bench) -> dict[str, str]:
    """The net of every terminal that is not left open."""
    said = thing.joined()
    strange = [name for name in said if name not in part.terminals]
    if strange:
        has = ", ".join(list(part.terminals)[:30])
        limit = f"{part.id} has no terminal '{strange[0]}'"
        raise RecipeNotPossible(thing.label, limit, f"It has: {has}.")
    found = {}
    for name, terminal in part.terminals.items():
        where = said.get(name) or usual(terminal)
        if not where:
            limit = f"nobody said where its terminal '{name}' goes"
            raise RecipeNotPossible(thing.label, limit, f"Write '{name} = ...' at its joins.")
        if where != "open":
            found[name] = net(thing, name, where, bench)
    return found


def usual(terminal: Terminal) -> str:
    """Where a terminal goes that was not spoken of; nothing where that has to be said."""
    if terminal.does == "supply":
        return "supply"
    if terminal.does in ("ground", "heat"):
        return "ground"
    return "open" if terminal.does == "nothing" or terminal.open else ""


def net(thing: ShelfPart, name: str, where: str, bench: Bench) -> str:
    """The net of a terminal by where it goes."""
    if where == "supply":
        return bench.rail(thing).net
    if where == "ground":
        return GROUND
    if where in LINES:
        return plain_name(thing.role(name))
    if where.startswith("@"):
        return JOIN + where[1:]
    return bus_net(bench.desk(thing), where)


RECIPE = (ShelfPart, recipe)

"""Ports that carry plain lines, with supply and ground where their order has them."""

from loquet.core.brief import Thing, plain_name
from loquet.core.brief.on_posts import OnPosts
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.two_wire import LINES, bus_net
from loquet.core.parts.terminal import way, way_count

SUPPLY_FIRST, GROUND_BOTH, GROUND_LAST, BARE = "supply first", "ground both", "ground last", "bare"


def line_port(thing: Thing, bench: Bench, lines: int, order: str) -> Fragment:
    """Ways from 1: supply or ground before the lines, or the lines from the first on; whatever ways
    are left behind them lie at ground.
    """
    middle = [plain_name(thing.role(str(i + 1))) for i in range(lines)]
    rail = bench.rail(thing).net
    before = {SUPPLY_FIRST: [rail], GROUND_BOTH: [GROUND]}.get(order, [])
    return Fragment((port(thing, [*before, *middle], bench),))


def port(thing: Thing, nets: list[str], bench: Bench) -> Component:
    """The connector of a thing with nets on its ways from 1 on; what is left, and hold-downs, lie
    at ground. Raises RecipeNotPossible for one of too few ways.
    """
    part = bench.parts[thing.bodies()[0].part]
    if len(nets) > way_count(part.terminals):
        limit = f"{part.short} has {way_count(part.terminals)} ways, and {len(nets)} are wanted"
        raise RecipeNotPossible(thing.label, limit, "Choose one with more ways, or fewer lines.")
    pads = dict.fromkeys(part.terminals, GROUND)
    pads |= {way(i + 1): net for i, net in enumerate(nets) if way(i + 1) in pads}
    return Component(
        role=thing.role(),
        part=part.id,
        block="ports",
        value=thing.label,
        purpose=thing.TITLE,
        pads=pads,
        bare=part.height_mm == 0,
    )


def own_posts(thing: OnPosts, bench: Bench) -> Fragment:
    """A row of posts, or a package, in a thing's own pin order; a pin that is said to be open has
    no net.
    """
    rail, desk = bench.rail(thing).net, bench.desk(thing)
    fixed = {"supply": rail, "ground": GROUND}
    fixed |= {line: bus_net(desk, line) for line in LINES}
    nets = {name: fixed.get(name) or plain_name(thing.role(name)) for name in thing.line_names()}
    nets |= {name: fixed[name] for name in ("supply", "ground")}
    posts = Component(
        role=thing.role("posts"),
        part=thing.bodies()[0].part,
        block="own",
        value=thing.label,
        purpose=f"Posts of {thing.label}",
        pads={way(i + 1): nets[name] for i, name in enumerate(thing.posts()) if name in nets},
    )
    fed = next((pad for pad, net in posts.pads.items() if net == rail), None)
    if fed is None:
        return Fragment((posts,))
    words, near = f"Decoupling of {thing.label}", Near(posts.role, fed)
    quiet = Drawer("own", bench.parts).capacitor(
        f"{posts.role} decoupling", "100 nF", words, (rail, GROUND), near
    )
    return Fragment((posts, quiet))

"""Axes that are not read by the chip itself: an outside converter on the two-wire bus, or a
multiplexer before one channel.
"""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer
from loquet.core.circuit.two_wire import bus_net
from loquet.core.parts.choosing import Wanted, pick

BLOCK = "axes"
LEAST = {"converter": 1, "multiplexer": 2}
"""For fewer axes there is none."""


def axis_lists(brain: Thing, bench: Bench) -> Fragment:
    """What reads the axes of a brain's controls; raises RecipeNotPossible where they are too
    many.
    """
    desk = bench.desk(brain)
    share = desk.share
    nets = [plain_name(t.role(axis.piece)) for t in share.group("controls") for axis in t.axes()]
    made = {"converter": converters, "multiplexer": multiplexer}.get(share.analogue_by)
    if made is None or len(nets) < LEAST[share.analogue_by]:
        return Fragment(())
    drawer = Drawer(BLOCK, bench.parts, brain.board)
    return Fragment(tuple(made(desk, drawer, bench.logic_rail(brain).net, nets)))


def converters(desk: Desk, drawer: Drawer, rail: str, axes: list[str]) -> list[Component]:
    """Converters of four channels; the first has its address pin at ground, the second at the rail;
    channels that nobody needs lie at ground.
    """
    part = pick(drawer.parts, Wanted("converter"))
    many = -(-len(axes) // 4)
    if many > 2:
        limit = f"{len(axes)} axes want {many} converters, and one bus has addresses for 2"
        raise RecipeNotPossible("axes", limit, "Read some axes with the chip.")
    found = []
    for index in range(many):
        role = desk.role(f"axis converter {index + 1}")
        own = axes[4 * index : 4 * index + 4]
        nets = {f"channel {i}": own[i] if i < len(own) else GROUND for i in range(4)}
        nets |= {"address": rail if index else GROUND, "ground": GROUND, "supply": rail}
        nets |= {line: bus_net(desk, line) for line in ("clock", "data")}
        address = int(part.figure("first_address")) + index
        words = (f"address 0x{address:02x}", "Reads axes over two wires")
        found += [drawer.named(role, part.id, words, nets), drawer.quiet(role, part.id, rail)]
    return found


def multiplexer(desk: Desk, drawer: Drawer, rail: str, axes: list[str]) -> list[Component]:
    """Eight to one: select lines and channels that are not needed lie at ground."""
    if len(axes) > 8:
        limit = f"{len(axes)} axes, and a multiplexer takes 8"
        raise RecipeNotPossible("axes", limit, "Read some axes with the chip.")
    role, part = desk.role("axis multiplexer"), pick(drawer.parts, Wanted("multiplexer"))
    lines = max(1, (len(axes) - 1).bit_length())
    nets = {f"channel {i}": axes[i] if i < len(axes) else GROUND for i in range(8)}
    nets |= {
        f"select {i + 1}": desk.net(f"AXES_SELECT_{i + 1}") if i < lines else GROUND
        for i in range(3)
    }
    nets |= {"common": desk.net("AXES_COMMON"), "supply": rail}
    nets |= dict.fromkeys(("ground", "below ground", "inhibit"), GROUND)
    words = (part.short, "Takes the axes in turn to one channel")
    return [drawer.named(role, part.id, words, nets), drawer.quiet(role, part.id, rail)]

"""A memory card on its own serial bus: pull-ups that the card wants, and a capacitor for its
peaks.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.memory_card import MemoryCard
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near

HOLD = "10 kΩ"


def recipe(thing: MemoryCard, bench: Bench) -> Fragment:
    """Contacts by the card's own order; select, both data lines and the unused ones are held high
    (SD simplified specification 6.6, 10 to 100 kΩ).
    """
    drawer, role, rail = Drawer("card", bench.parts), thing.role(), bench.rail(thing).net
    part = thing.bodies()[0].part
    lines = ("select", "to card", "clock", "from card")
    nets = {line: plain_name(thing.role(line)) for line in lines}
    idle = {name: plain_name(thing.role(name)) for name in ("idle 1", "idle 2")}
    held = {name: nets[name] for name in ("select", "to card", "from card")} | idle
    if thing.detect:
        held["detect"] = plain_name(thing.role("detect"))
    nets |= held | {"supply": rail, "ground": GROUND, "shell": GROUND}
    socket = drawer.take(role, part, ("memory card", "Socket of the memory card"), nets)
    pulls = [
        drawer.resistor(
            f"{role} hold {name}",
            HOLD,
            "Holds a line of the card high",
            (rail, net),
            Near(role, name),
        )
        for name, net in held.items()
    ]
    near = Near(role, "supply")
    bulk = drawer.capacitor(
        f"{role} bulk", "10 µF", "Feeds the peaks of the card", (rail, GROUND), near
    )
    return Fragment((socket, drawer.quiet(role, part, rail), bulk, *pulls))


RECIPE = (MemoryCard, recipe)

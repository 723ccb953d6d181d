"""A memory card on its own serial bus: pull-ups that the card wants, and a capacitor for its
peaks.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.memory_card import MemoryCard
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer, Near

SOCKET, HOLD = "card-socket", "10 kΩ"


def recipe(thing: MemoryCard, bench: Bench) -> Fragment:
    """Contacts by the card's own order; select, both data lines and the unused ones are held high
    (SD simplified specification 6.6, 10 to 100 kΩ).
    """
    drawer, role, rail = Drawer("card", bench.parts), thing.role(), bench.rail(thing).net
    lines = ("select", "to card", "clock", "from card")
    nets = {line: plain_name(thing.role(line)) for line in lines}
    pads = {drawer.pad(SOCKET, name): net for name, net in nets.items()}
    pads |= {"4": rail, "6": GROUND, "10": GROUND}
    idle = {"1": plain_name(thing.role("idle 1")), "8": plain_name(thing.role("idle 2"))}
    pads |= idle
    held = {drawer.pad(SOCKET, n): nets[n] for n in ("select", "to card", "from card")} | idle
    if thing.detect:
        pads["9"] = held["9"] = plain_name(thing.role("detect"))
    socket = drawer.take(role, SOCKET, ("memory card", "Socket of the memory card"), pads)
    pulls = [
        drawer.resistor(
            f"{role} hold {pad}",
            HOLD,
            "Holds a line of the card high",
            (rail, net),
            Near(role, pad),
        )
        for pad, net in sorted(held.items())
    ]
    near = Near(role, "4")
    bulk = drawer.take(
        f"{role} bulk",
        "capacitor-2012",
        ("10 µF", "Feeds the peaks of the card"),
        {"1": rail, "2": GROUND},
        near,
    )
    return Fragment((socket, drawer.quiet(role, SOCKET, rail), bulk, *pulls))


RECIPE = (MemoryCard, recipe)

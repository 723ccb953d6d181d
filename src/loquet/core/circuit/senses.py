"""Sensors on the two-wire bus."""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.two_wire import LINES, bus_net

HOLD = "10 kΩ"


def on_bus(thing: Thing, bench: Bench, alert: bool, more: dict[str, str] | None = None) -> Fragment:
    """A sensor with its supply, both lines, its address pin by the lowest bit of its address, and
    its alert held high (open drain).
    """
    drawer, part, role = Drawer("senses", bench.parts), thing.bodies()[0].part, thing.role()
    desk, rail = bench.desk(thing), bench.rail(thing).net
    bus = thing.on_bus()
    address = bus.address if bus else 0
    nets = {"supply": rail, "ground": GROUND, "address": rail if address & 1 else GROUND}
    nets |= {line: bus_net(desk, line) for line in LINES} | (more or {})
    if alert:
        nets["alert"] = plain_name(thing.role("interrupt"))
    words = (f"address 0x{address:02x}", f"{thing.TITLE} {thing.name}")
    found: list[Component] = [drawer.named(role, part, words, nets)]
    feeding = "supply" if "supply" in bench.parts[part].terminals else "cell"
    near = Near(role, feeding)
    found.append(
        drawer.capacitor(
            f"{role} decoupling", "100 nF", f"Decoupling of {role}", (nets[feeding], GROUND), near
        )
    )
    if alert:
        at = Near(role, "alert")
        words_up = "Holds the alert line high"
        found.append(drawer.resistor(f"{role} hold", HOLD, words_up, (rail, nets["alert"]), at))
    return Fragment(tuple(found))

"""A sensor that gives a plain voltage."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.voltage_sensor import VoltageSensor
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer


def recipe(thing: VoltageSensor, bench: Bench) -> Fragment:
    """Supply with its capacitor, the voltage to its channel."""
    drawer, part = Drawer("senses", bench.parts), thing.bodies()[0].part
    rail = bench.rail(thing).net
    nets = {"supply": rail, "out": plain_name(thing.role()), "ground": GROUND}
    words = (bench.parts[part].short, f"Sensor {thing.name}")
    return Fragment(
        (drawer.named(thing.role(), part, words, nets), drawer.quiet(thing.role(), part, rail))
    )


RECIPE = (VoltageSensor, recipe)

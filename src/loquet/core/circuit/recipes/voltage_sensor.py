"""A sensor that gives a plain voltage."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.voltage_sensor import VoltageSensor
from loquet.core.circuit.axis_dividers import divided_line
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Fragment
from loquet.core.circuit.parting import Drawer


def recipe(thing: VoltageSensor, bench: Bench) -> Fragment:
    """Supply with its capacitor, the voltage to its channel, divided where its rail is above that
    of its brain.
    """
    drawer, part = Drawer("senses", bench.parts), thing.bodies()[0].part
    rail = bench.rail(thing).net
    nets = {"supply": rail, "out": plain_name(thing.role()), "ground": GROUND}
    words = (bench.parts[part].short, f"Sensor {thing.name}")
    role = thing.role()
    sensor = drawer.named(role, part, words, nets)
    pads = dict(sensor.pads)
    divider = divided_line(thing, bench, (role, role, thing.label), pads, "senses")
    sensor = sensor.model_copy(update={"pads": pads})
    return Fragment((sensor, drawer.quiet(role, part, rail), *divider))


RECIPE = (VoltageSensor, recipe)

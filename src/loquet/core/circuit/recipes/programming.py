"""The programming header."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.programming import Programming
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.pins.needs.programming import WORD


def recipe(thing: Programming, bench: Bench) -> Fragment:
    """Supply sense, clock, ground, data, reset: ground in the middle, beside both fast lines. The probe reads the level behind 1 kΩ: it cannot feed the board, nor charge its cells."""
    clock, data, sense = (
        plain_name(thing.role(piece, WORD)) for piece in ("clock", "data", "sense")
    )
    order = (sense, clock, GROUND, data, bench.desk(thing).net("RESET"))
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="service",
                value="programming",
                purpose="Programming header",
                pads={str(index + 1): net for index, net in enumerate(order)},
            ),
            Component(
                role=f"{thing.role()} sense",
                part="resistor-1608",
                block="service",
                value="1 kΩ",
                purpose="Shows the probe the level, and keeps it from feeding the board",
                pads={"1": bench.rail(thing).net, "2": sense},
                near_role=thing.role(),
                near_pad="1",
            ),
        )
    )


RECIPE = (Programming, recipe)

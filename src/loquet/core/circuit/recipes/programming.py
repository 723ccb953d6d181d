"""The programming header."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.programming import Programming
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.pins.needs.programming import WORD


def recipe(thing: Programming, bench: Bench) -> Fragment:
    """Supply sense, clock, ground, data, reset: ground in the middle, beside both fast lines."""
    clock, data = (plain_name(thing.role(piece, WORD)) for piece in ("clock", "data"))
    order = (bench.rail(thing).net, clock, GROUND, data, bench.desk(thing).net("RESET"))
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
        )
    )


RECIPE = (Programming, recipe)

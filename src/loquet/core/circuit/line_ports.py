"""Ports that carry plain lines, with supply and ground where their order has them."""

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment

SUPPLY_FIRST, GROUND_BOTH, GROUND_LAST, BARE = "supply first", "ground both", "ground last", "bare"


def line_port(thing: Thing, bench: Bench, lines: int, order: str) -> Fragment:
    """Pads from 1: supply before and ground behind the lines, ground at both ends, ground behind them, or the lines alone."""
    middle = [plain_name(thing.role(str(i + 1))) for i in range(lines)]
    rail = bench.rail(thing).net
    before = {SUPPLY_FIRST: [rail], GROUND_BOTH: [GROUND]}.get(order, [])
    after = [] if order == BARE else [GROUND]
    return Fragment((port(thing, [*before, *middle, *after], bench),))


def port(thing: Thing, nets: list[str], bench: Bench) -> Component:
    """The connector of a thing with nets on its pads from 1 on; hold-downs lie at ground."""
    part = bench.parts[thing.bodies()[0].part]
    numbers = sorted({pad.number for pad in getattr(part.body, "pads", ())}, key=int)
    pads = dict(zip(numbers, nets, strict=False))
    pads |= dict.fromkeys(numbers[len(nets) :], GROUND)
    return Component(
        role=thing.role(),
        part=part.id,
        block="ports",
        value=thing.label,
        purpose=thing.TITLE,
        pads=pads,
        bare=part.price_cents == 0,
    )

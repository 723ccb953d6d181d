"""The port through which a brain gets its program."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.programming import Programming
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.pins.needs.programming import WORD, starts_by_itself, ways_for


def recipe(thing: Programming, bench: Bench) -> Fragment:
    """Supply sense, clock, ground, data, reset, or with four lines sense, out, clock, ground, in,
    reset: ground beside the clock. The probe reads the level behind 1 kΩ: it cannot feed the board,
    nor charge its cells. Raises RecipeNotPossible for a brain that has no such lines, or where the
    port has other ways than they ask.
    """
    desk = bench.desk(thing)
    brain = desk.share.brain
    if brain is not None and starts_by_itself(desk.share):
        limit = f"{brain.label} is not loaded through such a port"
        way = "Say which brain it belongs to, or take it out."
        raise RecipeNotPossible(thing.label, limit, way)
    wanted, pattern = ways_for(desk.chip.name), bench.parts[thing.part]
    ways = len({pad.number for pad in getattr(pattern.body, "pads", ())})
    if ways != wanted:
        limit = f"{desk.chip.name} is loaded over {wanted} ways, and {thing.part} has {ways}"
        raise RecipeNotPossible(thing.label, limit, f"Take {port_part(thing.part, wanted)}.")
    sense, *lines = (
        plain_name(thing.role(piece, WORD))
        for piece in (("sense", "out", "clock", "in") if ways == 6 else ("sense", "clock", "data"))
    )
    reset = desk.net("RESET")
    order = (sense, *lines[:-1], GROUND, lines[-1], reset)
    bare = pattern.price_cents == 0
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="service",
                value="programming",
                purpose="Programming pads" if bare else "Programming header",
                pads={str(index + 1): net for index, net in enumerate(order)},
                bare=bare,
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


def port_part(part: str, ways: int) -> str:
    """The header, or the bare pads, with so many ways."""
    return f"clip-pads-{ways}" if part.startswith("clip-pads") else f"header-{ways}-way"


RECIPE = (Programming, recipe)

"""The port through which a brain gets its program."""

from collections.abc import Mapping

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.programming import Programming
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.parts import Part
from loquet.core.parts.choosing import of_kind
from loquet.core.parts.terminal import ONE, OTHER, way, way_count
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
        way_out = "Say which brain it belongs to, or take it out."
        raise RecipeNotPossible(thing.label, limit, way_out)
    wanted, pattern = ways_for(desk.chip.name), bench.parts[thing.part]
    ways = way_count(pattern.terminals)
    if ways != wanted:
        limit = f"{desk.chip.name} is loaded over {wanted} ways, and {thing.part} has {ways}"
        raise RecipeNotPossible(
            thing.label, limit, f"Take {port_part(bench.parts, pattern, wanted)}."
        )
    sense, *lines = (
        plain_name(thing.role(piece, WORD))
        for piece in (("sense", "out", "clock", "in") if ways == 6 else ("sense", "clock", "data"))
    )
    reset = desk.net("RESET")
    order = (sense, *lines[:-1], GROUND, lines[-1], reset)
    return Fragment(
        (
            Component(
                role=thing.role(),
                part=thing.part,
                block="service",
                value="programming",
                purpose="Programming pads" if bare(pattern) else "Programming header",
                pads={way(index + 1): net for index, net in enumerate(order)},
                bare=bare(pattern),
            ),
            Component(
                role=f"{thing.role()} sense",
                part=bench.resistor,
                block="service",
                value="1 kΩ",
                purpose="Shows the probe the level, and keeps it from feeding the board",
                pads={ONE: bench.rail(thing).net, OTHER: sense},
                near_role=thing.role(),
                near_pad=way(1),
            ),
        )
    )


def port_part(parts: Mapping[str, Part], part: Part, ways: int) -> str:
    """The header, or the bare pads, with so many ways."""
    alike = of_kind(parts, part.kind)
    fitting = (p.id for p in alike if way_count(p.terminals) == ways and bare(p) == bare(part))
    return next(fitting, f"one with {ways} ways")


def bare(part: Part) -> bool:
    """Whether it is plain copper for a clip."""
    return part.price_cents == 0


RECIPE = (Programming, recipe)

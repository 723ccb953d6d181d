"""Addressable lights in a chain: their plug, a resistor in each line, and a capacitor for their
peaks.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.light_chain import LightChain
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.lifting import lifted, wants_lifting
from loquet.core.circuit.line_ports import port
from loquet.core.circuit.model import GROUND, Component, Fragment
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts.terminal import way

SERIES = "330 Ω"


def recipe(thing: LightChain, bench: Bench) -> Fragment:
    """Supply, line or lines, ground; 330 Ω in a line against ringing and 22 µF at the plug are
    common practice. Lines that are too low for the rail of the lights are lifted.
    """
    drawer, role, rail = Drawer("lights", bench.parts), thing.role(), bench.rail(thing).net
    pieces = ("chain",) if thing.wires == "one timed" else ("clock", "data")
    inner = [plain_name(thing.role(piece)) for piece in pieces]
    outer = [f"{net}_PLUG" for net in inner]
    buffers: list[Component] = []
    if wants_lifting(bench, thing):
        high = [f"{net}_HIGH" for net in inner]
        for piece, ends in zip(pieces, zip(inner, high, strict=True), strict=True):
            buffers += lifted(drawer, f"{role} buffer {piece}", ends, rail)
        inner = high
    plug = port(thing, [rail, *outer, GROUND], bench)
    found = [
        drawer.resistor(
            f"{role} series {piece}",
            SERIES,
            "Keeps the line of the lights from ringing",
            ends,
            Near(role, way(i + 2)),
        )
        for i, (piece, ends) in enumerate(zip(pieces, zip(inner, outer, strict=True), strict=True))
    ]
    words = ("22 µF", "Feeds the peaks of the lights")
    bulk = drawer.capacitor(f"{role} bulk", *words, (rail, GROUND), Near(role, way(1)))
    return Fragment((plug, *buffers, *found, bulk))


RECIPE = (LightChain, recipe)

"""Expected netlists written out by hand: a line a component, `part value: pad=net pad=net`."""

from loquet.core.brief import Brief
from loquet.core.circuit.assembling import assemble
from tests.core.benches import bench_for


def netlist(brief: Brief, thing: str) -> set[str]:
    """What the recipes put on the board for a thing, a line a component; twins count once."""
    return {
        f"{c.part} {c.value}: " + " ".join(f"{pad}={net}" for pad, net in c.pads.items())
        for c in assemble(bench_for(brief)).components
        if c.thing == thing
    }


def written(text: str) -> set[str]:
    """The lines of a hand-written netlist; what stands behind a # says why."""
    lines = (line.split("#")[0].strip() for line in text.strip().splitlines())
    return {line for line in lines if line}

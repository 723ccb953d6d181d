"""Expected netlists written out by hand: a line a component, `part value: pad=net pad=net`."""

import re

from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.circuit.assembling import assemble
from tests.core.benches import bench_for

PAD = re.compile(r"\w+=")


def netlist(brief: Brief, thing: str) -> set[str]:
    """What the recipes put on the board for a thing, a line a component; twins count once.

    What must stand beside a pad stands beside one that is there.
    """
    circuit = assemble(bench_for(brief))
    assert strays(circuit) == []
    return {
        f"{c.part} {c.value}: " + " ".join(f"{pad}={net}" for pad, net in c.pads.items())
        for c in circuit.components
        if c.thing == thing
    }


def strays(circuit: Circuit) -> list[str]:
    """Components that are to stand beside a pad that their neighbour has not."""
    by_role = {c.role: c for c in circuit.components}
    return [
        f"{c.role} beside {c.near_role} pad {c.near_pad}"
        for c in circuit.components
        if c.near_role
        and (c.near_role not in by_role or c.near_pad not in by_role[c.near_role].pads)
    ]


def written(text: str) -> set[str]:
    """The lines of a hand-written netlist; what stands behind a # says why, and a line that begins
    with a pad goes on with the part before it.
    """
    found: list[str] = []
    for line in (line.split("#")[0].strip() for line in text.strip().splitlines()):
        if found and PAD.match(line):
            found[-1] += f" {line}"
        elif line:
            found.append(line)
    return set(found)

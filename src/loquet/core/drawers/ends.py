"""The plugs of a device: every connector with what it mates with, how its ways are wired, and the
half that somebody has for it.
"""

from loquet.core.circuit import Circuit, Component
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.parts.land import pad_order
from loquet.core.parts.mating import End, Half, faults_between
from loquet.core.plain.frozen import Frozen


class EndLine(Frozen):
    """A connector on a board: its thing and part, its ways with their nets in order, what must be
    put on it, and the half that was named with what is wrong about it.
    """

    thing: str
    ref: str
    part: str
    purpose: str
    ways: tuple[tuple[str, str], ...]
    end: End
    other_half: str
    half: Half | None
    faults: tuple[str, ...]


def end_lines(circuit: Circuit, choices: Choices, library: Library) -> tuple[EndLine, ...]:
    """Every connector of a circuit, in the order of its references."""
    found = (line_of(component, choices, library) for component in circuit.components)
    return tuple(line for line in found if line is not None)


def line_of(component: Component, choices: Choices, library: Library) -> EndLine | None:
    """One connector; nothing for another part."""
    part = library.parts.get(component.part)
    end = library.roles.end(part) if part is not None else None
    if end is None or (component.bare and end.family != "board edge"):
        return None
    half = choices.halves.get(component.role)
    ways = sorted(component.pads.items(), key=lambda row: pad_order(row[0]))
    return EndLine(
        thing=component.role,
        ref=component.ref,
        part=component.part,
        purpose=component.purpose,
        ways=tuple(ways)[: end.ways],
        end=end,
        other_half=end.other_half,
        half=half,
        faults=tuple(faults_between(end, half)) if half else (),
    )

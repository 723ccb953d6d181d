"""In which order a device goes together, or why no order exists."""

from dataclasses import dataclass
from itertools import combinations

from loquet.core.brief.stack_choices import StackChoices
from loquet.core.stack.model import Piece, Stack
from loquet.core.stack.plugging import Plugged

OPPOSITE = -0.5


@dataclass(frozen=True)
class Order:
    """The steps of putting a device together, what to watch at them, and where no order exists,
    why.
    """

    steps: tuple[str, ...]
    watch: tuple[str, ...]
    impossible: tuple[str, ...]
    about: tuple[str, ...] = ()


def order_of(stack: Stack, plugs: tuple[Plugged, ...], choices: StackChoices) -> Order:
    """From the back wall to the front wall: what lies behind the board goes in before it, what lies
    before it after.
    """
    far = outwards([p for p in stack.pieces if p.sort == "loose" and p.far])
    near = outwards([p for p in stack.pieces if p.sort == "loose" and not p.far])
    screws = [p for p in stack.pieces if p.sort == "post" and p.far]
    steps = ["Lay the back of the shell down, inside up."]
    steps += [f"Put in {p.words}." for p in reversed(far)]
    steps.append(f"Lay {stack.board} on its posts, near side up.")
    if choices.fixing == "posts" and screws:
        steps.append(f"Drive {counted(len(screws), 'screw')} through the board into the posts.")
    steps += [f"Put in {p.words}." for p in near]
    caps = sum(p.through for p in stack.pieces)
    if caps:
        steps.append(f"Put {counted(caps, 'cap')} into the front of the shell from inside.")
    steps.append("Close the front of the shell over it.")
    if choices.fixing == "through" and screws:
        steps.append(f"Turn it over and drive {counted(len(screws), 'screw')} from the back.")
    return Order(tuple(steps), tuple(watched(stack, near, choices)), *blocked(stack, plugs))


def outwards(pieces: list[Piece]) -> list[Piece]:
    """Loose things from the board outwards."""
    return sorted(pieces, key=lambda p: (-p.high_mm if p.far else p.low_mm, p.name))


def watched(stack: Stack, near: list[Piece], choices: StackChoices) -> list[str]:
    """Screws that are covered by what goes in after them."""
    if choices.fixing != "posts":
        return []
    return [
        f"{lying.words[0].upper()}{lying.words[1:]} lies over {head.words}: whoever opens it takes"
        " that out first."
        for head in stack.pieces
        if head.sort == "screw head"
        for lying in near
        if lying.area.intersects(head.area)
    ]


def blocked(stack: Stack, plugs: tuple[Plugged, ...]) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Sockets on opposite sides that both stand out into the walls: the board can neither be
    lowered nor tilted in.
    """
    standing_out = [p for p in plugs if p.beyond_mm > stack.walls.side_gap_mm]
    for one, other in combinations(standing_out, 2):
        across = one.way[0] * other.way[0] + one.way[1] * other.way[1]
        if across < OPPOSITE:
            why = (
                f"{one.ref} and {other.ref} stand out over opposite edges by {one.beyond_mm:.1f}"
                f" and {other.beyond_mm:.1f} mm, more than the {stack.walls.side_gap_mm:.1f} mm"
                " about the board: it goes in neither straight nor tilted."
            )
            return (why,), (f"thing:{one.thing}", f"thing:{other.thing}")
    return (), ()


def counted(number: int, what: str) -> str:
    """`one cap`, `4 caps`."""
    return f"one {what}" if number == 1 else f"{number} {what}s"

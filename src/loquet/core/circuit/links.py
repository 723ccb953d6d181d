"""Links between boards: which lines cross, over which link, on which pin. Both ends are made from the one list."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence

from loquet.core.brief import Brief
from loquet.core.brief.kinds.board_link import BoardLink
from loquet.core.circuit.model import (
    GROUND,
    Component,
    Fragment,
    NetKind,
    RecipeNotPossible,
)
from loquet.core.circuit.recipes import recipe_for
from loquet.core.parts import Part
from loquet.core.parts.part import Drawn
from loquet.core.provenance import Source, Working, WorkingInput

RANK: Mapping[NetKind, int] = {"ground": 0, "supply": 1, "signal": 2}
Ends = tuple[BoardLink, BoardLink]


def pairs_of(brief: Brief) -> dict[str, Ends]:
    """The two ends of every link by its name; raises RecipeNotPossible where an end is missing or too many, or both are on one board."""
    found: dict[str, list[BoardLink]] = defaultdict(list)
    for thing in brief.things:
        if isinstance(thing, BoardLink):
            found[thing.link].append(thing)
    pairs = {}
    for name in sorted(found):
        ends = found[name]
        if len(ends) != 2 or ends[0].board == ends[1].board:
            where = " and ".join(f"{end.name} on {end.board}" for end in ends)
            raise RecipeNotPossible(
                "board link",
                f"link {name} needs one end on each of two boards, and has {where}",
                "Put its other end on the other board, with the same word for the link.",
            )
        if ends[0].part != ends[1].part:
            raise RecipeNotPossible(
                "board link",
                f"the ends of link {name} have different headers",
                "Give both the same part.",
            )
        pairs[name] = (ends[0], ends[1])
    return pairs


def refuse_links(brief: Brief) -> None:
    """Raise RecipeNotPossible where boards that carry parts are not joined, or are joined in a ring."""
    pairs = pairs_of(brief)
    first = brief.brain.board if brief.brain else brief.boards[0].name
    reached = side_of(first, pairs.values())
    for thing in brief.things:
        if recipe_for(thing) is not None and thing.board not in reached:
            raise RecipeNotPossible(
                "board link",
                f"nothing joins {thing.board} to {first}, and {thing.label} is there",
                "Put one end of a board link on each of the two boards.",
            )
    for name, ends in pairs.items():
        others = [pair for pair in pairs.values() if not same_boards(pair, ends)]
        if ends[1].board in side_of(ends[0].board, others):
            raise RecipeNotPossible(
                "board link",
                f"link {name} closes a ring of boards",
                "Take one link out: ground must reach a board by one way only.",
            )


def same_boards(one: Ends, other: Ends) -> bool:
    """Whether two links join the same boards."""
    return {end.board for end in one} == {end.board for end in other}


def side_of(board: str, pairs: Iterable[Ends]) -> set[str]:
    """The boards that can be reached from one over links."""
    rows, reached, waiting = list(pairs), {board}, [board]
    while waiting:
        here = waiting.pop()
        for ends in rows:
            boards = {end.board for end in ends}
            if here in boards:
                waiting += boards - reached
                reached |= boards
    return reached


def link_fragments(
    brief: Brief, made: Sequence[Fragment], parts: Mapping[str, Part]
) -> list[Fragment]:
    """The ends of all links with their pads; ways that no line needs carry ground. Raises RecipeNotPossible where lines are more than ways."""
    pairs = pairs_of(brief)
    if not pairs:
        return []
    boards: dict[str, set[str]] = defaultdict(set)
    kinds: dict[str, NetKind] = {GROUND: "ground"}
    for fragment in made:
        kinds |= fragment.kinds
        for component in fragment.components:
            for net in component.pads.values():
                boards[net].add(component.board)
    fragments, carried = [], set[tuple[str, str]]()
    for name, ends in pairs.items():
        far = side_of(ends[1].board, [p for p in pairs.values() if not same_boards(p, ends)])
        between = "|".join(sorted(end.board for end in ends))
        lines = [
            net
            for net in sorted(boards, key=lambda net: (RANK[kinds.get(net, "signal")], net))
            if boards[net] & far and boards[net] - far
        ]
        open_lines = [net for net in lines if (between, net) not in carried]
        ways = ways_of(parts[ends[0].part])
        taken = open_lines[:ways]
        carried |= {(between, net) for net in taken}
        later = [p for n, p in pairs.items() if n > name and same_boards(p, ends)]
        if len(open_lines) > ways and not later:
            raise RecipeNotPossible(
                "board link",
                f"{len(lines)} lines cross at link {name}, and its header has {ways} ways",
                "Take a wider header, put a second link beside it, or read the keys in a matrix.",
            )
        fragments.append(both_ends(name, ends, taken + [GROUND] * (ways - len(taken)), len(lines)))
    return fragments


def ways_of(part: Part) -> int:
    """How many pads a header has."""
    return len({pad.number for pad in part.body.pads}) if isinstance(part.body, Drawn) else 0


def both_ends(name: str, ends: Ends, nets: list[str], lines: int) -> Fragment:
    """The two headers, pin n of one on the net of pin n of the other."""
    components = tuple(
        Component(
            role=end.role(),
            part=end.part,
            block="link",
            value=f"link {name}",
            purpose=f"Link {name} to {other.board}",
            pads={str(index + 1): net for index, net in enumerate(nets)},
            thing=end.name,
            board=end.board,
            printed=f"link {name}",
        )
        for end, other in (ends, ends[::-1])
    )
    working = Working(
        id=f"link.{name}",
        title=f"Lines over link {name}",
        value=float(lines),
        unit="lines",
        shown=str(lines),
        formula="counted, nets with pads on both sides of the link",
        inputs=(
            WorkingInput(
                name="ways", value=str(len(nets)), unit="", origin=f"header {ends[0].part}"
            ),
        ),
        source=Source(kind="computed", text="the circuit; spare ways carry ground"),
    )
    return Fragment(components, workings=(working,))

"""Links between boards: which lines cross, over which link, on which pin.

Both ends are made from the one list.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from math import dist

from loquet.core.brief import Brief, Thing
from loquet.core.brief.linked import ends_of, side_of
from loquet.core.brief.seats import seat_of_thing
from loquet.core.circuit.model import (
    GROUND,
    Component,
    Fragment,
    NetKind,
    RecipeNotPossible,
)
from loquet.core.circuit.recipes import recipe_for
from loquet.core.geometry import middle_of
from loquet.core.parts import Part, pattern_of
from loquet.core.parts.terminal import way, way_count
from loquet.core.provenance import Source, Working, WorkingInput

RANK: Mapping[NetKind, int] = {"ground": 0, "supply": 1, "switched": 2, "signal": 2}
Ends = tuple[Thing, Thing]
MEETING_NM = 100_000


def pairs_of(brief: Brief) -> dict[str, Ends]:
    """The two ends of every link by its name; raises RecipeNotPossible where they are not two that
    go together, on two boards.
    """
    pairs = {}
    for name, ends in ends_of(brief).items():
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
        if ends[0].joint() != ends[1].joint():
            raise RecipeNotPossible(
                "board link",
                f"one end of link {name} is plugged and the other has a cable",
                "Plug both, or take a cable at both.",
            )
        pairs[name] = (ends[0], ends[1])
    return pairs


def refuse_links(brief: Brief) -> None:
    """Raise RecipeNotPossible where boards that carry parts are not joined, or are joined in a
    ring.
    """
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


def link_fragments(
    brief: Brief, made: Sequence[Fragment], parts: Mapping[str, Part]
) -> list[Fragment]:
    """The ends of all links with their pads; ways that no line needs carry ground.

    Raises RecipeNotPossible where lines are more than ways.
    """
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
        ways = way_count(parts[ends[0].part].terminals)
        taken = open_lines[:ways]
        carried |= {(between, net) for net in taken}
        later = [p for n, p in pairs.items() if n > name and same_boards(p, ends)]
        if len(open_lines) > ways and not later:
            raise RecipeNotPossible(
                "board link",
                f"{len(lines)} lines cross at link {name}, and its header has {ways} ways",
                "Take a wider header, put a second link beside it, or read the keys in a matrix.",
            )
        nets = taken + [GROUND] * (ways - len(taken))
        fragments.append(
            both_ends(brief, name, ends, numbered(nets, parts[ends[0].part]), parts, len(lines))
        )
    return fragments


def numbered(nets: Sequence[str], part: Part) -> dict[str, str]:
    """Nets by the pad of their way, from way 1."""
    return {part.pad(way(index + 1)): net for index, net in enumerate(nets)}


def met_by(brief: Brief, ends: Ends, part: Part) -> dict[str, str]:
    """Where one end is plugged into the other: the pad of the first that meets each pad of the
    second, by number.

    Boards lie flat over one another, the same way up where the ends are on opposite sides; where
    both are on one side, the second board is turned over about its upright axis, so left and right
    change. Raises RecipeNotPossible where posts and holes do not lie on each other.
    """
    a, b = (seat_of_thing(brief, end) for end in ends)
    middles = {pad.number: middle_of(pad.shape) for pad in pattern_of(part.body).pads}
    over = -1 if a.far == b.far else 1
    found = {}
    for number, middle in middles.items():
        x, y = b.point(*middle)
        here = a.x + over * (x - b.x), a.y + y - b.y
        near = min(middles, key=lambda other: dist(a.point(*middles[other]), here))
        if dist(a.point(*middles[near]), here) > MEETING_NM:
            raise RecipeNotPossible(
                "board link",
                f"{ends[0].name} and {ends[1].name} are plugged together and do not lie on each"
                " other",
                "Turn one of them so that both rows run the same way.",
            )
        found[number] = near
    return found


def both_ends(
    brief: Brief,
    name: str,
    ends: Ends,
    nets: Mapping[str, str],
    parts: Mapping[str, Part],
    lines: int,
) -> Fragment:
    """The two headers, pin n of one on the net of pin n of the other; or of the pin that it
    meets.
    """
    joint = ends[0].joint()
    met = met_by(brief, ends, parts[ends[0].part]) if joint and joint.plugged else {}
    other_nets = {number: nets[met.get(number, number)] for number in nets}
    components = tuple(
        Component(
            role=end.role(),
            part=end.part,
            block="link",
            value=f"link {name}",
            purpose=f"Link {name} to {other.board}",
            pads=dict(pads),
            thing=end.name,
            board=end.board,
            printed=f"link {name}",
        )
        for end, other, pads in ((*ends, nets), (*ends[::-1], other_nets))
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

"""Boards that are joined: the ends of links, what can be reached over them, and where another board
shows itself on this one.
"""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence

from loquet.core.brief.model import Brief
from loquet.core.brief.seats import seat_of_thing
from loquet.core.brief.thing import Thing

Ends = Sequence[Thing]


def ends_of(brief: Brief) -> Mapping[str, Ends]:
    """The ends of every link by its word, in the order of the words; a link that is not whole has
    other than two.
    """
    found: dict[str, list[Thing]] = defaultdict(list)
    for thing in brief.things:
        joint = thing.joint()
        if joint is not None:
            found[joint.word].append(thing)
    return {word: found[word] for word in sorted(found)}


def side_of(board: str, links: Iterable[Ends]) -> set[str]:
    """The boards that can be reached from one over these links."""
    rows, reached, waiting = list(links), {board}, [board]
    while waiting:
        here = waiting.pop()
        for ends in rows:
            boards = {end.board for end in ends}
            if here in boards:
                waiting += boards - reached
                reached |= boards
    return reached


def end_towards(brief: Brief, board: str, other: str) -> Thing | None:
    """The end on a board over which another board is reached; None where it is the same board, or
    nothing joins them.
    """
    if board == other:
        return None
    links = ends_of(brief)
    for word, ends in links.items():
        rest = [row for name, row in links.items() if name != word]
        mine = [end for end in ends if end.board == board]
        far = [end for end in ends if end.board != board]
        if mine and any(other in side_of(end.board, rest) for end in far):
            return mine[0]
    return None


def aim(brief: Brief, board: str, thing: Thing, at: tuple[int, int]) -> tuple[int, int] | None:
    """Where a track from a board to a point of a thing goes (nm): the point itself, the end of the
    link that leads there, or nobody knows.
    """
    if thing.board == board:
        return at
    end = end_towards(brief, board, thing.board)
    if end is None or end.place is None:
        return None
    seat = seat_of_thing(brief, end)
    return seat.x, seat.y

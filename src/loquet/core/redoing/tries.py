"""Several tries at a board: the same parts arranged in other ways, routed and poured, with the
figures by which they are compared.
"""

from loquet.core.design import Design, slice_of
from loquet.core.freshness import placement_inputs, whole_text
from loquet.core.library import Library
from loquet.core.pipeline import Progress, run_stage
from loquet.core.plain.frozen import Frozen, canonical, digest_of, digest_of_text
from loquet.core.reviewing import review

TRIES = 4
VIA_AS_MM = 3.0


class Try(Frozen):
    """What came of one arrangement of a board: connections left open, pieces that ground falls
    into, stops of the Board station, and what was laid.
    """

    number: int
    open_links: int
    islands: int
    stops: int
    length_mm: float
    vias: int
    pieces: int

    @property
    def rank(self) -> tuple[float, ...]:
        """Less is better: what is not whole first, then the way of the current, a via counted as so
        many millimetres of it (common practice, no source).
        """
        broken = self.open_links + self.islands - 1 + self.stops
        return broken, round(self.length_mm + VIA_AS_MM * self.vias, 3), self.pieces, self.number


def tried(
    design: Design, library: Library, board: str, number: int, progress: Progress = lambda _: True
) -> Design:
    """The design with a board placed, routed and poured in one arrangement; raises what the stages
    raise.
    """
    made = design.with_arrangement(board, number)
    for stage in ("placement", "routing", "pour"):
        made = run_stage(made, stage, library, progress, board)
    return made


def figures_of(design: Design, library: Library, board: str) -> Try:
    """The figures of a board as it stands."""
    routing, pour = slice_of(design.routing, board), slice_of(design.pour, board)
    length = sum(
        ((t.x1_nm - t.x2_nm) ** 2 + (t.y1_nm - t.y2_nm) ** 2) ** 0.5 for t in routing.tracks
    )
    stops = [f for f in review(design, library) if f.severity == "stop" and f.station == "board"]
    return Try(
        number=design.arrangement(board),
        open_links=len(routing.open_links),
        islands=pour.islands,
        stops=sum(f.rule not in ("unrouted", "ground-island") for f in stops),
        length_mm=round(length / 1e6, 2),
        vias=len(routing.vias),
        pieces=len(routing.tracks),
    )


def tries_key(design: Design, board: str) -> str:
    """What tries of a board depend on, whichever of them is wanted now."""
    plain = design.with_arrangement(board, 1)
    wires = plain.choices.wires.get(board)
    drawn = digest_of(wires) if wires else ""
    placed = whole_text(placement_inputs(plain, board))
    poured = plain.choices.pours.get(board)
    about = [placed, canonical(drawn), canonical(plain.choices.house)]
    about += [canonical(digest_of(poured))] if poured else []
    return digest_of_text(whole_text({"tries": f"[{','.join(about)}]"}))

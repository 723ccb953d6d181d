"""Lengths along tracks and branches of clocks, on ways drawn by hand."""

from dataclasses import replace

import pytest

from loquet.core.board import BoardView, Routing, Track, Via
from loquet.core.board.copper import NEAR, Copper
from loquet.core.checks.rules import bus_branches
from loquet.core.checks.rules.bus_branches import branches
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import Net
from loquet.core.design import Design
from loquet.core.geometry import Box
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.provenance import Failed, Outcome, Passed
from loquet.core.reviewing import subject_of
from tests.core.laying import way

MM = 1_000_000


@pytest.fixture
def view(finished: Design, library: Library) -> BoardView:
    return board_view(finished, library)


def drawn(
    view: BoardView,
    pads: dict[str, tuple[float, float, str]],
    tracks: list[Track],
    *vias: tuple[float, float],
    net: str = "CARD_CLOCK",
) -> BoardView:
    """A board with one net: pads by reference at places in mm on a side, tracks and vias."""
    found = tuple(Via(net=net, x_nm=round(x * MM), y_nm=round(y * MM)) for x, y in vias)
    nets = (Net(name=net, kind="signal", pads=tuple((ref, "1") for ref in pads)),)
    circuit = Circuit(components=(), nets=nets, workings=())
    made = replace(view, circuit=circuit, routing=Routing(tracks=tuple(tracks), vias=found))
    made.__dict__["pads"] = tuple(
        Copper(net, (side,), Box(round(x * MM), round(y * MM), MM, MM), "pad", ref, "1")
        for ref, (x, y, side) in pads.items()
    )
    return made


def test_a_branch_is_what_hangs_beside_the_longest_way() -> None:
    """Of three contacts at 100, 90 and 110 mm from each other the longest way is 110; the third
    hangs half of 100 + 90 - 110 beside it.
    """
    lengths = {("a", "b"): 100.0, ("a", "c"): 90.0, ("b", "c"): 110.0}
    both = lengths | {(y, x): v for (x, y), v in lengths.items()}
    assert branches(both) == {"a": 40.0}
    assert branches({}) == {}


def outcome_of(view: BoardView, design: Design, library: Library) -> Outcome:
    subject = replace(subject_of(design, library), view=view, views=(view,))
    return bus_branches.RULE.run(subject)


@pytest.mark.parametrize(("branch", "found"), [(49.8, False), (50.2, True)])
def test_a_long_branch_of_a_clock_is_found(
    branch: float, found: bool, view: BoardView, finished: Design, library: Library
) -> None:
    """The limit by hand: an edge of 2 ns is 300 mm long, a sixth of it 50 mm."""
    net = "CARD_CLOCK"
    pads = {"U1": (-60.0, 0.0, NEAR), "U2": (100.0, 0.0, NEAR), "U3": (40.0, branch, NEAR)}
    tracks = way((-60, 0), (100, 0), net=net) + way((40, 0), (40, branch), net=net)
    said = outcome_of(drawn(view, pads, tracks), finished, library)
    assert isinstance(said, Failed if found else Passed)
    if isinstance(said, Failed):
        (one,) = said.findings
        assert "CARD_CLOCK branches for 50 mm to U3 pad 1; 50 mm are the most." in one.sentence
        assert "part:U3" in one.about

"""The net between a converter and its coil: wide, short, on one side; and marks that must be
read.
"""

from dataclasses import replace
from math import hypot

import pytest

from loquet.core.board import BoardView, Via
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Outcome
from loquet.core.design import Design
from loquet.core.geometry import Seat
from loquet.core.legend import drawing, legend_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.placement.rooms import near_rects
from loquet.core.provenance import Failed, Passed
from loquet.core.quantities.lengths import MM
from loquet.core.reviewing import subject_of
from tests.making import device, thing


@pytest.fixture(scope="module")
def design(library: Library) -> Design:
    """Fed by a block of 9 V through a step-down converter, with two plugs that look alike."""
    chip = thing("chip", "chip", part="stm32l433rct6")
    block = thing("nine-volt", "block", converter="buck")
    plugs = (thing("speaker", "speaker", 60, 50), thing("light-chain", "ring", 90, 40, count=2))
    return bring_up_to_date(Design(brief=device(chip, block, *plugs)), library)


@pytest.fixture(scope="module")
def view(design: Design, library: Library) -> BoardView:
    return board_view(design, library)


def asked(rule: str, design: Design, library: Library, view: BoardView) -> Outcome:
    subject = replace(subject_of(design, library), view=view)
    return next(r for r in RULES if r.id == rule).run(subject)


def test_it_is_laid_wide_short_and_without_vias(
    design: Design, library: Library, view: BoardView
) -> None:
    """Figures of common practice: at least 0.4 mm but for a neck at the pin, at most 10 mm."""
    assert isinstance(asked("switch-node", design, library, view), Passed)
    (net,) = (n.name for n in view.circuit.nets if n.kind == "switched")
    assert view.routing is not None
    tracks = [t for t in view.routing.tracks if t.net == net]
    length = sum(hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) for t in tracks)
    assert 0 < length <= 10 * MM
    assert max(t.width_nm for t in tracks) >= 0.4 * MM
    via = Via(net=net, x_nm=tracks[0].x1_nm, y_nm=tracks[0].y1_nm)
    thin = tuple(t.model_copy(update={"width_nm": 200_000}) for t in tracks)
    others = tuple(t for t in view.routing.tracks if t.net != net)
    for changed, words in (
        ({"vias": (*view.routing.vias, via)}, "goes over 1 vias"),
        ({"tracks": (*others, *thin * 6)}, "mm long and is thin over"),
    ):
        routing = view.routing.model_copy(update=changed)
        failed = asked("switch-node", design, library, replace(view, routing=routing))
        assert isinstance(failed, Failed)
        assert words in failed.findings[0].sentence


def test_every_mark_stands_whole_beside_its_own(
    design: Design, library: Library, view: BoardView, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Nothing is printed in another body; where the mark of a chip finds no place, that is a
    stop.
    """
    legend = legend_of(view)
    assert legend.unmarked == ()
    assert isinstance(asked("marks-whole", design, library, view), Passed)
    monkeypatch.setattr(drawing, "LEGENDS", type(drawing.LEGENDS)(1))
    monkeypatch.setattr("loquet.core.legend.marks.first_pin_places", lambda *_: iter(()))
    failed = asked("marks-whole", design, library, view)
    assert isinstance(failed, Failed)
    stopped = {f.about[0] for f in failed.findings if f.severity == "stop"}
    assert "part:U1" in stopped


def test_far_parts_keep_room_on_the_near_side(library: Library) -> None:
    """A slide switch on the far side: each pad and each peg that comes through takes its room in
    front, and a quarter of a millimetre.
    """
    pattern = library.pattern("switch-slide-surface")
    rects = near_rects(pattern, Seat(0, 0, 0, True))
    assert len(pattern.holes) == 2
    assert len(rects) == 2 + sum(pad.drill_nm > 0 for pad in pattern.pads)
    for peg in pattern.holes:
        x, reach = -peg.x, peg.d / 2 + 250_000
        assert any(a <= x - reach + 1 and x + reach - 1 <= b for a, _, b, _ in rects)

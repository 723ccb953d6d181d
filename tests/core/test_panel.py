"""Panels: laid out by hand-worked sizes, and refused with a reason."""

from dataclasses import replace
from pathlib import Path

import pytest

from loquet.core.board.copper import BoardView
from loquet.core.brief import PolygonOutline
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.design import Design
from loquet.core.fabrication.panel_files import place_rows
from loquet.core.geometry import Box
from loquet.core.library import Library
from loquet.core.lookup.panelling import panel_of
from loquet.core.panel import Panel, lay_panel
from loquet.core.panel.figures import panel_figures
from loquet.core.panel.sides import Span, overhang
from loquet.core.panel.tabs import Tab, tab_places
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.release import release
from loquet.core.reviewing import review
from tests.core.panels import with_panel
from tests.foreign_reader import opened
from tests.making import as_made, varied

MM = 1_000_000


def laid(design: Design, library: Library, **choice: object) -> Panel:
    asked = with_panel(design, **choice)
    panel = panel_of(board_view(asked, library, "main"), asked.choices, library)
    assert panel is not None
    return panel


SQUARE = {"kind": "rounded-rectangle", "width_mm": 70, "height_mm": 40, "corner_mm": 0}


@pytest.fixture(scope="module")
def square(library: Library) -> Design:
    """The pod with square corners."""
    brief = varied("dome-pod", boards=[{"name": "main", "outline": SQUARE}])
    return bring_up_to_date(Design(brief=brief), library)


def test_its_size_and_places_by_hand(small: Design, library: Library) -> None:
    # the pod is 70 x 40 mm: two columns with a slot of 2 mm are 142 mm; rails of 6, three rows, and
    # four slots of 2 are 140 mm
    panel = laid(small, library)
    assert (panel.width, panel.height) == (142 * MM, 140 * MM)
    assert panel.copies == tuple((x * MM, y * MM) for y in (8, 50, 92) for x in (0, 72))
    assert panel.rails == ((0, 0, 142 * MM, 6 * MM), (0, 134 * MM, 142 * MM, 140 * MM))
    assert panel.tabs == 2 * 2 * 4
    assert panel.marks == ((9 * MM, 3 * MM), (133 * MM, 3 * MM), (9 * MM, 137 * MM))
    tooling = [(h.x, h.y, h.d) for h in panel.holes if h.owner == "tooling"]
    assert tooling == [(x * MM, y * MM, 2 * MM) for y in (3, 137) for x in (4, 138)]
    # two tabs at each rail with six holes at their one board, two with twelve at each of two slots
    # between rows, in two columns
    assert sum(h.owner == "tab" for h in panel.holes) == 2 * (2 * 6 * 2 + 2 * 12 * 2)


def pushed(view: BoardView, x_nm: int, y_nm: int) -> tuple[BoardView, str]:
    """The board with one part at a place, all of it under a body of 4 x 8 mm; and which part."""
    ref = min(view.seats, key=lambda r: view.patterns[r].body.w)
    seat = {"x_nm": x_nm, "y_nm": y_nm, "turn_deg": 0}
    pattern = replace(view.patterns[ref], body=Box(0, 0, 4 * MM, 8 * MM))
    view = replace(view, patterns={**view.patterns, ref: pattern})
    parts = tuple(p.model_copy(update=seat) if p.ref == ref else p for p in view.placement.parts)
    moved = replace(view, placement=view.placement.model_copy(update={"parts": parts}))
    return moved, ref


def low_tabs(view: BoardView, brittle: frozenset[str] = frozenset()) -> list[Span]:
    """From where to where the lower tabs lie on a panel of one board."""
    panel = lay_panel(view, PanelChoice(columns=1, rows=1), 0, brittle)
    assert panel.troubles == ()
    (dx, _), holes = panel.copies[0], [h for h in panel.holes if h.owner == "tab"]
    middles = sorted(h.x - dx for h in holes if h.y < 20 * MM)
    # six holes at 0.8 mm reach 2 mm from the middle of a tab of 5 mm
    return [(u - MM // 2, u - MM // 2 + 5 * MM) for u in middles[::6]]


def test_tabs_at_the_quarters_give_way_to_what_stands_at_the_edge(
    square: Design, library: Library
) -> None:
    view = board_view(square, library, "main")
    assert low_tabs(view) == [(15 * MM, 20 * MM), (50 * MM, 55 * MM)]
    # its lower edge 0.9 mm inside, its flanks at 15 and 19: the tab keeps 1 mm from the nearer; 1.1
    # mm inside: nothing to keep from
    at_edge, ref = pushed(view, 17 * MM, 4_900_000)
    assert low_tabs(at_edge)[0] == (20 * MM, 25 * MM)
    inside, _ = pushed(view, 17 * MM, 5_100_000)
    assert low_tabs(inside)[0] == (15 * MM, 20 * MM)
    # a large ceramic capacitor keeps 3 mm
    assert low_tabs(inside, frozenset({ref}))[0] == (22 * MM, 27 * MM)
    deep, _ = pushed(view, 17 * MM, 7_100_000)
    assert low_tabs(deep, frozenset({ref}))[0] == (15 * MM, 20 * MM)


def test_a_scored_panel(square: Design, library: Library) -> None:
    # no slots: two columns are 140 mm, two rows with rails of 7 are 94 mm; lines at the rails,
    # between rows, between columns
    panel = laid(square, library, by="score", rows=2, rail_mm=7)
    assert panel.troubles == ()
    assert (panel.width, panel.height) == (140 * MM, 94 * MM)
    lines = {(a[0] / MM, a[1] / MM, b[0] / MM, b[1] / MM) for a, b in panel.scores}
    assert lines == {(0, 7, 140, 7), (0, 47, 140, 47), (0, 87, 140, 87), (70, 0, 70, 94)}
    assert len(panel.pieces) == 4
    assert panel.tabs == 0
    made = release(with_panel(square, by="score", rows=2, rail_mm=7), library)
    assert made.ready
    assert made.proof is not None
    assert made.proof.copies == 4
    assert b"Vcut" in made.files["panel/score.gbr"]


def stops(design: Design, library: Library) -> list[tuple[str, str]]:
    return [(f.severity, f.sentence) for f in review(design, library) if f.rule == "panel-made"]


def at_house(design: Design, house: str, finish: str) -> Design:
    return design.model_copy(
        update={
            "brief": as_made(design.brief, finish=finish),
            "choices": design.choices.model_copy(update={"house": house}),
        }
    )


def test_what_cannot_be_made_is_a_stop_with_a_way_out(
    small: Design, square: Design, library: Library
) -> None:
    ((severity, words),) = stops(with_panel(small, by="score"), library)
    assert severity == "stop"
    assert "not a rectangle with square corners" in words
    assert release(with_panel(small, by="score"), library).files == {}
    # Millrace pours to 0.30 mm of the edge and scores there; another that asks 0.45 mm does not
    view = board_view(square, library, "main")
    (near,) = lay_panel(view, PanelChoice(by="score"), 450_000).troubles
    assert "Copper lies 0.31 mm from the edge of main; a score line asks 0.45 mm" in near.sentence
    assert lay_panel(view, PanelChoice(by="score"), 300_000).troubles == ()
    # Ropewalk makes no panels and nothing over 160 x 100 mm
    pooled = stops(at_house(with_panel(small), "ropewalk", "lead-free solder"), library)
    assert any("does not make panels" in words for _, words in pooled)
    assert any("142.0 x 140.0 mm" in words for _, words in pooled)
    # 5 devices from panels of 6
    ((severity, words),) = stops(with_panel(small), library)
    assert (severity, words[:46]) == ("note", "5 devices do not fill panels of 6: 6 boards of")
    assert stops(with_panel(small, columns=5, rows=1), library) == []
    narrow = laid(square, library, columns=1, rows=1)
    assert narrow.troubles == ()


def shaped(view: BoardView, points: list[list[float]]) -> BoardView:
    """Another outline under the same parts, all of them in its middle."""
    outline = PolygonOutline(kind="polygon", points_mm=points)
    board = view.board.model_copy(update={"outline": outline})
    brief = view.brief.model_copy(update={"boards": (board,), "things": ()})
    middle = {"x_nm": 35 * MM, "y_nm": 30 * MM}
    parts = tuple(p.model_copy(update=middle) for p in view.placement.parts)
    placement = view.placement.model_copy(update={"parts": parts})
    return replace(view, board=board, brief=brief, placement=placement, routing=None, pour=None)


def test_a_side_without_straight_edge_turns_the_rails(square: Design, library: Library) -> None:
    # points above and below and straight flanks of 40 mm: the rails go to the left and right; 6 + 2
    # + 70 + 2 + 70 + 2 + 6 mm
    view = board_view(square, library, "main")
    pointed = shaped(view, [[0, 10], [35, 0], [70, 10], [70, 50], [35, 60], [0, 50]])
    panel = lay_panel(pointed, PanelChoice(columns=2, rows=1, rail_mm=6), 0)
    assert panel.troubles == ()
    assert panel.rails == ((0, 0, 6 * MM, 60 * MM), (152 * MM, 0, 158 * MM, 60 * MM))
    assert (panel.width, panel.height) == (158 * MM, 60 * MM)
    assert panel.copies == ((8 * MM, 0), (80 * MM, 0))
    lozenge = shaped(view, [[35, 0], [70, 30], [35, 60], [0, 30]])
    troubles = lay_panel(lozenge, PanelChoice(), 0).troubles
    assert {t.sentence.split(" of main")[0] for t in troubles} == {
        "No tab finds room at the bottom side",
        "No tab finds room at both facing sides",
        "No tab finds room at the top side",
    }
    assert all("order the boards singly" in t.way_out for t in troubles)
    # rails of 20 mm hold no two marks 9 mm from their ends with room between
    small = shaped(view, [[25, 20], [45, 20], [45, 40], [25, 40]])
    (short,) = lay_panel(small, PanelChoice(columns=1, rows=1), 0).troubles
    assert short.sentence.startswith("The rails are 20.00 mm long")


def test_what_stands_out_widens_the_slots(square: Design, library: Library) -> None:
    view = board_view(square, library, "main")
    # a body pushed 3 mm over the right edge: it and half a millimetre need more than the mill's 2
    # mm
    out, _ = pushed(view, 71 * MM, 20 * MM)
    assert overhang(out, "right") == 3 * MM
    assert overhang(out, "left") == 0
    panel = lay_panel(out, PanelChoice(columns=2, rows=1), 0)
    assert panel.width == 143_500_000
    scored = lay_panel(out, PanelChoice(by="score"), 0)
    assert any("stand out over the edge of main (right)" in t.sentence for t in scored.troubles)


def test_only_a_rectangle_is_scored(square: Design, library: Library) -> None:
    """An L has straight sides and is none; a lozenge has four sides and is none."""
    view = board_view(square, library, "main")
    ell = [[0, 0], [70, 0], [70, 60], [40, 60], [40, 40], [0, 40]]
    for points in (ell, [[35, 0], [70, 30], [35, 60], [0, 30]]):
        (trouble,) = lay_panel(shaped(view, points), PanelChoice(by="score"), 0).troubles
        assert "not a rectangle with square corners" in trouble.sentence
    plain = [[0, 0], [70, 0], [70, 60], [0, 60]]
    assert lay_panel(shaped(view, plain), PanelChoice(by="score"), 0).troubles == ()


@pytest.mark.parametrize(
    ("allowed", "run", "middles"),
    [
        # quarters of a side of 40 mm that begins at 10: 20 and 40
        ([(10, 50)], (10, 50), (20, 40)),
        # shorter than 25 mm: one in the middle
        ([(10, 34)], (10, 34), (22,)),
        ([(10, 35)], (10, 35), (10 + 6.25, 10 + 18.75)),
        # the nearer end of what is free; half a tab from it
        ([(10, 16), (44, 50)], (10, 50), (13.5, 46.5)),
        # so near together that one has to do, as near the middle as it can
        ([(26, 38)], (10, 50), (30,)),
        ([(14, 19)], (10, 50), (16.5,)),
        ([(14, 18.9)], (10, 50), ()),
        ([], (10, 50), ()),
    ],
)
def test_tabs_stand_near_the_quarters(
    allowed: list[tuple[float, float]], run: tuple[float, float], middles: tuple[float, ...]
) -> None:
    spans = [(round(a * MM), round(b * MM)) for a, b in allowed]
    found = tab_places(spans, (round(run[0] * MM), round(run[1] * MM)))
    assert found == tuple(round(m * MM) for m in middles)


def test_figures_of_a_panel_are_shown_with_their_units(small: Design, library: Library) -> None:
    """Seven devices on panels of six: two panels, twelve boards."""
    choice = PanelChoice(columns=2, rows=3, rail_mm=6)
    shown = {f.title: f.shown for f in panel_figures(laid(small, library), choice, 7)}
    assert shown == {
        "Width": "142.0 mm",
        "Height": "140.0 mm",
        "Panels needed": "2",
        "Boards that come": "12",
    }


def test_holes_of_a_tab_by_hand() -> None:
    """Six at 0.8 mm about the middle; where copper keeps 0.3 mm from the edge they reach 0.1 mm
    less far out than half their 0.5 mm, where it keeps 0.2 mm or less they lie outside.
    """
    across = [8.0, 8.8, 9.6, 10.4, 11.2, 12.0]
    tab = Tab(10 * MM, 0, 2 * MM, True, True)
    assert [(u / MM, v / MM) for u, v in tab.bites(300_000)] == [
        (u, v) for v in (0.15, 1.85) for u in across
    ]
    assert [(u / MM, v / MM) for u, v in replace(tab, low_is_board=False).bites(200_000)] == [
        (u, 1.75) for u in across
    ]
    assert {v for _, v in replace(tab, high_is_board=False).bites(100_000)} == {250_000}
    assert tab.span == (7.5 * MM, 12.5 * MM)


def test_rails_hold_their_holes_and_marks(square: Design, library: Library) -> None:
    """Marks 9 mm from both ends and 6 mm between them: 24 mm at least."""
    view = board_view(square, library, "main")
    bare = {
        ref: replace(p, body=Box(0, 0, MM, MM), pads=(), holes=())
        for ref, p in view.patterns.items()
    }
    for wide, kept in ((23.9, False), (24.0, True)):
        small = shaped(replace(view, patterns=bare), [[0, 0], [wide, 0], [wide, 60], [0, 60]])
        said = [
            t.sentence
            for t in lay_panel(small, PanelChoice(by="score", columns=1, rows=1), 0).troubles
        ]
        short = [s for s in said if s.startswith("The rails are")]
        assert len(short) == (0 if kept else 1), said


def test_parts_of_every_copy_are_where_its_board_is(small: Design, library: Library) -> None:
    """Six copies, 72 mm across and 42 mm up from each other, the first one 8 mm up: every part as
    many times, moved by as much.
    """
    view, panel = board_view(small, library), laid(small, library)
    rows = place_rows(view, panel)
    at = {(int(copy), ref): (float(x), float(y)) for copy, ref, _, x, y, _ in rows}
    seat = view.seats["U1"]
    for copy, (across, up) in enumerate(((0, 8), (72, 8), (0, 50), (72, 50), (0, 92), (72, 92)), 1):
        assert at[copy, "U1"] == pytest.approx((seat.x / MM + across, seat.y / MM + up), abs=1e-3)
    assert len(rows) == 6 * len([c for c in view.circuit.components if not c.bare])


def test_score_lines_are_thin_and_far_from_copper_as_the_house_asks(
    square: Design, library: Library, tmp_path: Path
) -> None:
    """Lines of 0.1 mm from rail to rail, read by another reader; a house that asks 0.35 mm does not
    score beside copper at 0.31 mm.
    """
    made = release(with_panel(square, by="score", rows=2, rail_mm=7), library)
    (tmp_path / "score.gbr").write_bytes(made.files["panel/score.gbr"])
    drawn = opened(tmp_path / "score.gbr").objects
    assert {line.aperture.diameter for line in drawn} == {0.1}
    assert {(line.x1, line.y1, line.x2, line.y2) for line in drawn} >= {
        (0, 7, 140, 7),
        (70, 0, 70, 94),
    }
    choices = with_panel(square, by="score").choices
    strict = choices.model_copy(update={"house": "saltmarsh"})
    view = board_view(square, library, "main")
    near, far = (panel_of(view, c, library) for c in (choices, strict))
    assert near is not None
    assert near.troubles == ()
    assert far is not None
    assert "a score line asks 0.35 mm" in far.troubles[0].sentence

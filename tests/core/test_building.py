"""Soldering order, reflow curves, sticks: known by hand and by J-STD-020."""

from dataclasses import replace
from math import cos, pi, sin
from typing import Any

import pytest

from loquet.catalogue.bundled import pastes
from loquet.core.board import BoardView
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.build.reflow import (
    BadCurve,
    Point,
    checked_curve,
    profile,
    read_curve,
    seconds_between,
    slopes,
)
from loquet.core.build.steps import Step, build_steps, layered
from loquet.core.build.sticks import BadSamples, Sample, stick_result
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.parts.paste import Paste
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.shelf.faults import paste_faults
from loquet.core.stack.stacking import stack_of
from tests.making import device, thing

PASTES = pastes()


def steps_of(view: BoardView, library: Library, hand: bool = True) -> tuple[Step, ...]:
    return build_steps(view, library, stack_of(view, library, StackChoices(), 1.6), hand)


@pytest.fixture(scope="module")
def view(finished: Design, library: Library) -> BoardView:
    return board_view(finished, library)


def heights(step: Step, view: BoardView) -> list[float]:
    return [view.heights_mm[p.ref] for p in step.parts]


def test_by_hand_fine_leads_come_first_and_tall_parts_last(
    view: BoardView, library: Library
) -> None:
    """K53: the chip while nothing is around it, then from flat to tall on both sides, leads through
    the board after that, power and cells at the end; every part once.
    """
    steps = steps_of(view, library)
    titles = [s.title for s in steps]
    assert titles[0] == "Look at the bare board"
    assert titles[1] == "Fine leads, near side"
    assert [p.ref for p in steps[1].parts] == ["U1"]
    assert titles[-5:-2] == ["First power", "Program over J2", "The screen"]
    assert titles[-2:] == ["The cell, last", "Try everything, then close"]
    surface = [s for s in steps if s.parts and "leads" not in s.title.lower()]
    tallest = [max(heights(s, view)) for s in surface]
    bands = [0 if t <= 1 else 1 if t <= 3 else 2 for t in tallest]
    assert bands == sorted(bands)
    for step in surface:
        assert heights(step, view) == sorted(heights(step, view))
    soldered = steps[: titles.index("Wash and look")]
    refs = [p.ref for s in soldered for p in s.parts]
    wanted = {c.ref for c in view.circuit.components if not c.bare and view.heights_mm[c.ref] > 0}
    assert sorted(refs) == sorted(wanted)
    assert [s.far for s in surface if "Tall" in s.title] == [False, True]


def test_on_a_plate_paste_comes_before_everything(view: BoardView, library: Library) -> None:
    """K53: paste after hand soldering does not lie flat; the side with fewer parts is heated
    first.
    """
    titles = [s.title for s in steps_of(view, library, hand=False)]
    assert titles[1:5] == [
        "Paste, far side",
        "Parts and heat, far side",
        "Paste, near side",
        "Parts and heat, near side",
    ]
    first_hand = next(i for i, t in enumerate(titles) if "with leads" in t)
    assert first_hand > 4


def test_every_step_says_which_way_round_parts_go(view: BoardView, library: Library) -> None:
    """K52: the light by its cathode, the chip by pin 1, a resistor either way."""
    turns = {p.ref: p.turn for s in steps_of(view, library) for p in s.parts}
    by_purpose = {c.purpose: c.ref for c in view.circuit.components}
    assert "cathode" in turns[by_purpose["Indicator light"]]
    assert "pin 1" in turns["U1"]
    assert turns["R1"] == ""
    assert "plus" in turns["BT1"]


def test_techniques_and_cautions_stand_where_they_matter(view: BoardView, library: Library) -> None:
    """K54: pads tinned on both ends lift a part.

    Heat, fumes and cutters are said where they can hurt.
    """
    steps = {s.title: s for s in steps_of(view, library)}
    assert "Tin one pad only" in steps["Flat parts, near side"].technique
    assert any("fumes" in c for c in steps["Flat parts, near side"].cautions)
    through = next(s for t, s in steps.items() if "with leads" in t)
    assert any("Cut leads" in c for c in through.cautions)
    assert steps["First power"].cautions == ()


def test_a_module_is_programmed_before_it_is_soldered(library: Library) -> None:
    """K53; and a lithium cell comes last with its caution."""
    brief = device(
        thing("ready-module", "module", 30, 30),
        thing("button", "go", 90, 30),
        thing("lithium-cell", "cell", 60, 30, far=True),
        thing("speaker", "speaker", 90, 45),
    )
    view = board_view(bring_up_to_date(Design(brief=brief), library, "placement"), library)
    steps = steps_of(view, library)
    module = next(s for s in steps if s.title.startswith("Module"))
    assert module.how.startswith("Program it first")
    cell, closing = steps[-2:]
    assert (cell.title, closing.title) == ("The cell, last", "Try everything, then close")
    assert any("lithium" in c for c in cell.cautions)
    wires = next(s for s in steps if s.title == "Wires")
    assert "the speaker" in wires.how
    assert steps.index(wires) < steps.index(cell) - 1


# Reflow


def test_the_limits_are_those_of_the_standard() -> None:
    """J-STD-020, table 5-2; from memory: soak 150 to 200 °C 60 to 120 s and 217 °C for lead-free,
    100 to 150 °C and 183 °C for tin-lead.
    """
    free, lead = PASTES["lead-free"], PASTES["tin-lead"]
    assert (free.soak_c, free.soak_s, free.liquid_c, free.liquid_s) == (
        (150, 200),
        (60, 120),
        217,
        (60, 150),
    )
    assert (lead.soak_c, lead.soak_s, lead.liquid_c, lead.liquid_s) == (
        (100, 150),
        (60, 120),
        183,
        (60, 150),
    )
    assert (free.peak_c[1], lead.peak_c[1]) == (260, 235)
    assert (free.up_k_s, free.down_k_s, free.whole_s, lead.whole_s) == (3, 6, 480, 360)


@pytest.mark.parametrize("paste", ["lead-free", "tin-lead"])
def test_the_profile_keeps_its_own_limits(paste: str) -> None:
    checks = checked_curve(profile(PASTES[paste]), PASTES[paste])
    assert [c.words for c in checks if not c.kept] == []


@pytest.mark.parametrize(
    ("paste", "hand"),
    [
        (
            "lead-free",
            [
                (0, 25),
                (62.5, 150),
                (152.5, 200),
                (169.5, 217),
                (214.5, 247.5),
                (249.5, 217),
                (312.3, 60),
            ],
        ),
        (
            "tin-lead",
            [
                (0, 25),
                (37.5, 100),
                (127.5, 150),
                (160.5, 183),
                (205.5, 220),
                (240.5, 183),
                (289.7, 60),
            ],
        ),
    ],
)
def test_the_profile_is_drawn_as_it_says(paste: str, hand: list[tuple[float, float]]) -> None:
    """By hand: 2 K/s to the soak, 90 s of it, 1 K/s to the melting point, 45 s to the middle of the
    peak's span, 35 s down to the melting point, 2.5 K/s to 60 °C.
    """
    assert [(p.s, p.c) for p in profile(PASTES[paste])] == hand
    (peak,) = [c for c in checked_curve(profile(PASTES[paste]), PASTES[paste]) if c.words == "Peak"]
    assert peak.asked == {"lead-free": "235 to 260 °C", "tin-lead": "205 to 235 °C"}[paste]


COOL = Paste(
    id="paste/bismuth",
    name="bismuth paste",
    known="typed",
    source="Copperbeck data sheet CB-138 (invented)",
    soak_c=(90, 130),
    soak_s=(60, 120),
    liquid_c=138,
    liquid_s=(30, 90),
    peak_c=(155, 180),
    up_k_s=2.5,
    down_k_s=4,
    whole_s=300,
)


def test_a_paste_of_ones_own_has_its_own_curve() -> None:
    """By hand: 32.5 s to 90 °C, 90 s to 130, 8 s to 138, 45 s to 167.5, 35 s back, 31.2 s on."""
    assert [(p.s, p.c) for p in profile(COOL)] == [
        *((0, 25), (32.5, 90), (122.5, 130), (130.5, 138)),
        *((175.5, 167.5), (210.5, 138), (241.7, 60)),
    ]
    assert [c.words for c in checked_curve(profile(COOL), COOL) if not c.kept] == []
    hot = {c.words: c.kept for c in checked_curve(profile(PASTES["tin-lead"]), COOL)}
    assert not hot["Peak"]
    assert paste_faults(COOL) == ()


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"known": "standard"}, "known"),
        ({"soak_c": (130, 90)}, "soak_c"),
        ({"liquid_s": (90, 90)}, "liquid_s"),
        ({"liquid_c": 155}, "liquid_c"),
        ({"liquid_c": 90}, "liquid_c"),
    ],
)
def test_limits_that_no_curve_keeps_are_refused(change: Any, field: str) -> None:
    assert field in [f.field for f in paste_faults(COOL.model_copy(update=change))]


def test_parts_are_banded_by_their_height(view: BoardView) -> None:
    """Flat up to 1 mm, low up to 3 mm, tall above; a body without height is no part."""
    chosen = view.circuit.components[:6]
    tall = dict(zip((c.ref for c in chosen), (0.0, 1.0, 1.01, 3.0, 3.01, 20.0), strict=True))
    bands = layered(replace(view, heights_mm=tall), chosen)
    assert [(name, [tall[c.ref] for c in parts]) for name, parts in bands] == [
        ("Flat parts", [1.0]),
        ("Low parts", [1.01, 3.0]),
        ("Tall parts", [3.01, 20.0]),
    ]


def points(*pairs: tuple[float, float]) -> tuple[Point, ...]:
    return tuple(Point(s=s, c=c) for s, c in pairs)


GOOD = ((0, 25), (70, 150), (160, 200), (180, 217), (215, 245), (260, 217), (330, 60))


@pytest.mark.parametrize(
    ("change", "broken"),
    [
        ({}, []),
        (
            {2: (115, 200), 3: (135, 217), 4: (170, 245), 5: (215, 217), 6: (285, 60)},
            ["Soak between 150 and 200 °C"],
        ),
        ({4: (200, 245), 5: (230, 217), 6: (300, 60)}, ["Above 217 °C"]),
        ({4: (215, 263)}, ["Peak"]),
        ({4: (215, 230)}, ["Peak"]),
        ({6: (280, 60)}, ["Steepest way down"]),
    ],
)
def test_a_recorded_curve_is_held_against_every_limit(
    change: dict[int, tuple[float, float]], broken: list[str]
) -> None:
    curve = points(*(change.get(i, pair) for i, pair in enumerate(GOOD)))
    assert [c.words for c in checked_curve(curve, PASTES["lead-free"]) if not c.kept] == broken


@pytest.mark.parametrize("paste", ["lead-free", "tin-lead"])
def test_no_paste_is_heated_by_more_than_three_kelvin_a_second(paste: str) -> None:
    """J-STD-020, table 5-2: 3 °C/s up and 6 °C/s down at the most, of either solder."""
    for seconds, kept in ((34, True), (33, False)):
        up = points((0, 100), (seconds, 200), (seconds + 60, 200))
        assert {c.words: c.kept for c in checked_curve(up, PASTES[paste])}[
            "Steepest way up"
        ] is kept
    for seconds, kept in ((17, True), (16, False)):
        down = points((0, 100), (60, 200), (60 + seconds, 100))
        assert {c.words: c.kept for c in checked_curve(down, PASTES[paste])}[
            "Steepest way down"
        ] is kept


def test_a_part_that_stands_less_heat_lowers_the_peak() -> None:
    checks = {c.words: c for c in checked_curve(points(*GOOD), PASTES["lead-free"], hottest_c=240)}
    assert not checks["Peak"].kept
    assert checks["Peak"].asked == "235 to 240 °C"
    assert max(p.c for p in profile(PASTES["lead-free"], 245)) == 240


def test_times_and_slopes_are_read_off_straight_pieces() -> None:
    """From 0 to 200 °C in 100 s: 25 s between 100 and 150 °C; 2 K/s up, 4 K/s down."""
    curve = points((0, 0), (100, 200), (150, 0))
    assert seconds_between(curve, 100, 150, rising=True) == pytest.approx(25)
    assert seconds_between(curve, 100, 150, rising=False) == pytest.approx(25 + 12.5)
    assert slopes(curve) == pytest.approx((2, 4))


def test_curves_of_any_logger_are_read() -> None:
    """Comma, semicolon with decimal commas, tabs, a heading; what is none is refused with its
    line.
    """
    rows = [(i * 10, 25 + i * 5) for i in range(6)]
    plain = "time,temp\n" + "\n".join(f"{s},{c}.5" for s, c in rows)
    german = "s;°C\n" + "\n".join(f"{s},0;{c},5" for s, c in rows)
    tabs = "\n".join(f"{s}\t{c}.5" for s, c in rows)
    for text in (plain, german, tabs):
        assert [(p.s, p.c) for p in read_curve(text.encode())] == [(s, c + 0.5) for s, c in rows]
    for text, words in (
        ("", "fewer than five"),
        ("a,b\n1,2\n", "fewer than five"),
        (plain + "\n5,30", "line 8"),
        (plain + "\n70,900", "900"),
        (plain + "\nx,y\n", "Line 8"),
        (plain + "\n70,-51", "-51"),
        (plain + "\n70,501", "501"),
    ):
        with pytest.raises(BadCurve, match=words):
            read_curve(text.encode())
    assert read_curve(f"{plain}\n70,-50\n80,500".encode())[-1].c == 500
    with pytest.raises(BadCurve, match="no text"):
        read_curve(b"\xff\xfe\x00")


# Sticks


def moved(
    reach: float = 1700, x0: float = 2047, y0: float = 2047, squeeze: float = 1.0, noise: int = 0
) -> list[Sample]:
    rest = [
        Sample(x=round(x0) + (noise if i % 2 else -noise), y=round(y0), rest=True)
        for i in range(20)
    ]
    turn = [2 * pi * i / 120 for i in range(240)]
    rim = [
        Sample(
            x=round(2047 + reach * cos(a) * (squeeze if cos(a) > 0 else 1)),
            y=round(2047 + reach * sin(a)),
        )
        for a in turn
    ]
    return rest + rim


def test_a_good_stick_is_within_its_limits() -> None:
    """K58: span 3400 of 4095, centre in the middle, round; the lines go into the firmware."""
    result = stick_result("left stick", moved())
    assert result.faults == ()
    assert (result.x.low, result.x.high) == (347, 3747)
    assert result.uneven == pytest.approx(0.0, abs=0.01)
    assert "#define LEFT_STICK_X_CENTRE 2047" in result.firmware
    assert len(result.firmware) == 6


@pytest.mark.parametrize(
    ("samples", "words"),
    [
        (moved(reach=1200), "span"),
        (moved(x0=2347), "centre of x is off by 300"),
        (moved(noise=50), "noise of x is 50"),
        (moved(squeeze=0.8), "less far on one side"),
    ],
)
def test_each_limit_of_a_stick_is_named(samples: list[Sample], words: str) -> None:
    assert any(words in fault for fault in stick_result("s", samples).faults)


def test_so_many_samples_are_enough() -> None:
    """Eight at rest, and two for each of 24 sectors around."""
    rest, rim = moved()[:20], moved()[20:]
    even = rim[::5]
    assert len(even) == 48
    assert stick_result("s", [*rest[:8], *even]).x.low == 347
    for few in ([*rest[:7], *even], [*rest[:8], *even[:47]]):
        with pytest.raises(BadSamples):
            stick_result("s", few)


def test_too_few_samples_are_refused() -> None:
    with pytest.raises(BadSamples, match="twice around"):
        stick_result("s", moved()[:30])

"""Schemes side by side, ladders in the worst case, ways out of a conflict."""

import random
from itertools import pairwise

import pytest

from loquet.core.brief import Brief, Chords, KeyScheme
from loquet.core.design import Design
from loquet.core.edits import EDITS, apply
from loquet.core.library import Library
from loquet.core.pins.needing import needs_of
from loquet.core.pins.schemes.ladder import (
    BITS,
    KEYS_A_LADDER,
    PULL_UP_OHM,
    ladder_windows,
    least_gap,
)
from loquet.core.pins.schemes.timing import expander_scan_us, settle_us
from loquet.core.pins.wiring import wire
from loquet.core.planning.pinning import fits, report_pins, schemes_of, verdict_of, ways_for
from loquet.demo.scenario import demo_brief
from tests.making import thing, varied


@pytest.fixture(scope="module")
def handset() -> Design:
    return Design(brief=demo_brief("ridge-handset"))


def changed(brief: Brief, **fields: object) -> Brief:
    return brief.model_copy(update=fields)


def test_every_scheme_has_its_figures_with_workings(handset: Design, library: Library) -> None:
    cards = {c.name: c for c in schemes_of(handset, library)}
    assert len(cards) == 9
    for card in cards.values():
        assert {w.title for w in card.workings} >= {
            "Added parts",
            "Board area of added parts",
            "Scan time",
            "Longest time from press to report",
        }
        assert all(w.source.text for w in card.workings)
    assert cards["one pin each"].pins == 14
    assert cards["diode matrix"].pins == 8
    assert cards["charlieplexed"].pins == 5
    assert cards["shift register"].pins == 3
    assert cards["expander 16"].pins == 3
    assert cards["resistor ladder"].analogue == 2
    assert not cards["one pin each"].fits
    assert "24 pins" in cards["one pin each"].why_not


def test_one_scheme_is_recommended_with_its_reason_and_it_works(
    handset: Design, library: Library
) -> None:
    best = [c for c in schemes_of(handset, library) if c.recommended]
    assert len(best) == 1
    assert best[0].fits
    assert best[0].reads_chords
    assert "does not fit" in best[0].reason
    after = apply(handset, EDITS.validate_python({"kind": "set-scheme", "scheme": best[0].name}))
    assert report_pins(after, library).plan is not None


def test_a_bare_matrix_shows_its_ghost_and_the_least_cures(
    handset: Design, library: Library
) -> None:
    design = Design(brief=changed(handset.brief, chords=Chords(rule="whole pad")))
    card = next(c for c in schemes_of(design, library) if c.name == "bare matrix")
    assert card.ghosts > 0
    assert card.rollover == 2
    assert card.ghost is not None
    assert len(card.ghost.cells) == len(card.ghost.path) + 1
    cured = changed(design.brief, key_scheme=KeyScheme(name="bare matrix", diodes=card.cure_diodes))
    assert next(
        c for c in schemes_of(Design(brief=cured), library) if c.name == "bare matrix"
    ).reads_chords


@pytest.mark.parametrize("count", range(2, 17))
def test_no_code_of_one_key_can_be_another_keys(count: int) -> None:
    """Random resistors within their tolerance, worn contacts and leakage stay inside the window;
    windows do not touch.
    """
    keys = tuple(f"k{i}" for i in range(count))
    windows = ladder_windows(keys)
    assert least_gap(windows) > 0
    assert all(a.high < b.low for a, b in pairwise(windows))
    chance = random.Random(count)
    for window in windows[:-1]:
        for _ in range(40):
            low = window.resistor_ohm * chance.uniform(0.99, 1.01) + chance.uniform(0, 100)
            high = PULL_UP_OHM * chance.uniform(0.99, 1.01)
            volts = (3.0 * low + chance.uniform(-1e-6, 1e-6) * low * high) / (low + high)
            assert window.low <= min(max(volts, 0), 3) / 3.0 * (2**BITS - 1) <= window.high


def test_a_sloppier_ladder_tells_fewer_keys_apart() -> None:
    """Eight keys of 1 % stay eight codes apart at the worst; looser resistors come nearer."""
    keys = tuple(f"k{i}" for i in range(KEYS_A_LADDER))
    gaps = [least_gap(ladder_windows(keys, tolerance)) for tolerance in (0.01, 0.05, 0.1)]
    assert KEYS_A_LADDER == 8
    assert gaps[0] > gaps[1] > gaps[2]
    assert gaps[0] >= 8


def test_scan_times_by_hand() -> None:
    """3 R C with 40 kΩ and 20 + 4 x 5 pF is 4.8 µs; two bytes of an expander at 400 kHz are 48
    bits, 120 µs.
    """
    assert settle_us(4) == pytest.approx(4.8)
    assert expander_scan_us(1, 16, 400) == pytest.approx(120)


@pytest.mark.parametrize("name", ["bare matrix", "mixed"])
def test_a_power_button_that_is_named_as_direct_has_one_pin(name: str, handset: Design) -> None:
    brief = varied(
        handset.brief,
        plus=(thing("button", "on and off", 75, 20, duty="power"),),
        key_scheme={"name": name, "direct": ["button:on and off", "button:menu"]},
    )
    assert sorted(wire(brief, name).direct) == ["button:menu", "button:on and off"]
    signals = [n.signal for n in needs_of(brief)]
    assert len(signals) == len(set(signals))


def test_ways_out_are_ranked_and_every_one_of_them_works(handset: Design, library: Library) -> None:
    conflict = verdict_of(handset, library)
    assert conflict is not None
    assert "25 signals" in conflict.why
    ways = ways_for(handset, library)
    assert len(ways) >= 6
    assert [w.cost for w in ways] == sorted(w.cost for w in ways)
    assert any("Next chip of the same family" in w.title for w in ways)
    for way in ways:
        design = handset
        for edit in way.edits:
            design = apply(design, EDITS.validate_python(edit))
        assert verdict_of(design, library) is None, way.title


def test_a_parallel_screen_gives_up_bits_or_its_bus(library: Library) -> None:
    parallel = {"bus": "parallel colour", "part": "screen-320x240-parallel", "colour_bits": 15}
    wide = varied(
        "ridge-handset",
        things={"screen": parallel, "chip": {"part": "stm32f072c8t6"}},
        key_scheme={"name": "diode matrix"},
    )
    titles = [w.title for w in ways_for(Design(brief=wide), library)]
    assert not fits(wide, library)
    assert any(t.startswith("Fewer colour bits") for t in titles)
    assert any(t.startswith("Screen on another bus") for t in titles)


def test_where_no_single_change_helps_a_pair_is_offered(library: Library) -> None:
    brief = varied("ridge-handset", things={"chip": {"part": "stm32f042f6p6"}})
    ways = ways_for(Design(brief=brief), library)
    assert ways
    assert any("Next chip" in w.title or ", and " in w.title for w in ways)

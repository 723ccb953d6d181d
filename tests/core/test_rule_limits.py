"""Rules at their limits: what is said just beyond one, and nothing just within."""

from dataclasses import replace

import pytest

from loquet.core.board import Placement
from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.checks.rules import pin_order
from loquet.core.design import Design, slice_of
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.pipeline import board_view
from loquet.core.provenance import Finding, Passed
from loquet.core.reviewing import subject_of
from tests.core.benches import seen_with
from tests.making import as_made, device, thing

MM = 1_000_000
CHIP, LEADS = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads")


def said(rule: str, seen: Subject) -> list[Finding]:
    one = next(r for r in RULES if r.id == rule)
    return findings_of([(one, one.run(seen))])


def of_brief(library: Library, brief: Brief, **changes: object) -> Subject:
    return seen_with(brief, **changes)


def of_board(library: Library, design: Design, **changes: object) -> Subject:
    seen = subject_of(design, library)
    view = replace(board_view(design, library), **changes)
    return replace(seen, view=view)


def test_a_finding_names_its_place_in_mm() -> None:
    found = pin_order.RULE.finding("a", "b", x_nm=12_345_678, y_nm=-1_500_000)
    assert (found.x_mm, found.y_mm) == (12.346, -1.5)


def test_courtyards_say_how_far_a_part_has_to_go(finished: Design, library: Library) -> None:
    view = board_view(finished, library)
    one, other = [c.ref for c in view.circuit.components if c.part == "capacitor-1608"][:2]
    yard = view.patterns[one].courtyard
    first = view.seats[one]
    wide, _ = first.size(yard.w, yard.h)
    turn = next(p for p in slice_of(finished.placement).parts if p.ref == one).turn_deg
    placement = slice_of(finished.placement)
    beside = first.x + wide - 300_000
    parts = tuple(
        (
            p.model_copy(update={"x_nm": beside, "y_nm": first.y, "turn_deg": turn})
            if p.ref == other
            else p
        )
        for p in placement.parts
    )
    seen = of_board(library, finished, placement=placement.model_copy(update={"parts": parts}))
    found = [
        f for f in said("courtyards", seen) if {f"part:{one}", f"part:{other}"} == set(f.about)
    ]
    assert [f.way_out for f in found] == [f"Move {other} at least 0.30 mm away."]


@pytest.mark.parametrize("over", [0.0, 0.01])
def test_a_board_as_large_as_a_house_makes_and_a_little_larger(
    over: float, finished: Design, library: Library
) -> None:
    seen = subject_of(finished, library)
    view = board_view(finished, library)
    left, bottom, right, top = view.outline.bounds
    short, long = sorted(((right - left) / MM, (top - bottom) / MM))
    for limits in (
        {"largest_mm": (short - over, 999.0)},
        {"largest_mm": (long - over, long - over)},
        {"smallest_mm": (short + over, short + over)},
        {"smallest_mm": (1.0, long + over)},
    ):
        house = seen.house.model_copy(update=limits)
        found = said("house-limits", replace(seen, view=view, house=house))
        assert any(f.sentence.startswith("The board is") for f in found) is (over > 0), limits


def test_a_thickness_that_is_not_made_is_said_in_mm(finished: Design, library: Library) -> None:
    seen = subject_of(finished, library)
    house = seen.house.model_copy(update={"thickness_um": (800, 1600)})
    brief = as_made(seen.brief, thickness_mm=1.2)
    (found,) = [
        f
        for f in said("house-offer", replace(seen, house=house, brief=brief))
        if "thick" in f.sentence
    ]
    assert "boards 1.2 mm thick" in found.sentence
    assert found.way_out == "Choose one of: 0.8 mm, 1.6 mm."


def test_pins_under_a_body_of_the_other_side_are_counted(
    finished: Design, library: Library
) -> None:
    """A header of five pins across from a chip: all five come out under it, or one where only its
    end lies there.
    """
    view = board_view(finished, library)
    header = next(c.ref for c in view.circuit.components if c.part.startswith("header-"))
    chip = next(c.ref for c in view.circuit.components if c.is_chip)
    seat = view.seats[chip]
    pins = [p for p in view.patterns[header].pads if p.drill_nm]
    parts = tuple(
        (
            p.model_copy(update={"x_nm": seat.x, "y_nm": seat.y, "turn_deg": 0, "far": True})
            if p.ref == header
            else p
        )
        for p in slice_of(finished.placement).parts
    )
    placement = Placement(parts=parts)
    heights = {**dict.fromkeys(view.heights_mm, 0.0), chip: 1.6}
    (found,) = said(
        "pins-through", of_board(library, finished, placement=placement, heights_mm=heights)
    )
    body = view.patterns[chip].body
    half = body.w / 2 + 300_000
    under = sum(
        abs(Seat(0, 0, 0, True).point(p.drill_x_nm, p.drill_y_nm)[0]) < half + p.drill_nm / 2
        for p in pins
    )
    words = "a pin" if under == 1 else f"{under} pins"
    assert f"has {words} coming out under {chip}" in found.sentence
    flat = dict.fromkeys(view.heights_mm, 0.0)
    assert (
        said("pins-through", of_board(library, finished, placement=placement, heights_mm=flat))
        == []
    )


def test_what_holds_a_rail_up_hangs_between_it_and_ground(library: Library) -> None:
    """A step of 241 mA behind a linear regulator; by hand C = I / (2 pi f U)."""
    cell = thing("lithium-cell", "cell", 60, 30, far=True)
    seen = of_brief(library, device(CHIP, cell, thing("light-chain", "lights", count=4)))
    assert seen.circuit is not None
    held = ("bulk", "output", "decoupling", "core", "reserve")
    kept = tuple(c for c in seen.circuit.components if not any(w in c.role for w in held))
    bare = replace(seen, circuit=seen.circuit.model_copy(update={"components": kept}))
    (found,) = said("bulk", bare)
    assert found.working is not None
    values = [i.value for i in found.working.inputs if i.name != "pi"]
    assert values == ["0.2412", "0.1", "0.165"]
    # 0.2412 A / (6.2832 x 100 kHz x 0.165 V) = 2.327 µF
    assert found.working.value == pytest.approx(2.327, abs=0.001)


def test_every_pair_of_sources_is_looked_at_for_back_feeding(library: Library) -> None:
    """Two sources that cannot reach each other: one way and the other, two looks."""
    brief = device(
        CHIP, thing("lithium-cell", "cell", 60, 30, far=True), thing("usb-device", "usb")
    )
    one = next(r for r in RULES if r.id == "back-feed")
    assert one.run(of_brief(library, brief)) == Passed(2)


@pytest.mark.parametrize(
    ("pins_from", "words"),
    [("data set", ""), ("memory", "from memory"), ("measurement", "measured once")],
)
def test_a_pin_order_says_where_it_is_from(pins_from: str, words: str, library: Library) -> None:
    brief = device(CHIP, LEADS)
    chip = chip_for(brief, library).model_copy(update={"pins_from": pins_from})
    found = said("pin-order", replace(of_brief(library, brief), chip=chip))
    assert len(found) == bool(words)
    assert all(words in f.sentence for f in found)


def test_a_chip_whose_limits_are_unknown_is_looked_up_for_these_volts(library: Library) -> None:
    """Two AAA cells: 3.3 V fresh, 1.8 V empty."""
    brief = device(CHIP, thing("cells", "cells", 60, 30, far=True))
    unknown = {"supply_min_mv": None, "supply_max_mv": None}
    chip = chip_for(brief, library).model_copy(update=unknown)
    seen = replace(of_brief(library, brief), chip=chip)
    (found,) = said("supply-range", seen)
    assert found.way_out == "Check in its data sheet that it runs from 1.8 to 3.3 V."


def test_a_hole_below_what_a_house_drills_is_named(finished: Design, library: Library) -> None:
    view = board_view(finished, library)
    least = min(h.d for h in view.holes if h.owner != "via")
    for limit, count in ((least, 0), (least + 1000, 1)):
        seen = of_board(library, finished, rules=replace(view.rules, hole_nm=limit))
        found = [f for f in said("house-limits", seen) if f.sentence.startswith("The hole of")]
        assert (len(found) > 0) == count
        assert all(f.way_out == "Choose another part or house." for f in found)


def test_volts_beyond_a_chip_are_said_in_volts(library: Library) -> None:
    """Two AAA cells give 3.3 V fresh and 1.8 V empty: a chip for 2.0 to 3.0 V has too much and too
    little.
    """
    brief = device(CHIP, thing("cells", "cells", 60, 30, far=True))
    narrow = {"supply_min_mv": 2000, "supply_max_mv": 3000, "supply_source": "a drawing"}
    chip = chip_for(brief, library).model_copy(update=narrow)
    over, under = said("supply-range", replace(of_brief(library, brief), chip=chip))
    assert "up to 3.3 V" in over.sentence
    assert "takes 3.0 V at the most (a drawing)" in over.sentence
    assert "stops below 2.00 V (a drawing), before 2 AAA cells are empty at 1.8 V" in under.sentence


def test_a_slow_bus_is_made_faster_or_another_with_as_many_bits(library: Library) -> None:
    """128 x 64 of one bit over a two-wire bus of 400 kHz takes some 23 ms: 100 pictures a second
    are too many. The repair keeps the bits of a pixel.
    """
    face = {"part": "screen-128x64-two-wire", "bus": "two-wire", "wanted_rate_hz": 100.0}
    (found,) = said(
        "frame-rate", of_brief(library, device(CHIP, LEADS, thing("screen", "face", **face)))
    )
    (repair,) = found.repairs
    taken = repair.edit["changes"]
    assert taken["bus"] == "one-way serial"
    bits = {s.id: s.bits_per_pixel for s in library.screens.values()}
    assert bits[taken["part"]] == bits["screen-128x64-two-wire"]
    assert library.screens[taken["part"]].bus == "one-way serial"


def test_a_part_of_three_pins_on_a_switched_rail_is_no_part_with_inputs(library: Library) -> None:
    """A chain of lights hangs by supply, data and ground; a sensor of more pins has inputs."""
    switch = thing("load-switch", "quiet")
    chain = thing("light-chain", "row", count=2, rail="quiet")
    found = said("dark-lines", of_brief(library, device(CHIP, LEADS, switch, chain)))
    assert [f for f in found if f.about[-1].startswith("part:J")] == []

"""Parts of one's own in packages by dimensions and on drawn pads: patterns against published ones,
what is refused, and a board proven with each.
"""

import itertools
from typing import Any

import pytest

from loquet.core.brief import BriefError
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices, Design, slice_of
from loquet.core.drawers.lines import part_lines
from loquet.core.geometry import Box, middle_of
from loquet.core.library import Library
from loquet.core.parts import PartError
from loquet.core.parts.families import contact_fingers
from loquet.core.parts.part import Rows
from loquet.core.parts.patterns import extent, rows
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import prove_package, release
from loquet.core.reviewing import review
from tests.core.benches import bench_for
from tests.core.netlists import netlist
from tests.making import Plain, device, thing

CHIP, LEADS = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads", 6, 30)
SOIC: dict[str, Any] = {
    # JEDEC MS-012: 1.27 mm pitch, 6.0 mm over the leads, feet of 0.84 mm in the middle of their
    # limits
    "package": "two sides",
    "pins": 8,
    "pitch_mm": 1.27,
    "span_mm": 6.0,
    "foot_mm": 0.84,
    "lead_mm": 0.41,
    "width_mm": 3.9,
    "height_mm": 4.9,
    "tall_mm": 1.75,
    "lines": 2,
    "pin_order": "supply, 1, 2, ground, open, open, open, open",
}


def own(**fields: Any) -> Plain:
    return thing("own-part", "it", 60, 30, **fields)


def pattern(library: Library, **fields: Any) -> Any:
    brief = device(CHIP, LEADS, own(**fields))
    return library.pattern(brief.thing("it").bodies()[0].part)


def test_a_package_by_its_dimensions_is_a_published_pattern(library: Library) -> None:
    """SOIC-8 of chip makers: pads of 1.55 x 0.6 mm at 5.4 mm, 1.27 mm apart (from memory of drawing
    D0008A).
    """
    made = pattern(library, **SOIC)
    assert made.name == "SOP127P600X175-8N"
    pads = {p.number: p.shape for p in made.pads}
    assert set(pads) == {str(i) for i in range(1, 9)}
    one, two, eight = (pads[n] for n in "128")
    assert isinstance(one, Box)
    assert one.x / 1e6 == pytest.approx(-2.7, abs=0.2)
    assert one.w / 1e6 == pytest.approx(1.55, abs=0.3)
    assert one.h / 1e6 == pytest.approx(0.6, abs=0.1)
    assert (one.y - two.y) / 1e6 == pytest.approx(1.27)
    assert (eight.x, eight.y) == (-one.x, one.y)  # anticlockwise from the top left


def test_four_sides_no_leads_and_two_rows(library: Library) -> None:
    """LQFP-32 of 0.8 mm pitch and 9.0 mm over the leads; QFN-16 of 3 x 3 mm with an exposed pad 17;
    eight holes at 2.54 and 7.62 mm.
    """
    order = "supply, ground"
    quad = pattern(
        library,
        package="four sides",
        pins=32,
        pitch_mm=0.8,
        span_mm=9.0,
        foot_mm=0.6,
        lead_mm=0.37,
        width_mm=7.0,
        height_mm=7.0,
        tall_mm=1.6,
        pin_order=order,
    )
    assert quad.name == "QFP80P900X900X160-32N"
    assert len({p.number for p in quad.pads}) == 32
    first, ninth = (next(p.shape for p in quad.pads if p.number == n) for n in ("1", "9"))
    assert middle_of(first)[0] < 0 < middle_of(first)[1]
    assert middle_of(ninth)[1] < 0
    flat = pattern(
        library,
        package="no leads",
        pins=16,
        pitch_mm=0.5,
        foot_mm=0.4,
        lead_mm=0.25,
        exposed_mm=1.7,
        width_mm=3.0,
        height_mm=3.0,
        tall_mm=0.9,
        pin_order=order,
    )
    assert flat.name == "QFN50P300X300X90-17N"
    exposed = next(p.shape for p in flat.pads if p.number == "17" and isinstance(p.shape, Box))
    assert (exposed.w / 1e6, exposed.h / 1e6) == (pytest.approx(1.7, abs=0.02),) * 2
    rows = pattern(
        library,
        package="two rows",
        pins=8,
        pitch_mm=2.54,
        span_mm=7.62,
        lead_mm=1.6,
        drill_mm=0.8,
        width_mm=6.4,
        height_mm=9.5,
        pin_order=order,
    )
    one, five = (next(p for p in rows.pads if p.number == n) for n in ("1", "5"))
    assert one.drill_nm == 800_000
    assert (middle_of(five.shape)[0] - middle_of(one.shape)[0]) / 1e6 == pytest.approx(7.62)
    assert middle_of(five.shape)[1] == -middle_of(one.shape)[1]


def test_drawn_pads_lie_where_they_are_drawn(library: Library) -> None:
    made = pattern(
        library,
        package="drawn pads",
        pads="1 -1.5 0.5 1.0 2.0, 2  1.5 0.5 1.2 1.2 0.8",
        width_mm=5,
        height_mm=4,
        pin_order="supply, ground",
    )
    one, two = made.pads
    assert (middle_of(one.shape), one.drill_nm, one.paste) == ((-1_500_000, 500_000), 0, True)
    assert (middle_of(two.shape), two.drill_nm, two.paste) == ((1_500_000, 500_000), 800_000, False)


def test_pins_follow_the_order_and_open_ones_have_no_net() -> None:
    quiet, line = sorted(netlist(device(CHIP, LEADS, own(**SOIC)), "it"))
    assert quiet == "capacitor-1608 100 nF: 1=SUPPLY 2=GROUND"
    assert line.endswith("it: 1=SUPPLY 2=PART_IT_1 3=PART_IT_2 4=GROUND")


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"pins": 9}, "9 pins do not part over 2 sides"),
        ({"package": "four sides", "pins": 10}, "10 pins do not part over 4 sides"),
        ({"span_mm": 1.6}, r"two feet of 0\.84 mm do not fit in 1\.6 mm"),
        ({"lead_mm": 1.3}, r"a lead of 1\.3 mm is wider than its pitch"),
        ({"pins": 6}, "names 8 pins, and the package has 6"),
        ({"package": "drawn pads", "pads": "1 0 0 1"}, "has '1 0 0 1', which is no pad"),
        ({"package": "drawn pads", "pads": "1 0 0 1 1, 2 3 0 1 1"}, "has no pad 3"),
        ({"pin_order": "supply, 1, ground"}, "does not name 2"),
    ],
)
def test_what_no_package_has_is_refused(change: dict[str, Any], words: str) -> None:
    with pytest.raises(BriefError, match=words):
        device(CHIP, LEADS, own(**(SOIC | change)))


def test_an_exposed_pad_may_be_named_one_past_the_last_pin() -> None:
    order = "supply, ground, " + ", ".join(["open"] * 14) + ", ground"
    brief = device(
        CHIP,
        LEADS,
        own(
            package="no leads",
            pins=16,
            pitch_mm=0.5,
            foot_mm=0.4,
            lead_mm=0.25,
            width_mm=3.0,
            height_mm=3.0,
            pin_order=order,
        ),
    )
    line = max(netlist(brief, "it"))
    assert line.endswith("1=SUPPLY 2=GROUND 17=GROUND")


@pytest.mark.parametrize(
    "part",
    [
        "own:two sides;pins=8",
        "own:nothing;pins=8",
        "own:drawn pads;pads=1 0 0;w=1;h=1;tall=1",
        "own:drawn pads;pads=1 0 0 1 1 2;w=1;h=1;tall=1",
    ],
)
def test_an_id_that_tells_no_part_is_refused(library: Library, part: str) -> None:
    with pytest.raises(PartError, match="cannot be read"):
        library.parts[part]


def test_the_shelf_is_still_the_catalogue(library: Library) -> None:
    assert "nothing" not in library.parts
    assert library.parts.get("nothing") is None
    with pytest.raises(KeyError):
        library.parts["nothing"]
    assert not any(part_id.startswith("own:") for part_id in library.parts)


@pytest.mark.parametrize(
    "fields",
    [
        SOIC,
        {
            "package": "no leads",
            "pins": 16,
            "pitch_mm": 0.5,
            "foot_mm": 0.4,
            "lead_mm": 0.25,
            "width_mm": 3.0,
            "height_mm": 3.0,
            "lines": 2,
            "pin_order": "1, 2, supply, ground, " + "open, " * 12 + "ground",
        },
        {
            "package": "drawn pads",
            "pads": "1 -3 0 1.5 1.5 0.8, 2 0 0 1 2, 3 3 0 1 2",
            "width_mm": 9,
            "height_mm": 5,
            "lines": 1,
            "pin_order": "supply, 1, ground",
        },
    ],
    ids=["two sides", "no leads", "drawn pads"],
)
def test_a_board_with_a_part_of_ones_own_is_proven(
    library: Library, fields: dict[str, Any]
) -> None:
    compared = "drawing 7, page 2, 2026-11-20"
    brief = device(CHIP, LEADS, own(**fields, compared=compared))
    design = bring_up_to_date(Design(brief=brief, choices=Choices()), library)
    made = release(design, library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    assert prove_package(dict(made.files), design, library).faults == ()


def test_nobody_knows_what_a_part_of_ones_own_costs(library: Library) -> None:
    lines = part_lines(assemble(bench_for(device(CHIP, LEADS, own(**SOIC)))), library, 1)
    (line,) = (row for row in lines if row.kind == "part of one's own")
    assert line.price_cents is None
    assert all(row.price_cents is not None for row in lines if row.kind == "resistor")


def test_two_rows_of_castellations_by_hand() -> None:
    """Four pads 2.0 x 1.2 mm, 2.54 mm apart, rows 15 mm apart: 1 top left, then down, then up the
    right side.
    """
    body = Rows(
        family="rows",
        name="module",
        pins=4,
        pitch_mm=2.54,
        row_mm=15.0,
        pad_mm=(2.0, 1.2),
        body_mm=(16.0, 8.0),
    )
    found = {
        pad.number: (pad.shape.x, pad.shape.y, pad.shape.w, pad.shape.h)  # type: ignore[union-attr]
        for pad in rows(body).pads
    }
    assert found == {
        "1": (-7_500_000, 1_270_000, 2_000_000, 1_200_000),
        "2": (-7_500_000, -1_270_000, 2_000_000, 1_200_000),
        "3": (7_500_000, -1_270_000, 2_000_000, 1_200_000),
        "4": (7_500_000, 1_270_000, 2_000_000, 1_200_000),
    }


@pytest.mark.parametrize("diameter", [5, 8, 12])
def test_fingers_of_a_contact_hang_on_their_bar_and_end_under_the_pill(diameter: int) -> None:
    """Bars 0.4 mm wide above and below the pill's circle; a finger reaches from its bar to the edge
    of the pill, or a gap of 0.4 mm before the other bar.
    """
    pads = contact_fingers(diameter).body.pads  # type: ignore[union-attr]
    half = diameter / 2
    fingers = [p for p in pads if p.w_mm < 0.5 < p.h_mm]
    assert len(fingers) == int(diameter // 0.8)
    for finger in fingers:
        up = 1 if finger.number == "1" else -1
        outer, free = finger.y_mm + up * finger.h_mm / 2, finger.y_mm - up * finger.h_mm / 2
        assert up * outer == pytest.approx(half + 0.4, abs=0.002)
        limit = min(half - 0.4, (half**2 - finger.x_mm**2) ** 0.5)
        assert -up * free == pytest.approx(limit, abs=0.002)
    in_turn = [f.number for f in sorted(fingers, key=lambda f: f.x_mm)]
    assert in_turn == [("1", "4")[i % 2] for i in range(len(fingers))]
    xs = sorted(f.x_mm for f in fingers)
    assert [b - a for a, b in itertools.pairwise(xs)] == pytest.approx([0.8] * (len(xs) - 1))


def test_limits_about_what_was_typed_are_those_that_the_evidence_says(library: Library) -> None:
    """±0.1 mm over the leads, ±0.2 mm of the foot, ±0.05 mm of the lead."""
    part = library.parts[
        "own:two sides;pins=8;pitch=1.27;span=6.0;foot=0.84;lead=0.41;w=3.9;h=4.9;tall=1.75"
    ]
    for words in ("±0.1 mm over the leads", "±0.2 mm of the foot", "±0.05 mm of the lead"):
        assert words in part.evidence_text
    body = part.body
    assert body.span_mm == pytest.approx((5.9, 6.1))  # type: ignore[union-attr]
    assert body.foot_mm == pytest.approx((0.64, 1.04))  # type: ignore[union-attr]
    assert body.lead_mm == pytest.approx((0.36, 0.46))  # type: ignore[union-attr]


def test_leads_on_four_sides_go_round_from_the_top_of_the_left_one(library: Library) -> None:
    """16 leads 0.8 mm apart, four a side: 1 to 4 down the left, 5 to 8 along the bottom, 9 to 12 up
    the right, 13 to 16 back along the top.
    """
    name = "own:four sides;pins=16;pitch=0.8;span=9.0;foot=0.6;lead=0.3;w=7;h=7;tall=1.6"
    spots = {p.number: middle_of(p.shape) for p in library.pattern(name).pads}
    assert len(spots) == 16
    steps = (1_200_000, 400_000, -400_000, -1_200_000)
    assert [spots[str(n)][1] for n in (1, 2, 3, 4)] == list(steps)
    assert [spots[str(n)][0] for n in (5, 6, 7, 8)] == [-s for s in steps]
    assert [spots[str(n)][1] for n in (9, 10, 11, 12)] == [-s for s in steps]
    assert [spots[str(n)][0] for n in (13, 14, 15, 16)] == list(steps)
    assert {spots[str(n)][0] for n in (1, 2, 3, 4)} == {-spots["9"][0]}


def test_what_a_turned_pad_covers() -> None:
    """4 x 2 mm turned by 30 degrees: (4 cos 30 + 2 sin 30) / 2 = 2.2321 and (4 sin 30 + 2 cos 30) /
    2 = 1.8660 about (10, 20).
    """
    left, bottom, right, top = extent(Box(10_000_000, 20_000_000, 4_000_000, 2_000_000, 30))
    assert (left, right) == pytest.approx((7_767_949, 12_232_051), abs=2)
    assert (bottom, top) == pytest.approx((18_133_975, 21_866_025), abs=2)


@pytest.mark.parametrize(("gap_mm", "web"), [(0.18, "0.080 mm"), (0.2, ""), (0.15, "0.050 mm")])
def test_the_mask_between_two_pads_is_what_their_openings_leave(
    library: Library, gap_mm: float, web: str
) -> None:
    """Millrace opens its mask 0.05 mm around a pad and prints a web of 0.10 mm: pads 0.20 mm apart
    are fine, nearer ones are not.
    """
    at = (0.6 + gap_mm) / 2
    fields = {
        "package": "drawn pads",
        "pads": f"1 {-at:g} 0 0.6 1.0, 2 {at:g} 0 0.6 1.0, 3 0 3 0.6 1.0",
        "width_mm": 3.0,
        "height_mm": 8.0,
        "tall_mm": 1.0,
        "lines": 1,
        "pin_order": "supply, 1, ground",
    }
    design = bring_up_to_date(
        Design(brief=device(CHIP, LEADS, own(**fields))), library, "placement"
    )
    it = next(c.ref for c in slice_of(design.circuit).components if c.thing == "it")
    said = [f.sentence for f in review(design, library) if f.rule == "mask-web"]
    mine = [s for s in said if f"pads of {it} " in s]
    assert [web in s for s in mine] == ([True] if web else [])


def test_pads_keep_a_fifth_of_a_millimetre_between_them(library: Library) -> None:
    """Leads of 0.3 mm at 0.4 mm: by the formula pads would be 0.3 mm and more; 0.2 mm are left
    between them.
    """
    name = "own:no leads;pins=16;pitch=0.4;w=4;foot=0.4;lead=0.3;exposed=2;tall=0.8"
    pads = {p.number: p.shape for p in library.pattern(name).pads}
    one, two = pads["1"], pads["2"]
    assert isinstance(one, Box)
    assert isinstance(two, Box)
    assert one.h == 200_000
    assert one.y - two.y == 400_000


def test_pegs_rows_and_contacts_by_hand(library: Library) -> None:
    """The slide switch of drawing FS-L3 has pegs of 0.9 mm 3 mm apart; castellations are 2.0 mm
    long at the least, and square ones stay square; a contact for 8 mm has two bars of 0.4 mm beyond
    it.
    """
    pegs = library.pattern("switch-slide-surface").holes
    assert [(p.x, p.y, p.d) for p in pegs] == [(-1_500_000, 0, 900_000), (1_500_000, 0, 900_000)]
    name = "own:two rows;pins=4;pitch=2.54;span=15;lead=1.0;drill=0;w=16;h=8;tall=3"
    edge = library.pattern(name).pads[0].shape
    assert isinstance(edge, Box)
    assert (edge.w, edge.h) == (2_000_000, 1_000_000)
    square = library.pattern(name.replace("lead=1.0", "lead=2.0")).pads[0].shape
    assert isinstance(square, Box)
    assert contact_fingers(8).body.body_mm == pytest.approx((8, 8.8))  # type: ignore[union-attr]

"""Parts of one's own in packages by dimensions and on drawn pads: patterns against published ones, what is refused, and a board proven with each."""

from typing import Any

import pytest

from loquet.core.brief import BriefError
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Choices, Design
from loquet.core.drawers import part_lines
from loquet.core.geometry import Box, middle_of
from loquet.core.library import Library
from loquet.core.parts import PartError
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import prove_package, release
from tests.core.benches import bench_for
from tests.core.netlists import netlist
from tests.making import Plain, device, thing

CHIP, LEADS = thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads", 6, 30)
SOIC: dict[str, Any] = {
    # JEDEC MS-012: 1.27 mm pitch, 6.0 mm over the leads, feet of 0.84 mm in the middle of their limits
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
    """SOIC-8 of chip makers: pads of 1.55 x 0.6 mm at 5.4 mm, 1.27 mm apart (from memory of drawing D0008A)."""
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
    """LQFP-32 of 0.8 mm pitch and 9.0 mm over the leads; QFN-16 of 3 x 3 mm with an exposed pad 17; eight holes at 2.54 and 7.62 mm."""
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
    (line,) = netlist(device(CHIP, LEADS, own(**SOIC)), "it")
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
    (line,) = netlist(brief, "it")
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

"""What every way out costs, asks and changes, by hand; prices are those of the bundled catalogue,
which are invented.
"""

from typing import Any

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.parts.listing import ListedChip, Stock
from loquet.core.pins.ways_out import Shelf, WayOut, together, ways_out
from tests.making import device, thing

KEYS = tuple(thing("button", f"k{n}", 10 + 12 * n, 20) for n in range(9))


def listed(name: str, ports: int, **more: Any) -> ListedChip:
    plain = {
        **{"family": "f0", "package": "LQFP32", "analogue": 8, "timers": 4, "two_wire": 1},
        **{"serial": 1, "usb": 1, "touch": 8, "covered": True},
    }
    return ListedChip(name=name, ports=ports, **{**plain, **more})


def stock(cents: int, pieces: int = 50) -> Stock:
    return Stock(supplier="Holm (simulated)", price_cents=cents, pieces=pieces, days=3)


CHIPS = (
    (listed("now", 20), stock(150)),
    (listed("next", 40), stock(210)),
    (listed("gone", 42), stock(190, 0)),
    (listed("bare", 42, covered=False), stock(190)),
    (listed("cheap", 44, family="g0", package="LQFP48"), stock(120)),
    (listed("module", 60, family="module"), stock(500)),
)
HANDSET = device(
    *KEYS,
    thing("stick", "aim", 20, 45, press=False),
    thing("stick", "look", 100, 45, press=False),
    thing(
        "screen",
        "show",
        60,
        40,
        bus="parallel colour",
        part="screen-320x240-parallel",
        colour_bits=16,
    ),
    thing("buzzer", "call", 40, 50),
    thing("serial", "link", 80, 50),
    thing("chip", "chip", 60, 10, part="now"),
)


def found_ways(
    brief: Brief, fits: Any = lambda brief: True, chips: Any = CHIPS
) -> dict[str, WayOut]:
    library = bundled_library()
    shelf = Shelf(parts=library.parts, screens=library.screens, chips=chips)
    rows = ways_out(brief, shelf, fits)
    assert [(w.cost, w.title) for w in rows] == sorted((w.cost, w.title) for w in rows)
    return {way.title: way for way in rows}


@pytest.mark.parametrize(
    ("title", "cost", "price", "edit"),
    [
        (
            *("Read the keys another way: matrix with diodes", 27 + 0.2 * 95.634, 27),
            {"kind": "set-scheme", "scheme": "diode matrix"},
        ),
        (
            *("Fewer colour bits: 15 in place of 16", 25, 0),
            {"kind": "change-thing", "name": "show", "changes": {"colour_bits": 15}},
        ),
        (
            *("Screen on another bus: Screen module 320 x 240, colour, one-way serial", 150, 0),
            {
                **{"kind": "change-thing", "name": "show"},
                "changes": {"part": "screen-320x240-serial", "bus": "one-way serial"},
            },
        ),
        (
            *("Screen on another bus: Screen module 128 x 64, one colour, two wires", 400, 0),
            {
                **{"kind": "change-thing", "name": "show"},
                "changes": {"part": "screen-128x64-two-wire", "bus": "two-wire"},
            },
        ),
        (
            *("Read the 4 axes through an outside multiplexer", 32.2 + 0.2 * 47.128 + 20, 32.2),
            {"kind": "set-analogue", "by": "multiplexer"},
        ),
        (
            *("Read the 4 axes through an outside converter", 173.2 + 0.2 * 26.238 + 20, 173.2),
            {"kind": "set-analogue", "by": "converter"},
        ),
        (
            *("Leave out the call", 60, 0),
            {"kind": "remove-things", "names": ["call"]},
        ),
        (
            *("Next chip of the same family: next", 60 + 120, 60),
            {"kind": "change-thing", "name": "chip", "changes": {"part": "next"}},
        ),
        (
            *("Next chip of another family: cheap", 240, 0),
            {"kind": "change-thing", "name": "chip", "changes": {"part": "cheap"}},
        ),
    ],
)
def test_a_way_out_costs_what_it_asks(
    title: str, cost: float, price: float, edit: dict[str, Any]
) -> None:
    """60 cents dearer and 120 to draw it anew, twice that in another family; 150 for another
    refresh rate, 250 for fewer pixels; 25 a colour step.
    """
    way = found_ways(HANDSET)[title]
    assert way.cost == pytest.approx(cost)
    assert way.price_cents == pytest.approx(price)
    assert way.edits == (edit,)
    assert way.working.value == way.cost


def test_ways_are_offered_only_where_they_work_and_apply() -> None:
    titles = set(found_ways(HANDSET))
    assert [
        t for t in titles if t.startswith("Next chip") and not t.endswith(("next", "cheap"))
    ] == []
    assert not any("one pin each" in t for t in titles), "that is the way of now"
    assert not any("resistor ladder" in t for t in titles), "it would hide chords"
    taken = HANDSET.model_copy(update={"analogue_by": "converter"})
    assert not any("axes" in t for t in found_ways(taken))
    single = HANDSET.without("look").without("aim")
    assert not any("axes" in t or "axis" in t for t in found_ways(single))
    serial = found_ways(
        HANDSET.with_things(
            HANDSET.thing("show").model_copy(
                update={"bus": "one-way serial", "part": "screen-320x240-serial"}
            )
        )
    )
    assert not any("colour bits" in t for t in serial)
    assert any("two wires" in t for t in serial)
    assert not any("one-way serial" in t for t in serial)


def test_colours_fall_as_far_as_they_must() -> None:
    """Steps of 18, 16, 15, 12, 9, 6 and 3 bits; the last is offered as one of a pair even where it
    does not do alone.
    """

    def nine(brief: Brief) -> bool:
        return getattr(brief.thing("show"), "colour_bits", 99) <= 9

    way = found_ways(HANDSET, nine)["Fewer colour bits: 9 in place of 16"]
    assert way.cost == 75
    assert way.gives_up == "512 colours in place of 65536; 7 lines come free"


def test_pairs_come_only_where_no_single_way_does() -> None:
    """The three cheapest pairs whose changes do not touch each other; price and cost add up."""

    def both(brief: Brief) -> bool:
        return brief.analogue_by != "chip" and "call" not in {t.name for t in brief.things}

    ways = found_ways(HANDSET, both, chips=())
    assert {frozenset(title.lower().split(", and ")) for title in ways} == {
        frozenset((f"read the 4 axes through an outside {how}", "leave out the call"))
        for how in ("multiplexer", "converter")
    }
    first = min(ways.values(), key=lambda way: way.cost)
    assert first.cost == pytest.approx(60 + 32.2 + 0.2 * 47.128 + 20)
    assert first.price_cents == pytest.approx(32.2)
    assert len(first.edits) == 2

    def any_two(brief: Brief) -> bool:
        schemed = brief.key_scheme.name != "one pin each"
        return (brief.analogue_by != "chip" and schemed) or len(brief.things) < len(
            HANDSET.things
        ) - 1

    assert len(found_ways(HANDSET, any_two, ())) == 3


def test_two_changes_of_one_thing_do_not_go_together() -> None:
    show = HANDSET.thing("show")
    fewer = HANDSET.with_things(show.model_copy(update={"colour_bits": 9}))
    other = HANDSET.with_things(show.model_copy(update={"bus": "two-wire"}))
    quiet = HANDSET.without("call")
    by_mux = HANDSET.model_copy(update={"analogue_by": "multiplexer"})
    by_converter = HANDSET.model_copy(update={"analogue_by": "converter"})
    assert together(HANDSET, fewer, other) is None
    assert together(HANDSET, by_mux, by_converter) is None
    for a, b in ((fewer, quiet), (quiet, fewer)):
        both = together(HANDSET, a, b)
        assert both is not None
        assert getattr(both.thing("show"), "colour_bits", 0) == 9
        assert "call" not in {t.name for t in both.things}
    for a, b in ((quiet, by_mux), (by_mux, quiet)):
        both = together(HANDSET, a, b)
        assert both is not None
        assert both.analogue_by == "multiplexer"

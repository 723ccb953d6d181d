"""What each kind is, written down by hand: sizes of usual parts in mm, volts, addresses, loads.

Sizes and currents are common practice where no standard is named; cell voltages are those of IEC
60086-2.
"""

from typing import Any

import pytest
from pydantic import ValidationError

from loquet.core.brief import kinds
from loquet.core.brief.kinds import kind_named
from loquet.core.brief.shares import share_of
from loquet.core.brief.thing import Thing
from loquet.core.library import Library
from loquet.demo.scenario import demo_brief

SIZES: dict[str, tuple[float, float]] = {
    "speaker": (20.0, 20.0),
    "headphones": (6.5, 12.0),  # a 3.5 mm socket
    "coin-cell": (23.4, 16.0),  # holder of a cell of 20 mm (IEC 60086-3)
    "lithium-cell": (50.0, 34.0),
    "series-pack": (7.4, 6.6),
    "nine-volt": (48.5, 26.5),  # 6LR61 of IEC 60086-2: 48.5 x 26.5 mm at the most
    "host-feed": (6.9, 6.6),
    "barrel-jack": (9.0, 14.0),
    "leads": (6.0, 3.0),
    "usb-device": (8.94, 7.3),  # shell of a USB-C socket
    "usb-charge": (8.94, 7.3),
    "usb-downstream": (14.5, 14.0),
    "spare-bus": (10.16, 2.54),  # 4 posts at 2.54 mm
    "serial": (10.16, 2.54),
    "memory-card": (14.0, 14.6),
    "expansion": (25.4, 2.54),  # 10 ways at 2.54 mm
    "host-header": (50.8, 5.08),  # 2 x 20 ways at 2.54 mm
    "stick-port": (31.0, 12.5),  # a nine-way D shell
    "screw-terminals": (15.24, 8.0),  # two lines and ground at 5.08 mm
    "flat-cable": (9.5, 5.6),  # 8 ways at 0.5 mm and 6 mm for the ends
    "membrane": (20.32, 2.54),  # 8 ways at 2.54 mm
    "edge-contacts": (25.4, 8.0),
    "host-computer": (30.0, 65.0),  # contacts along its long side
    "converter": (8.0, 9.0),
    "load-switch": (6.0, 6.0),
    "own-part": (10.0, 10.0),
    "own-block": (12.0, 12.0),
    "shelf-part": (8.0, 8.0),
    "hole": (4.4, 4.4),
    "slot": (6.0, 2.0),
    "cut-out": (10.0, 10.0),
    "free-cut-out": (10.0, 8.0),  # a D: 6 mm straight and half a circle of 4 mm
    "keep-out": (10.0, 10.0),
    "words": (12.15, 1.5),  # nine letters of 1.5 mm, 0.9 of that wide
}
FEEDS: dict[str, tuple[float, float, float, float]] = {
    # volts empty, usual and fresh, and the most current in mA
    "cells": (1.8, 3.0, 3.3, 500),
    "coin-cell": (2.0, 3.0, 3.3, 15),
    "lithium-cell": (3.3, 3.3, 3.3, 2000),  # 2 C of 1000 mAh
    "series-pack": (3.3, 3.3, 3.3, 2000),
    "nine-volt": (3.3, 3.3, 3.3, 200),
    "host-feed": (3.3, 3.3, 3.3, 500),
    "barrel-jack": (3.3, 3.3, 3.3, 1000),
    "leads": (3.3, 3.3, 3.3, 500),
    "ready-module": (3.3, 3.3, 3.3, 250),
    "module-port": (4.4, 5.0, 5.25, 500),
    "converter": (5.0, 5.0, 5.0, 500),
    "host-computer": (3.3, 3.3, 3.3, 500),
}
BUSES: dict[str, tuple[int, float]] = {
    # address (0 is none) and load in pF
    "screen": (0x3C, 0),
    "spare-bus": (0, 50),
    "bus-sensor": (0x44, 10),
    "motion": (0x68, 10),
    "gauge": (0x36, 10),
}
# 2 mA; 8 lights of 60 mA; a row of 20 mA; what another device is given
CURRENTS = {"light": 2.0, "light-chain": 480.0, "light-matrix": 20.0, "usb-downstream": 100.0}


@pytest.mark.parametrize("model", kinds.KINDS, ids=lambda m: m.model_fields["kind"].default)
def test_a_kind_is_what_is_written_here(model: type[Thing]) -> None:
    thing = model(name="x")
    drawn = [body.size_mm for body in thing.bodies() if body.size_mm[0]]
    assert drawn[:1] == ([SIZES[thing.kind]] if thing.kind in SIZES else [])
    feed, bus = thing.feed(), thing.on_bus()
    assert (feed and (feed.empty_v, feed.usual_v, feed.fresh_v, feed.limit_ma)) == FEEDS.get(
        thing.kind
    )
    assert (bus and (bus.address, bus.load_pf)) == BUSES.get(thing.kind)
    assert thing.current_ma() == CURRENTS.get(thing.kind, 0.0)


def grown(kind: str, **fields: Any) -> tuple[float, float]:
    """The size of a kind with some fields."""
    return (
        next(m for m in kinds.KINDS if m.model_fields["kind"].default == kind)(name="x", **fields)
        .bodies()[-1]
        .size_mm
    )


def test_sizes_follow_the_count_of_ways() -> None:
    """Pitches of 2.54 and 5.08 mm, two rows for a host."""
    assert grown("host-header", ways=10) == pytest.approx((12.7, 5.08))
    assert grown("membrane", lines=5) == pytest.approx((12.7, 2.54))
    assert grown("screw-terminals", lines=1) == pytest.approx((10.16, 8.0))


def test_a_host_covers_the_board_beside_its_contacts() -> None:
    """The row of contacts lies 3.5 mm inside its left edge."""
    host = kind_named("host-computer")
    assert host is not None
    contacts, outline = host(name="x").bodies()
    assert (contacts.dx, contacts.part) == (0, "chip:fellbeck-s40")
    assert outline.dx / 1e6 - outline.size_mm[0] / 2 == pytest.approx(-3.5)


@pytest.mark.parametrize(
    ("old", "part"),
    [
        ({"by": "spring pins", "ways": 26}, "fellbeck-s40-springs"),
        ({"by": "edge"}, "fellbeck-s40-edge"),
        ({"ways": 40}, "fellbeck-s40"),
        ({"part": "fellbeck-s40-edge", "by": "header"}, "fellbeck-s40-edge"),
        ({}, "fellbeck-s40"),
    ],
)
def test_a_host_of_an_older_brief_is_read(old: dict[str, Any], part: str) -> None:
    host = kind_named("host-computer")
    assert host is not None
    assert host.model_validate({"name": "x", **old}).model_dump()["part"] == part


def test_a_share_keeps_the_wishes_of_its_keys() -> None:
    """Direct keys, diodes and chords of the keys that a brain reads, and of no others; a chord of
    one key is none.
    """
    brief = demo_brief("dew-panel")
    things = tuple(
        t.model_copy(update={"brain": "show chip"}) if t.name in ("hold", "quiet") else t
        for t in brief.things
    )
    scheme = brief.key_scheme.model_copy(
        update={
            "direct": ("button:warmer", "button:hold"),
            "diodes": ("button:quiet", "button:cooler"),
        }
    )
    chords = brief.chords.model_copy(
        update={
            "rule": "own",
            "groups": (
                ("button:warmer", "button:cooler", "button:hold"),
                ("button:hold", "button:quiet"),
            ),
        }
    )
    changed = brief.model_copy(update={"things": things, "key_scheme": scheme, "chords": chords})
    first, second = share_of(changed, "key chip"), share_of(changed, "show chip")
    assert (first.key_scheme.direct, first.key_scheme.diodes) == (
        ("button:warmer",),
        ("button:cooler",),
    )
    assert (second.key_scheme.direct, second.key_scheme.diodes) == (
        ("button:hold",),
        ("button:quiet",),
    )
    assert first.chords.groups == (("button:warmer", "button:cooler"),)
    assert second.chords.groups == (("button:hold", "button:quiet"),)


def test_plain_names_that_say_little_are_said_otherwise() -> None:
    """A thing is called by its name; a few that have the plain name of their kind by more than
    that.
    """
    said = {}
    for model in kinds.KINDS:
        kind = model.model_fields["kind"].default
        assert model(name="own name").label in ("own name", f"{model.WORD} own name"), kind
        if (label := model(name=model.WORD).label) != model.WORD:
            said[kind] = label
    assert said == {"programming": "programming port"}


def test_what_can_be_left_out_and_what_that_is_taken_to_be_worth() -> None:
    """In cents, for ranking ways out alone; common practice, no source.

    A serial port that is not spare stays.
    """
    found = {
        model.model_fields["kind"].default: model(name="x").LEFT_OUT_CENTS for model in kinds.KINDS
    }
    assert {kind: cents for kind, cents in found.items() if cents is not None} == {
        **{"light": 40, "buzzer": 60, "serial": 80, "spare-bus": 80, "headphones": 150},
    }
    serial = next(m for m in kinds.KINDS if m.model_fields["kind"].default == "serial")
    assert serial(name="x", spare=False).LEFT_OUT_CENTS is None


def kind(name: str) -> type[Thing]:
    return next(m for m in kinds.KINDS if m.model_fields["kind"].default == name)


def test_what_usually_stands_beside_a_thing() -> None:
    """A low-battery sign with cells that are not charged, a charge light, a volume and a socket
    beside a speaker; nothing where it is there.
    """

    def lacks(name: str, *present: str, **fields: Any) -> list[str]:
        return [lack.sentence for lack in kind(name)(name="x", **fields).lacks(frozenset(present))]

    sign = ["There is no low-battery sign."]
    for name in ("cells", "coin-cell", "nine-volt"):
        assert lacks(name) == sign
    volume = "Nothing sets the volume of the speaker."
    socket = "There is a speaker and no headphone socket."
    assert lacks("speaker") == [volume, socket]
    assert lacks("speaker", "slider") == lacks("speaker", volume=True) == [socket]
    assert lacks("speaker", "headphones") == [volume]
    assert lacks("speaker", "headphones", "slider") == []
    assert lacks("lithium-cell") == ["Nothing shows that the cell is being charged."]
    assert lacks("lithium-cell", charge_light=True) == []
    unmeasured, unlit = kind("lithium-cell")(name="x", sense=False).lacks(frozenset())
    assert unmeasured.sentence == "There is no low-battery sign: the cell is not measured."
    assert (unmeasured.way_out, unmeasured.label) == ("Measure it.", "Measure the cell")
    assert unmeasured.edit == {"kind": "change-thing", "name": "x", "changes": {"sense": True}}
    assert unlit.edit == {"kind": "change-thing", "name": "x", "changes": {"charge_light": True}}
    with_edits = [
        lack.edit
        for m in kinds.KINDS
        for lack in m(name="x", board="b").lacks(frozenset())
        if lack.edit
    ]
    assert with_edits == [
        {"kind": "add-thing", "thing": {"kind": "headphones", "name": "headphones", "board": "b"}},
        unlit.edit,
    ]


def choices_of(model: type[Thing]) -> list[dict[str, Any]]:
    """A thing of a kind with each of its choices in turn, all others as they are usual."""
    fields = model.model_json_schema()["properties"]
    named = {name: row["enum"] for name, row in fields.items() if "enum" in row}
    return [{}, *({name: value} for name, values in named.items() for value in values)]


@pytest.mark.parametrize("model", kinds.KINDS, ids=lambda m: m.model_fields["kind"].default)
def test_every_choice_of_a_kind_has_its_parts(model: type[Thing], library: Library) -> None:
    """A holder for AA cells was named once that the catalogue did not have."""
    for chosen in choices_of(model):
        try:
            thing = model(name="x", **chosen)
        except ValidationError:
            continue
        for body in thing.bodies():
            if body.part and not thing.BRAIN and thing.GROUP != "own":
                assert library.pattern(body.part).pads or library.pattern(body.part).holes, chosen
        assert all(name in library.parts for name in thing.DRAWS)

"""Every kind that has a circuit, and every way to read keys and axes, from brief to a package that
is proven from its own bytes.
"""

from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context

import pytest

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.brief.kinds import KINDS
from loquet.core.circuit.recipes import recipe_for
from loquet.core.design import Design
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import release
from loquet.demo.scenario import FEED_BRIEFS, demo_brief
from tests.core.second_parts import named_otherwise, shelf_of_twins
from tests.making import Plain, as_made, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
LEADS, COIN = thing("leads", "leads", 6, 30), thing("coin-cell", "cell", 60, 30, far=True)
LITHIUM = thing("lithium-cell", "cell", 60, 30, far=True, charge_light=True)
ALONE = {"rule": "own", "groups": []}


def keys(count: int = 5) -> tuple[Plain, ...]:
    return tuple(
        thing("button", f"key {i}", 12 + 12 * (i % 5), 10 + 38 * (i // 5)) for i in range(count)
    )


def wide(*things: Plain, **wishes: object) -> Brief:
    """A board of 160 x 90 mm."""
    outline = {"kind": "rounded-rectangle", "width_mm": 160, "height_mm": 90}
    return device(*things, boards=[{"name": "main", "outline": outline}], **wishes)


DEVICES: dict[str, Brief] = {
    "lithium, USB, card, speaker, headphones": wide(
        CHIP,
        thing("lithium-cell", "cell", 60, 30, far=True, charge_light=True, charge_ma=200),
        thing("usb-device", "usb"),
        thing("power-switch", "switch", 20, 80),
        thing("memory-card", "card"),
        thing("speaker", "speaker", 110, 50, feed_by="timer", volume=False),
        thing("headphones", "ears"),
        thing("gauge", "gauge", 30, 50),
        thing("clock-crystal", "clock"),
        *keys(),
    ),
    "jack, 5 V rail, stick, downstream, lights": wide(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("barrel-jack", "jack", adapter_v=12.0),
        thing("converter", "five", gives_v=5.0),
        thing("stick", "slew", 30, 30, supply="5 V"),
        thing("trigger", "grip", 130, 30, supply="5 V"),
        thing("light-chain", "ring", 80, 60, count=4, rail="five"),
        thing("light-matrix", "field", 120, 60, rows=3, columns=3),
        thing("crystal", "quartz"),
        thing("test-point", "probe", 60, 60, net="SUPPLY"),
    ),
    "12 V port and jack, switched rail, low passes, backlight": wide(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("usb-charge", "plug", feeds=True, asks="12 V"),
        thing("barrel-jack", "jack", adapter_v=12.0, rail="plug"),
        thing("load-switch", "quiet"),
        thing(
            "screen",
            "face",
            80,
            70,
            part="screen-240x240-serial",
            bus="one-way serial",
            rail="quiet",
        ),
        thing("stick", "slew", 30, 30, filter_hz=100.0),
        thing("light", "up", 130, 40, lit_by="its rail"),
        thing("slot", "strap", 8, 45, turn_deg=90),
        thing("fiducial", "mark"),
        *keys(3),
    ),
    "four AA cells, light matrix": wide(
        thing("chip", "chip", part="atmega168pa-au"),
        thing("cells", "cell", 80, 45, far=True, size="AA", count=3),
        thing("light-matrix", "field", 130, 70, rows=2, columns=3),
        *keys(3),
    ),
    "pack, ports of lines, senses": wide(
        CHIP,
        thing("series-pack", "pack", 20, 60),
        thing("expansion", "more", lines=4),
        thing("screw-terminals", "screws", lines=2),
        thing("flat-cable", "flat", lines=4, pitch_mm=1.0),
        thing("membrane", "film", lines=4),
        thing("edge-contacts", "edge", lines=3),
        thing("serial", "talk"),
        thing("spare-bus", "bus"),
        thing("bus-sensor", "warmth", 40, 45),
        thing("motion", "tilt", 60, 45),
        thing("voltage-sensor", "light level", 80, 45),
        thing("own-part", "dimmer", 130, 60, lines=2, width_mm=16),
        thing("own-block", "lock", 100, 60, bus="two-wire", inputs=1, width_mm=16),
    ),
    "nine volts, sound bus, encoder, touch, stick port": wide(
        thing("chip", "chip", part="stm32f072rbt6"),
        thing("nine-volt", "block", 60, 60, far=True),
        thing("sound-converter", "sound", 100, 45),
        thing("encoder", "dial", 30, 30),
        thing("slider", "level", 60, 20, part="slider-20"),
        thing("touch", "spot", 130, 30),
        thing("stick-port", "way in"),
    ),
    "coin, expander": device(CHIP, COIN, *keys(9), key_scheme={"name": "expander 8"}),
    "leads, wide expander": device(CHIP, LEADS, *keys(9), key_scheme={"name": "expander 16"}),
    "host feed, register": wide(
        CHIP, thing("host-feed", "feed", 5, 80), *keys(9), key_scheme={"name": "shift register"}
    ),
    "strong port, lights": wide(
        CHIP,
        thing("usb-charge", "plug", feeds=True, gives_v=3.3),
        thing("light-chain", "ring", 80, 60, count=6),
        *keys(3),
    ),
    "leads, ladder": device(
        CHIP, LEADS, *keys(9), key_scheme={"name": "resistor ladder"}, chords=ALONE
    ),
    "leads, charlieplexed": device(
        CHIP, LEADS, *keys(9), key_scheme={"name": "charlieplexed"}, chords=ALONE
    ),
    "leads, outside converter": device(
        CHIP,
        LEADS,
        thing("stick", "a", 30, 30),
        thing("stick", "b", 90, 30),
        analogue_by="converter",
    ),
    "leads, multiplexer": device(
        CHIP,
        LEADS,
        thing("stick", "a", 30, 30),
        thing("stick", "b", 90, 30),
        analogue_by="multiplexer",
    ),
}


USUAL = ("wire-plug", "header-", "light-2012", "holder", "posts", "terminals", "edge", "flat")
"""What a kind takes by its count of ways or colour, whatever the shelf has."""


def ended(name: str) -> tuple[list[str], list[str], int, int]:
    """A device made to its end: stops, what its proof finds, nets and keys that the proof looked
    at. Those made up here are made of second parts for every role: other pads, bodies and limits.
    """
    library = bundled_library()
    brief = DEVICES.get(name) or demo_brief(name)
    if name in DEVICES:
        brief, library = named_otherwise(brief, library), shelf_of_twins(library)
    design = Design(brief=as_made(brief, finish="gold"))
    design = bring_up_to_date(design, library)
    made = release(design, library)
    stops = [f.sentence for f in made.findings if f.severity == "stop"]
    if name in DEVICES:
        (circuit,) = (kept.value for kept in design.circuit.values())
        used = {c.part for c in circuit.components if not c.is_chip}
        stops += [part for part in used if not part.startswith(("own/", "own:", *USUAL))]
    if stops:
        return stops, [], 0, 0
    proof = made.proof
    assert proof is not None, "nothing is released without its proof"
    return [], [fault.sentence for fault in proof.faults], proof.nets, proof.keys


@pytest.mark.timeout(900)
def test_every_device_ends_ready_and_proven() -> None:
    """On two processes, since each takes some seconds."""
    names = [*DEVICES, "log-key-pad", *FEED_BRIEFS]
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        answers = dict(zip(names, pool.map(ended, names), strict=True))
    assert {name: row[:2] for name, row in answers.items() if row[0] or row[1]} == {}
    assert all(nets > 8 for _, _, nets, _ in answers.values())
    keyed = {name: keys for name, (_, _, _, keys) in answers.items()}
    for name in ("coin, expander", "leads, ladder", "host feed, register", "leads, wide expander"):
        assert keyed[name] == 9
    assert (keyed["log-key-pad"], keyed["star-handset"], keyed["pocket-lamp"]) == (20, 14, 3)


def test_every_kind_is_drawn() -> None:
    """Every kind has a recipe, or is drawn by the board; the devices above hold all that no other
    test of whole boards does.
    """
    waiting = {
        str(model.model_fields["kind"].default)
        for model in KINDS
        if recipe_for(model(name="x")) is None and not model.DRAWN_BY_BOARD
    }
    assert waiting == set()

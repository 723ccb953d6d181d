"""What each thing asks of its brain, written down by hand; what everything on one bus asks
together, and every way to read keys.
"""

from typing import Any

import pytest

from loquet.core.brief import Brief, kinds
from loquet.core.pins.model import Need
from loquet.core.pins.needing import bus_khz_of, keys_seen, middle, needs_of
from tests.making import device, thing

BUS = ("bus:clock two-wire clock on two-wire", "bus:data two-wire data on two-wire")
PORT = (
    "link:x:transmit port transmit on link:x extra",
    "link:x:receive port receive on link:x extra",
)


def numbered(signal: str, kind: str, count: int, more: str = "") -> tuple[str, ...]:
    return tuple(f"{signal}{n} {kind}{more}" for n in range(1, count + 1))


def said(need: Need) -> str:
    """A need as one line: signal, kind, and what is not usual about it."""
    words = [f"{need.signal} {need.kind}"]
    words += [f"on {need.bus}"] if need.bus else []
    words += [f"at {need.rate} rate"] if need.rate else []
    words += [f"{need.level_v:g} V"] if need.level_v else []
    words += ["reads"] * need.reads + ["extra"] * need.extra
    words += [need.load] if need.load else []
    return " ".join(words)


ASKS: dict[str, tuple[str, ...]] = {
    "button": ("button:x input reads key",),
    "pad": tuple(f"pad:x:{way} input reads key" for way in ("up", "down", "left", "right")),
    "stick": ("stick:x:press input reads key", "stick:x:x analogue", "stick:x:y analogue"),
    "trigger": ("trigger:x:pull analogue",),
    "encoder": (
        *("encoder:x:press input reads key", "encoder:x:a input reads", "encoder:x:b input reads"),
    ),
    "slider": ("slider:x:level analogue",),
    "touch": ("touch:x touch on touch of x", "touch:x:sample touch sample on touch of x"),
    "screen": (
        "screen:x:clock two-wire clock on two-wire",
        "screen:x:data two-wire data on two-wire",
    ),
    "light": ("light:x output extra light",),
    "light-chain": ("lights:x:chain timer at light chain rate light",),
    "light-matrix": (
        *numbered("lights:x:row ", "high drive", 4, " light"),
        *numbered("lights:x:column ", "output", 4, " light"),
    ),
    "buzzer": ("buzzer:x timer at tone rate extra sounder",),
    "speaker": (
        "speaker:x:feed timer at sound rate sounder",
        "speaker:x:mute output extra sounder",
    ),
    "headphones": ("headphones:x:detect input extra",),
    "sound-converter": tuple(
        f"sound:x:{line} sound {line} on sound of x" for line in ("clock", "word", "data")
    ),
    "lithium-cell": ("cell:x:sense analogue",),
    "load-switch": ("switched:x:on output",),
    "power-button": ("power button:x:hold output", "power button:x:pressed input"),
    "usb-device": ("link:x:minus usb minus on usb", "link:x:plus usb plus on usb"),
    "usb-downstream": (
        *(
            "downstream:x:minus usb minus on downstream:x",
            "downstream:x:plus usb plus on downstream:x",
        ),
    ),
    "spare-bus": BUS,
    "serial": PORT,
    "memory-card": (
        "link:x:clock serial clock on link:x",
        "link:x:to card serial out on link:x",
        "link:x:from card serial in on link:x",
        "link:x:select output",
        "link:x:detect input extra",
    ),
    "expansion": numbered("link:x:", "input", 8),
    "programming": ("debug:x:data debug data", "debug:x:clock debug clock"),
    "stick-port": tuple(
        f"stick port:x:{way} input reads key" for way in ("up", "down", "left", "right", "press")
    ),
    "screw-terminals": numbered("terminals:x:", "input", 2),
    "flat-cable": numbered("cable:x:", "input", 6),
    "membrane": numbered("membrane:x:", "input", 8, " reads key"),
    "edge-contacts": numbered("edge:x:", "input", 8),
    "brain-talk": (
        *("talk:x:send port transmit on talk:x:port", "talk:x:hear port receive on talk:x:port"),
    ),
    "crystal": ("crystal:x:in crystal in", "crystal:x:out crystal out"),
    "clock-crystal": (
        *("clock crystal:x:in slow crystal in", "clock crystal:x:out slow crystal out"),
    ),
    "bus-sensor": BUS,
    "motion": (*BUS, "sensor:x:interrupt interrupt extra"),
    "gauge": BUS,
    "voltage-sensor": ("sensor:x analogue",),
}
VARIED: list[tuple[str, dict[str, Any], tuple[str, ...]]] = [
    (
        "stick",
        {"press": False, "supply": "5 V"},
        ("stick:x:x analogue 5 V", "stick:x:y analogue 5 V"),
    ),
    ("encoder", {"press": False}, ("encoder:x:a input reads", "encoder:x:b input reads")),
    ("trigger", {"supply": "5 V"}, ("trigger:x:pull analogue 5 V",)),
    (
        "pad",
        {"form": "five-way part", "part": "five-way-10"},
        tuple(f"pad:x:{w} input reads key" for w in ("up", "down", "left", "right", "press")),
    ),
    (
        "light-chain",
        {"wires": "two clocked"},
        (
            "lights:x:clock serial clock on lights:x light",
            "lights:x:data serial out on lights:x light",
        ),
    ),
    (
        "light-matrix",
        {"rows": 2, "columns": 3},
        (
            *numbered("lights:x:row ", "high drive", 2, " light"),
            *numbered("lights:x:column ", "output", 3, " light"),
        ),
    ),
    (
        "speaker",
        {"feed_by": "converter", "mute_line": False, "volume": True},
        ("speaker:x:feed converter output sounder", "speaker:x:volume analogue sounder"),
    ),
    (
        "speaker",
        {"feed_by": "sound bus", "mute_line": False},
        tuple(
            f"speaker:x:{line} sound {line} on sound of x sounder"
            for line in ("clock", "word", "data")
        ),
    ),
    ("headphones", {"detection": False}, ()),
    ("serial", {"spare": False}, tuple(line.removesuffix(" extra") for line in PORT)),
    ("memory-card", {"detect": False}, ASKS["memory-card"][:-1]),
    ("expansion", {"lines": 3}, numbered("link:x:", "input", 3)),
    ("own-part", {"lines": 2}, numbered("part:x:", "input", 2)),
    (
        "own-block",
        {"inputs": 2, "outputs": 1},
        ("block:x:gives 1 input", "block:x:gives 2 input", "block:x:takes 1 output"),
    ),
]


@pytest.mark.parametrize("model", kinds.KINDS, ids=lambda m: m.model_fields["kind"].default)
def test_a_kind_asks_what_is_written_here(model: Any) -> None:
    kind = model.model_fields["kind"].default
    asked = needs_of(device(thing(kind, "x", 60, 30)))
    assert tuple(said(need) for need in asked) == ASKS.get(kind, ())
    assert {need.thing for need in asked} <= {"x", ""}


@pytest.mark.parametrize(("kind", "fields", "asks"), VARIED)
def test_fields_change_what_is_asked(
    kind: str, fields: dict[str, Any], asks: tuple[str, ...]
) -> None:
    assert tuple(said(n) for n in needs_of(device(thing(kind, "x", 60, 30, **fields)))) == asks


def targets(brief: Brief) -> dict[str, tuple[float, float] | None]:
    """Where each signal goes, in mm."""
    return {n.signal: n.target and (n.target[0] / 1e6, n.target[1] / 1e6) for n in needs_of(brief)}


def test_a_parallel_screen_asks_a_line_a_bit_and_four_to_keep_time() -> None:
    """Three bits, pixel clock, line and frame sync, enable: posts 3 to 9 of ten, the backlight on
    the last.
    """
    fields = {"bus": "parallel colour", "part": "screen-320x240-parallel", "colour_bits": 3}
    found = targets(device(thing("screen", "x", 60, 30, **fields)))
    names = [
        *("colour 1", "colour 2", "colour 3", "pixel clock", "line sync", "frame sync", "enable"),
        "backlight",
    ]
    assert list(found) == [f"screen:x:{name}" for name in names]
    posts = (2, 3, 4, 5, 6, 7, 8, 9)
    assert [at and at[0] for at in found.values()] == [
        pytest.approx(60 + 2.54 * (post - 4.5)) for post in posts
    ]
    asked = needs_of(device(thing("screen", "x", 60, 30, **fields)))
    assert said(asked[-1]) == "screen:x:backlight timer at dimming rate extra"
    assert {said(need).rsplit(" ", 1)[1] for need in asked[:-1]} == {"output"}


def test_a_cell_is_sensed_anywhere_and_an_unplaced_thing_has_no_target() -> None:
    assert targets(device(thing("lithium-cell", "x", 60, 30))) == {"cell:x:sense": None}
    assert targets(device(thing("voltage-sensor", "x"))) == {"sensor:x": None}
    assert targets(device(thing("programming", "x"))) == {
        "debug:x:data": None,
        "debug:x:clock": None,
    }


def test_a_host_that_reads_the_keys_has_no_probe() -> None:
    assert needs_of(device(thing("programming", "x", 60, 30), role="host-key-reader")) == ()


EIGHT = tuple(thing("button", f"k{n}", 10 + 12 * n, 20 + 10 * (n % 2)) for n in range(9))
POWER = thing("button", "wake", 60, 50, duty="power")


def lines(scheme: str, *things: dict[str, Any]) -> tuple[str, ...]:
    return tuple(said(n) for n in needs_of(device(*things, key_scheme={"name": scheme})))


@pytest.mark.parametrize(
    ("scheme", "asks"),
    [
        (
            "one pin each",
            (*(f"button:k{n} input reads key" for n in range(9)), "button:wake wake-up key"),
        ),
        (
            "diode matrix",
            (
                "button:wake wake-up key",
                *numbered("row ", "output", 3, " key"),
                *numbered("column ", "input", 3, " reads key"),
            ),
        ),
        (
            "charlieplexed",
            ("button:wake wake-up key", *numbered("line ", "input", 4, " reads key")),
        ),
        (
            "shift register",
            *[
                (
                    "button:wake wake-up key",
                    "keys:clock output",
                    "keys:load output",
                    "keys:data input",
                )
            ],
        ),
        (
            "resistor ladder",
            ("button:wake wake-up key", "keys:ladder 1 analogue", "keys:ladder 2 analogue"),
        ),
        ("expander 16", ("button:wake wake-up key", "keys:changed interrupt", *BUS)),
        ("expander 8", ("button:wake wake-up key", "keys:changed interrupt", *BUS)),
    ],
)
def test_every_way_to_read_keys_asks_for_its_lines(scheme: str, asks: tuple[str, ...]) -> None:
    """Nine keys and a power button, which has a pin of its own whatever the way."""
    assert lines(scheme, *EIGHT, POWER) == asks


def test_eight_keys_are_one_ladder_and_a_lone_power_button_needs_no_scheme() -> None:
    assert lines("resistor ladder", *EIGHT[:8]) == ("keys:ladder 1 analogue",)
    for scheme in (
        "diode matrix",
        "charlieplexed",
        "shift register",
        "resistor ladder",
        "expander 8",
    ):
        assert lines(scheme, POWER) == ("button:wake wake-up key",)


def test_shared_lines_go_to_the_middle_of_their_keys() -> None:
    """Keys at 10, 22, ... 106 mm, every other one 10 mm higher; rows from the top, columns from the
    left.
    """
    found = targets(device(*EIGHT, key_scheme={"name": "shift register"}))
    assert found["keys:clock"] == found["keys:load"] == found["keys:data"]
    assert found["keys:data"] == (pytest.approx(58), pytest.approx(24.444, abs=1e-3))
    four = device(*EIGHT[:4], key_scheme={"name": "diode matrix"})
    assert targets(four) == {
        "row 1": (34, 30),
        "row 2": (22, 20),
        "column 1": (16, 25),
        "column 2": (40, 25),
    }
    assert middle(()) is None
    assert {key.thing for key in keys_seen(four).values()} == {"k0", "k1", "k2", "k3"}


STICKS = tuple(thing("stick", f"s{n}", 20 + 30 * n, 30, press=False) for n in range(3))


def test_axes_leave_the_chip_for_a_converter_or_a_multiplexer() -> None:
    """Six axes take three select lines of a multiplexer (2^3 = 8), four take two, two take one; a
    converter hangs on the bus.
    """

    def asked(count: int, by: str) -> tuple[str, ...]:
        return tuple(said(n) for n in needs_of(device(*STICKS[:count], analogue_by=by)))

    common = "axes:common analogue"
    assert asked(3, "multiplexer") == (common, *numbered("axes:select ", "output", 3))
    assert asked(2, "multiplexer") == (common, *numbered("axes:select ", "output", 2))
    assert asked(1, "multiplexer") == (common, *numbered("axes:select ", "output", 1))
    assert asked(3, "converter") == BUS
    assert len(asked(3, "chip")) == 6
    single = device(thing("slider", "x", 60, 30), analogue_by="multiplexer")
    assert [said(n) for n in needs_of(single)] == ["slider:x:level analogue"]


def test_one_bus_is_named_after_the_screen_on_it_and_runs_at_the_slowest() -> None:
    """400 kHz unless something on it is slower."""
    both = device(
        thing("motion", "m", 20, 30),
        thing("screen", "show", 60, 30, bus_khz=100),
        thing("gauge", "g", 90, 30),
    )
    signals = [n.signal for n in needs_of(both)]
    assert signals.count("screen:show:clock") == signals.count("screen:show:data") == 1
    assert "bus:clock" not in signals
    assert (bus_khz_of(both), bus_khz_of(device(thing("gauge", "g", 90, 30)))) == (100, 400)
    assert bus_khz_of(device()) == 400


def test_titles_and_nets_of_lines() -> None:
    wanted = {
        "shift register": [
            ("KEYS_CLOCK", "key register clock"),
            ("KEYS_LOAD", "key register load"),
            ("KEYS_DATA", "key register data"),
        ],
        "resistor ladder": [("KEYS_LADDER_1", "key ladder 1")],
        "expander 16": [
            ("KEYS_CHANGED", "key expander interrupt"),
            ("BUS_CLOCK", "bus clock"),
            ("BUS_DATA", "bus data"),
        ],
        "diode matrix": [
            ("ROW_1", "row 1"),
            ("ROW_2", "row 2"),
            ("COLUMN_1", "column 1"),
            ("COLUMN_2", "column 2"),
        ],
    }
    for scheme, rows in wanted.items():
        asked = needs_of(device(*EIGHT[:4], key_scheme={"name": scheme}))
        assert [(n.net, n.title) for n in asked] == rows
    (own,) = needs_of(device(POWER))
    assert (own.net, own.title, own.thing) == ("BUTTON_WAKE", "button wake", "wake")
    axes = needs_of(device(*STICKS[:1], analogue_by="multiplexer"))
    assert [(n.net, n.title) for n in axes] == [
        ("AXES_COMMON", "multiplexed axes"),
        ("AXES_SELECT_1", "axis select 1"),
    ]

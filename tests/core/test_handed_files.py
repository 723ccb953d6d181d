"""The files of a pin plan against texts written by hand, without a solver: header, report, overlay,
map, wiring card.

Descriptor bytes are put together by hand after HID 1.11 (section 6.2.2, items) and the HID usage
tables; the overlay after the kernel's bindings for gpio-keys and gpio-matrix-keypad (from memory);
millimetres of the card with 72 points to the inch.
"""

import io
import json
from typing import Any

import pytest
from pypdf import PdfReader
from pypdf.generic import ContentStream

from loquet.core.handover.key_table import usual_usage
from loquet.core.handover.overlay import write_overlay
from loquet.core.handover.package import device_files, handover_files
from loquet.core.handover.report import axis_fields, descriptor_of, fields_of
from loquet.core.handover.report_items import lint
from loquet.core.handover.wiring_card import COLOURS
from loquet.core.pins import Assignment, PinPlan
from tests.making import device, thing


def plan_with(**pins: tuple[str, str]) -> PinPlan:
    """A plan with these signals (written with underscores) on pins and ports."""
    rows = []
    for signal, (pin, port) in pins.items():
        words = signal.replace("__", ":").replace("_", " ")
        timed = {"peripheral": "TIM2", "function": "CH1", "route": "AF2"} if "tone" in words else {}
        net = signal.upper().replace("__", "_")
        rows.append(
            Assignment(
                signal=words, kind="input", title=words, net=net, pin=pin, port=port, **timed
            )
        )
    return PinPlan(
        chip="f072",
        package="LQFP48",
        assignments=tuple(rows),
        free=(),
        reserved=(),
        proven=True,
        risk=0,
        length_um=0,
        workings=(),
    )


KEYS = (
    thing("button", "hush", 20, 40),
    thing("button", "go", 40, 40),
    thing("button", "far", 20, 20),
    thing("button", "bell", 60, 20, duty="power"),
)
MATRIX = device(*KEYS, key_scheme={"name": "diode matrix"})
MATRIX_PLAN = plan_with(
    button__bell=("2", "PC13"),
    row_1=("10", "PA0"),
    row_2=("11", "PA15"),
    column_1=("12", "GPIO7"),
    column_2=("13", "P1.09"),
    buzzer__tone=("14", "pad A"),
)

HEADER = """\
/* Pin map of Bell pad, chip f072 in LQFP48. Written by Loquet; change the pin plan, \
not this file. */
#ifndef BELL_PAD_PINS_H
#define BELL_PAD_PINS_H

/* button:bell: package pin 2, net BUTTON_BELL */
#define BUTTON_BELL_PORT 'C'
#define BUTTON_BELL_BIT 13
/* row 1: package pin 10, net ROW_1 */
#define ROW_1_PORT 'A'
#define ROW_1_BIT 0
/* row 2: package pin 11, net ROW_2 */
#define ROW_2_PORT 'A'
#define ROW_2_BIT 15
/* column 1: package pin 12, net COLUMN_1 */
#define COLUMN_1_PORT 0
#define COLUMN_1_BIT 7
/* column 2: package pin 13, net COLUMN_2 */
#define COLUMN_2_PORT 1
#define COLUMN_2_BIT 9
/* buzzer:tone: package pin 14, net BUZZER_TONE */
#define BUZZER_TONE_PAD "pad A"
#define BUZZER_TONE_FUNCTION "TIM2.CH1 AF2"

#define BUTTON_COUNT 0
#define BUTTON_PRESSED_LEVEL 0
#define BUTTON_NEEDS_PULL_UP 1
#define KEY_COUNT 4
#define KEY_SCHEME "diode matrix"

/* X(name, number): every key, numbered in the order of the brief, as report and \
button test number them */
#define KEY_NUMBERS(X) \\
    X(HUSH, 0) \\
    X(GO, 1) \\
    X(FAR, 2) \\
    X(BELL, 3)
#define KEY_ROWS 2
#define KEY_COLUMNS 2
/* rows are driven low one after the other; a held key pulls its column down */
#define KEY_MATRIX_PRESSED_LEVEL 0
#define KEY_COLUMNS_NEED_PULL_UP 1
/* X(name, row, column) */
#define KEY_MATRIX(X) \\
    X(HUSH, 0, 0) \\
    X(GO, 0, 1) \\
    X(FAR, 1, 0)

#endif /* BELL_PAD_PINS_H */
"""


def test_the_header_of_a_matrix_in_full() -> None:
    assert handover_files(MATRIX, MATRIX_PLAN)["pins.h"].decode() == HEADER


def test_keys_with_pins_and_keys_on_lines_have_tables_of_their_own() -> None:
    direct = plan_with(button__hush=("1", "PB3"), button__go=("2", "P0.11"), button__far=("3", "A"))
    text = handover_files(device(*KEYS, button_reading="pull-down-resistors"), direct)[
        "pins.h"
    ].decode()
    assert "    X(HUSH, 'B', 3) \\\n    X(GO, 0, 11) \\\n    X(FAR, \"A\", 0)\n" in text
    assert "#define BUTTON_COUNT 3\n#define BUTTON_PRESSED_LEVEL 1\n" in text
    assert "#define BUTTON_NEEDS_PULL_UP 0\n" in text
    listed = device(*KEYS, key_scheme={"name": "shift register"})
    text = handover_files(listed, plan_with(button__bell=("1", "PA0")))["pins.h"].decode()
    lines = "X(name, line): lines of the expanders, registers or ladders, from 0"
    assert f"/* {lines} */\n#define KEY_LINES(X) \\\n    X(HUSH, 0) \\\n    X(GO, 1) \\\n" in text
    assert "KEY_ROWS" not in text
    assert "BUTTON_TABLE" not in text  # a power button wakes the chip and is no key of the report


CONTROLLER = device(
    thing("button", "hush", 20, 20),
    thing("pad", "way", 20, 40),
    thing("button", "go", 45, 20),
    thing("stick", "aim", 70, 40),
    thing("trigger", "pull", 95, 50),
    thing("encoder", "dial", 105, 20),
    thing("button", "bell", 60, 10, duty="power"),
    role="usb-controller",
)
HEADS = "05 01 09 05 a1 01"  # generic desktop, game pad, application
BUTTONS = "05 09 19 01 29 04 15 00 25 01 75 01 95 04 81 02 75 04 95 01 81 03"  # 4 bits, 4 to fill
HAT = "05 01 09 39 15 00 25 07 75 04 95 01 81 42 75 04 95 01 81 03"  # eight ways, or none
AXIS = "05 01 09 {:02x} 15 00 26 ff 0f 75 10 95 01 81 02"  # 0 to 4095 in 16 bits
TURNS = "05 01 09 37 15 81 25 7f 75 08 95 01 81 06 c0"  # -127 to 127, relative; the end


def test_the_report_of_a_controller_byte_by_byte() -> None:
    """X 0x30, Y 0x31 and Z 0x32 of the generic desktop page; the power button is in no report."""
    axes = " ".join(AXIS.format(usage) for usage in (0x30, 0x31, 0x32))
    wanted = bytes.fromhex(f"{HEADS} {BUTTONS} {HAT} {axes} {TURNS}")
    files = handover_files(CONTROLLER, plan_with())
    assert files["usb-report.bin"] == descriptor_of(CONTROLLER, plan_with()) == wanted
    assert lint(wanted) == []
    text = files["usb-report.h"].decode()
    assert text.startswith(
        "/* USB report of Bell pad. Written by Loquet from the pin plan; the order of buttons is"
        " that of pins.h. */\n#ifndef BELL_PAD_REPORT_H\n#define BELL_PAD_REPORT_H\n#include"
        " <stdint.h>\n\n/* Layout, from the first bit on:\n   bit 0: buttons: 4 x 1 bit, 0 to 1\n  "
        " bit 4: padding: 1 x 4 bit\n   bit 8: hat: 1 x 4 bit, 0 to 7\n   bit 12: padding: 1 x 4"
        " bit\n   bit 16: aim x: 1 x 16 bit, 0 to 4095\n   bit 32: aim y: 1 x 16 bit, 0 to 4095\n  "
        " bit 48: pull pull: 1 x 16 bit, 0 to 4095\n   bit 64: dial turns: 1 x 8 bit, -127 to 127\n"
        "   9 bytes, no report id\n   button 1: button hush\n   hat up: way up\n   hat down: way"
        " down\n   hat left: way left\n   hat right: way right\n   button 2: button go\n   button"
        " 3: aim press\n   button 4: dial press\n   none: button bell\n*/\nstatic const uint8_t"
        " BELL_PAD_REPORT[] = {\n    0x05, 0x01, /* Usage Page 1: generic desktop */\n"
    )
    assert "    0x29, 0x04, /* Usage Maximum 4 */\n" in text
    assert text.endswith(
        "    0xC0, /* End Collection */\n};\n"
        "#define BELL_PAD_REPORT_BYTES sizeof(BELL_PAD_REPORT)\n#endif\n"
    )
    rows = [line for line in text.splitlines() if line.startswith("    0x")]
    written = " ".join(row.split("/*")[0].replace("0x", "").replace(",", "") for row in rows)
    assert bytes.fromhex(written) == wanted


def test_axes_take_the_usages_that_the_tables_have() -> None:
    """Rx 0x33 and Ry 0x34 for the second stick, Vx 0x40 and Vy 0x41 for the third, none for a
    fourth; Rz 0x35, then sliders 0x36.
    """
    sticks = tuple(thing("stick", f"s {i}", 15 + 28 * i, 45) for i in range(4))
    pulls = tuple(thing("trigger", f"t {i}", 15 + 25 * i, 15) for i in range(3))
    level = thing("slider", "level", 100, 20)
    found = {f.name: f.usage for f in axis_fields(device(*sticks, *pulls, level))}
    assert found == {
        **{
            "s 0 x": 0x30,
            "s 0 y": 0x31,
            "s 1 x": 0x33,
            "s 1 y": 0x34,
            "s 2 x": 0x40,
            "s 2 y": 0x41,
        },
        **{"t 0 pull": 0x32, "t 1 pull": 0x35, "t 2 pull": 0x36, "level level": 0x36},
    }


KEYBOARD = device(
    thing("button", "hush", 20, 40),
    thing("button", "go", 40, 40, sends=0xE1),
    thing("button", "far", 20, 20, sends=0x72),
    role="usb-keyboard",
)


def test_the_report_of_a_keyboard_byte_by_byte() -> None:
    """Eight modifiers, a reserved byte, six places for usages up to the greatest that is sent (F23
    is 0x72).
    """
    wanted = bytes.fromhex(
        "05 01 09 06 a1 01 "
        "05 07 19 e0 29 e7 15 00 25 01 75 01 95 08 81 02 75 08 95 01 81 03 "
        "05 07 19 00 29 72 15 00 25 72 75 08 95 06 81 00 c0"
    )
    assert descriptor_of(KEYBOARD, plan_with()) == wanted
    assert lint(wanted) == []
    plain = device(thing("button", "hush", 20, 40), role="usb-keyboard")
    assert [f.high for f in fields_of(plain, plan_with())] == [1, 0x65]
    keys = json.loads(handover_files(KEYBOARD, plan_with())["pins.json"])["keys"]
    assert [key["report"] for key in keys] == ["key 0x04", "modifier 1", "key 0x72"]


def test_usual_keys_leave_out_the_one_that_turns_the_host_off() -> None:
    """HID usage tables, page 0x07: a is 0x04, the application key 0x65, power 0x66, = of the keypad
    0x67.
    """
    assert [usual_usage(number) for number in (0, 1, 97, 98, 99)] == [0x04, 0x05, 0x65, 0x68, 0x69]


OVERLAY = """\
/* Keys of Bell pad on the host's own pins. Written by Loquet. Pull-ups are asked for \
where a key closes to ground. */
/dts-v1/;
/plugin/;

/ {
	fragment@0 {
		target-path = "/";
		__overlay__ {
			keys {
				compatible = "gpio-keys";
				key-3 {
					label = "button bell";
					linux,code = <707>;
					gpios = <&gpio 13 17>;
					debounce-interval = <5>;
				};
			};
			key-matrix {
				compatible = "gpio-matrix-keypad";
				debounce-delay-ms = <5>;
				col-scan-delay-us = <10>;
				col-gpios = <&gpio 20 1>, <&gpio 21 1>;
				row-gpios = <&gpio 22 17>, <&gpio 23 17>;
				gpio-activelow;
				linux,keymap = <0x000002c0>, <0x010002c1>, <0x000102c2>;
			};
		};
	};
};
"""


def test_keys_that_close_to_the_rail_are_active_high_but_the_one_that_wakes() -> None:
    """dt-bindings/gpio/gpio.h: 0 is active high, 1 active low, 16 the pull-up inside the chip."""
    plan = plan_with(button__hush=("1", "GPIO4"), button__bell=("2", "GPIO13"))
    brief = device(*KEYS, button_reading="pull-down-resistors")
    text = write_overlay(brief, plan).decode()
    assert "gpios = <&gpio 4 0>;" in text
    assert "gpios = <&gpio 13 17>;" in text


ON_HOST = plan_with(
    button__bell=("2", "GPIO13"),
    row_1=("10", "GPIO20"),
    row_2=("11", "GPIO21"),
    column_1=("12", "GPIO22"),
    column_2=("13", "GPIO23"),
)


def test_the_overlay_in_full() -> None:
    """The driver drives its columns and reads its rows; a cell is row << 24, column << 16, code
    (from 0x2c0, the first trigger button).
    """
    assert write_overlay(MATRIX, ON_HOST).decode() == OVERLAY
    host = MATRIX.model_copy(update={"role": "host-key-reader"})
    assert handover_files(host, ON_HOST)["keys.dts"].decode() == OVERLAY
    assert "keys.dts" not in handover_files(MATRIX, ON_HOST)


def test_lines_of_a_second_brain_carry_its_name() -> None:
    """Files of each brain in a folder of its own; the lines of the second are called after it, in
    overlay and card too.
    """
    both = device(
        thing("chip", "front end", 60, 45, part="stm32f072c8t6"),
        thing("chip", "rear end", 60, 20, part="stm32f072c8t6"),
        *({**key, "brain": "rear end"} for key in KEYS[:3]),
        role="host-key-reader",
        key_scheme={"name": "diode matrix"},
    )
    lines = {
        f"rear end:{name}": (str(n), f"GPIO{n}")
        for n, name in enumerate(("row 1", "row 2", "column 1", "column 2"), 20)
    }
    rear = plan_with().model_copy(
        update={
            "assignments": tuple(
                Assignment(signal=s, kind="input", title=s, net=s, pin=p, port=o)
                for s, (p, o) in lines.items()
            )
        }
    )
    files = device_files(both, {"front end": plan_with(), "rear end": rear})
    assert {name.rsplit("/")[0] for name in files} == {"front-end", "rear-end"}
    text = files["rear-end/keys.dts"].decode()
    assert "col-gpios = <&gpio 20 1>, <&gpio 21 1>;" in text
    assert "row-gpios = <&gpio 22 17>, <&gpio 23 17>;" in text
    shown = PdfReader(io.BytesIO(files["rear-end/wiring-card.pdf"])).pages[0].extract_text()
    assert "rear end:row 1: hush, go" in shown


def test_the_map_in_full() -> None:
    assert json.loads(handover_files(MATRIX, ON_HOST)["pins.json"]) == {
        "format": "loquet-pin-map-1",
        "device": "Bell pad",
        "role": "stand-alone",
        "chip": "f072",
        "package": "LQFP48",
        "signals": [
            {
                **{"signal": row.signal, "kind": "input", "title": row.title, "net": row.net},
                **{"pin": row.pin, "port": row.port},
                **{"peripheral": "gpio", "function": "", "route": ""},
            }
            for row in ON_HOST.assignments
        ],
        "keys": (
            [
                {
                    **{"number": n, "id": f"button:{name}", "title": f"button {name}"},
                    **{
                        "report": f"button {n + 1}",
                        "scheme": "diode matrix",
                        "pin": "",
                        "port": "",
                    },
                    **{"row": row, "column": column, "place": None},
                }
                for n, (name, row, column) in enumerate(
                    (("hush", 0, 0), ("go", 0, 1), ("far", 1, 0))
                )
            ]
            + [
                {
                    **{"number": 3, "id": "button:bell", "title": "button bell", "report": "none"},
                    **{"scheme": "one pin each", "pin": "2", "port": "GPIO13"},
                    **{"row": None, "column": None, "place": None},
                }
            ]
        ),
        "report": [],
    }


def strokes(page: Any) -> list[tuple[str, tuple[float, ...]]]:
    """What a page draws: operators with their numbers, in points."""
    stream = ContentStream(page.get_contents(), page.pdf)
    return [
        (op.decode(), tuple(float(n) for n in args))
        for args, op in stream.operations
        if op in (b"m", b"l", b"re", b"w", b"rg", b"RG", b"Tm", b"c")
    ]


def sizes(page: Any) -> set[float]:
    """The sizes of letters of a page, in points."""
    stream = ContentStream(page.get_contents(), page.pdf)
    return {float(args[1]) for args, op in stream.operations if op == b"Tf"} - {12.0}


def mm(points: float) -> float:
    return round(points * 25.4 / 72, 2)


def texts(page: Any) -> dict[str, tuple[float, float]]:
    """Words of a page with the millimetres where they begin."""
    found: dict[str, tuple[float, float]] = {}

    def note(text: str, cm: Any, tm: Any, font: Any, size: Any) -> None:
        if text.strip():
            found[text.strip()] = (mm(tm[4]), mm(tm[5]))

    page.extract_text(visitor_text=note)
    return found


def test_the_wiring_card_is_drawn_to_these_millimetres() -> None:
    """One wire every 7.2 mm below 258 mm: the first at 254.4, text 1.1 mm below it; the chip is 34
    mm wide, wires are 40 mm long.
    """
    page = PdfReader(io.BytesIO(handover_files(MATRIX, MATRIX_PLAN)["wiring-card.pdf"])).pages[0]
    words, drawn = texts(page), strokes(page)
    assert words["Bell pad: wiring card"] == (18, 280)
    assert words[
        "Chip f072 in LQFP48. A diagram, not to scale. Ground is black, the rail is red."
    ] == (18, 274)
    caution = next(text for text in words if text.startswith("Cells out while you wire"))
    assert words[caution] == (18, 269)
    assert "local codes and the cell maker's limits come first" in caution
    ports = ["PC13", "PA0", "PA15", "GPIO7", "P1.09", "pad A"]
    assert [words[port] for port in ports] == [
        (20, round(253.3 - 7.2 * n, 2)) for n in range(len(ports))
    ]
    names = [colour for colour, _ in COLOURS[:6]]
    assert [words[name] for name in names] == [(66, round(255.4 - 7.2 * n, 2)) for n in range(6)]
    assert words["row 1: hush, go"] == (98, 246.1)
    assert words["column 2: go"] == (98, 224.5)
    box = next(args for op, args in drawn if op == "re")
    assert tuple(mm(value) for value in box) == (18, 214.8, 34, 43.2)
    starts = [tuple(mm(v) for v in args) for op, args in drawn if op == "m"]
    ends = [tuple(mm(v) for v in args) for op, args in drawn if op == "l"]
    heights = [round(254.4 - 7.2 * n, 2) for n in range(6)]
    assert [y for x, y in starts if x == 52] == [y for x, y in ends if x == 92] == heights
    assert words["pin 2"] == (pytest.approx(50 - 5 * 0.6 * 9 * 25.4 / 72, abs=0.01), 253.3)
    assert sizes(page) == {13.0, 9.0, 7.0}
    curves = [tuple(mm(v) for v in args) for op, args in drawn if op == "c"][:4]
    across, up = [v for c in curves for v in c[::2]], [v for c in curves for v in c[1::2]]
    assert (min(across), max(across)) == (92.8, 95.2)  # an eyelet of 2.4 mm behind the wire
    assert (min(up), max(up)) == (253.2, 255.6)
    inks = [tuple(round(255 * v) for v in args) for op, args in drawn if op == "RG"]
    brown, orange = (0x7A, 0x4A, 0x21), (0xD9, 0x74, 0x2B)
    assert inks.index(brown) < inks.index(orange)


def test_a_white_wire_has_an_edge_and_thirty_fill_a_page() -> None:
    rows = {f"line_{n}": (str(n), f"PA{n}") for n in range(31)}
    reader = PdfReader(io.BytesIO(handover_files(device(), plan_with(**rows))["wiring-card.pdf"]))
    first, second = (texts(page) for page in reader.pages)
    assert ("PA29" in first, "PA30" in first, "PA30" in second) == (True, False, True)
    assert second["Bell pad: wiring card, continued"] == (18, 280)
    assert second["PA30"] == (20, 253.3)
    drawn = strokes(reader.pages[0])
    white = tuple(round(v / 255, 6) for v in (0xF4, 0xF1, 0xE8))
    place = next(
        i
        for i, (op, args) in enumerate(drawn)
        if op == "RG" and tuple(round(v, 6) for v in args) == white
    )
    assert drawn[place + 1] == ("w", (1.2,))
    before = [args for op, args in drawn[:place] if op == "w"]
    assert before[-1] == (2.2,)
    edge = [args for op, args in drawn[:place] if op == "RG"][-1]
    assert edge == (0.75, 0.71, 0.63)
    height = round(254.4 - 7.2 * 7, 2)
    own = [(op, tuple(mm(v) for v in args)) for op, args in drawn[place : place + 4]]
    assert own[2:] == [("m", (52, height)), ("l", (92, height))]


def test_long_words_end_in_dots_before_the_edge() -> None:
    for length, shown in ((62, "w" * 62), (63, "w" * 59 + "...")):
        row = Assignment(signal="s", kind="input", title="w" * length, net="S", pin="1", port="PA0")
        plan = plan_with().model_copy(update={"assignments": (row,)})
        page = PdfReader(io.BytesIO(handover_files(device(), plan)["wiring-card.pdf"])).pages[0]
        assert shown in texts(page)

"""What the plan hands over, judged by others: HID by two independent readers, overlays by dtc and
fdtoverlay, headers by gcc.

hid-tools and hid-parser are general HID libraries; dtc is the device-tree compiler of Debian; gcc
the C compiler.
"""

import json
import subprocess
import warnings
from pathlib import Path

import hid_parser
import pytest
from hidtools.hid import ReportDescriptor
from pypdf import PdfReader

from loquet.core.brief import Brief, KeyScheme, PinTable, keys_of
from loquet.core.design import Design
from loquet.core.handover.key_table import key_table
from loquet.core.handover.overlay import NotOnHost, host_line, write_overlay
from loquet.core.handover.package import handover_files
from loquet.core.handover.report import descriptor_of, fields_of
from loquet.core.handover.report_items import lint
from loquet.core.library import Library
from loquet.core.pins import PinPlan, Solved, solve
from loquet.core.pins.own_chip import read_pin_table
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from loquet.demo.scenario import demo_brief
from tests.making import varied

SCHEMES = (
    "one pin each",
    "diode matrix",
    "bare matrix",
    "charlieplexed",
    "expander 16",
    "shift register",
    "resistor ladder",
    "mixed",
)


def planned(brief: Brief, library: Library) -> PinPlan:
    problem = pin_problem(Design(brief=brief), library)
    answer = solve(problem)
    assert isinstance(answer, Solved), answer
    return plan_of(problem, answer)


@pytest.fixture(scope="module")
def handset() -> Brief:
    return varied("ridge-handset", things={"chip": {"part": "stm32f072rbt6"}})


@pytest.fixture(scope="module")
def host_table() -> PinTable:
    rows = [
        "pad,port,can",
        *(f"{n},GPIO{n},input output" for n in range(2, 28)),
        "39,,ground",
        "1,,supply",
    ]
    return read_pin_table("\n".join(rows).encode(), "host header")


@pytest.fixture(scope="module")
def host_panel(host_table: PinTable) -> Brief:
    return varied(
        "dome-pod",
        things={"chip": {"part": "own", "table": host_table.name}, "light": None},
        shelf={"pin_tables": [host_table.model_dump(mode="json")]},
        role="host-key-reader",
    )


def test_two_readers_find_the_fields_of_a_controller(handset: Brief, library: Library) -> None:
    plan = planned(handset, library)
    data = descriptor_of(handset, plan)
    assert lint(data) == []
    fields = {f.name: f for f in fields_of(handset, plan)}
    assert (fields["buttons"].count, fields["hat"].high, fields["left stick x"].high) == (
        10,
        7,
        4095,
    )
    read = next(iter(ReportDescriptor.from_bytes(data).input_reports.values()))
    usages = [f.usage_name for f in read.fields if not f.is_const]
    assert sum("Button" in u or u.startswith("B") for u in usages) == 10
    assert {"X", "Y", "Rx", "Ry"} <= set(usages)
    assert sum("hat" in u.lower() for u in usages) == 1
    assert read.size == 11
    with warnings.catch_warnings():
        warnings.simplefilter("error")
        other = hid_parser.ReportDescriptor(list(data))
        assert int(other.get_input_report_size()) == 88
        items = [i for i in other.get_input_items() if isinstance(i, hid_parser.VariableItem)]
    assert sum(i.usage.page == 0x09 for i in items) == 10
    assert [(i.usage.usage, i.logical_max) for i in items if i.usage.page == 0x01] == [
        (0x39, 7),
        (0x30, 4095),
        (0x31, 4095),
        (0x33, 4095),
        (0x34, 4095),
    ]


def test_two_readers_find_the_keys_of_a_keyboard(library: Library) -> None:
    brief = demo_brief("log-key-pad")
    data = descriptor_of(brief, planned(brief, library))
    assert lint(data) == []
    assert int(hid_parser.ReportDescriptor(list(data)).get_input_report_size()) == 64
    read = next(iter(ReportDescriptor.from_bytes(data).input_reports.values()))
    assert read.size == 8
    assert [f.count for f in read.fields if f.is_array] == [6]


@pytest.mark.parametrize("scheme", SCHEMES)
def test_headers_compile_and_follow_the_one_table(
    scheme: str, handset: Brief, library: Library, tmp_path: Path
) -> None:
    brief = handset.model_copy(update={"key_scheme": KeyScheme(name=scheme)})
    plan = planned(brief, library)
    files = handover_files(brief, plan)
    for name, data in files.items():
        (tmp_path / name).write_bytes(data)
    test = tmp_path / "test.c"
    test.write_text(
        '#include "pins.h"\n#include "usb-report.h"\n#define NUMBER(name, number) KEY_##name ='
        " number,\nenum keys { KEY_NUMBERS(NUMBER) KEY_END };\n_Static_assert(KEY_END == KEY_COUNT,"
        ' "every key stands once");\nint main(void) { return (int)RIDGE_HANDSET_REPORT[0]; }\n'
    )
    done = subprocess.run(
        ["gcc", "-std=c11", "-Wall", "-Werror", "-Wno-unused", "-fsyntax-only", str(test)],
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    mapped = json.loads(files["pins.json"])
    assert [k["id"] for k in mapped["keys"]] == [row.id for row in key_table(brief, plan)]
    assert sum(k["report"].startswith("button") for k in mapped["keys"]) == 10
    text = PdfReader(tmp_path / "wiring-card.pdf").pages[0].extract_text()
    assert "not to scale" in text
    assert plan.chip in text


def test_a_keyboard_without_keys_still_has_whole_files(
    handset: Brief, library: Library, tmp_path: Path
) -> None:
    """Sticks whose press is not read are an odd keyboard, yet one on the way to another: nothing
    may break on the way.
    """
    unread = {name: {"press": False} for name in ("left stick", "right stick")}
    brief = varied(
        handset,
        only=("brains", "feeds", "ports", "left stick", "right stick"),
        things=unread,
        role="usb-keyboard",
    )
    assert not keys_of(brief)
    files = handover_files(brief, planned(brief, library))
    assert lint(files["usb-report.bin"]) == []
    assert b"#define KEY_COUNT 0" in files["pins.h"]
    for name, data in files.items():
        (tmp_path / name).write_bytes(data)
    (tmp_path / "all.c").write_text(
        '#include "pins.h"\n#include "usb-report.h"\nint main(void) { return KEY_COUNT; }\n'
    )
    done = subprocess.run(
        [
            "gcc",
            "-std=c11",
            "-Wall",
            "-Werror",
            "-Wno-unused",
            "-fsyntax-only",
            str(tmp_path / "all.c"),
        ],
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr


def compiled(source: bytes, folder: Path) -> str:
    """The overlay applied to a stub tree by dtc and fdtoverlay; any warning is a failure.

    Returns the tree as text.
    """
    (folder / "base.dts").write_text(
        '/dts-v1/;\n/ {\n\tcompatible = "stub";\n\t#address-cells = <1>;\n\t#size-cells = <0>;\n'
        "\tgpio: gpio@0 {\n\t\treg = <0>;\n\t\tgpio-controller;\n\t\t#gpio-cells = <2>;\n\t};\n};\n"
    )
    (folder / "keys.dts").write_bytes(source)
    for command in (
        ["dtc", "-@", "-I", "dts", "-O", "dtb", "-o", "base.dtb", "base.dts"],
        ["dtc", "-@", "-I", "dts", "-O", "dtb", "-o", "keys.dtbo", "keys.dts"],
        ["fdtoverlay", "-i", "base.dtb", "-o", "out.dtb", "keys.dtbo"],
    ):
        done = subprocess.run(command, cwd=folder, capture_output=True, text=True)
        assert done.returncode == 0, done.stderr
        assert done.stderr == ""
    return subprocess.run(
        ["dtc", "-q", "-I", "dtb", "-O", "dts", "out.dtb"],
        cwd=folder,
        capture_output=True,
        text=True,
        check=True,
    ).stdout


@pytest.mark.parametrize("scheme", ["one pin each", "diode matrix", "mixed"])
def test_overlays_compile_and_apply_without_a_warning(
    scheme: str, host_panel: Brief, library: Library, tmp_path: Path
) -> None:
    brief = host_panel.model_copy(update={"key_scheme": KeyScheme(name=scheme)})
    plan = planned(brief, library)
    tree = compiled(write_overlay(brief, plan), tmp_path)
    keys = key_table(brief, plan)
    assert tree.count("linux,code") == sum(bool(row.pin) for row in keys)
    assert ("gpio-matrix-keypad" in tree) == (
        scheme != "one pin each" and any(row.row is not None for row in keys)
    )
    assert handover_files(brief, plan)["keys.dts"] == write_overlay(brief, plan)


def test_what_a_host_cannot_read_gets_a_reason_in_place_of_an_overlay(
    host_panel: Brief, library: Library
) -> None:
    brief = host_panel.model_copy(update={"key_scheme": KeyScheme(name="charlieplexed")})
    plan = planned(brief, library)
    with pytest.raises(NotOnHost, match="no ready driver"):
        write_overlay(brief, plan)
    assert b"No overlay" in handover_files(brief, plan)["keys-overlay-not-written.txt"]
    with pytest.raises(NotOnHost, match="line number"):
        host_line("PAD")

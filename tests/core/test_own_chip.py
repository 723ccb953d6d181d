"""A user's own pin table: read from CSV and JSON, refused with the line, and planned like any
chip.
"""

import pytest

from loquet.core.brief import BriefError
from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.pins.model import Need, NeedKind
from loquet.core.pins.options import options_of
from loquet.core.pins.own_chip import chip_of_table, read_pin_table
from loquet.core.planning.pinning import report_pins
from loquet.demo.scenario import dusk_remote

MODULE = """pad,port,can
1,GP0,input output i2c0.sda uart0.tx
2,GP1,input output i2c0.scl uart0.rx
3,,ground
4,GP2,input output tim1.ch1
5,GP3,input output tim1.ch2
6,GP4,input output
7,GP5,input output
8,GP6,input output
9,GP7,input output
10,GP8,input output
11,GP26,input output adc0.in0
12,GP27,input
13,RUN,reset
14,,supply
15,SWDIO,debug.swdio
16,SWCLK,debug.swclk
"""


def test_a_module_is_planned_like_any_chip(library: Library) -> None:
    design = apply(
        Design(brief=dusk_remote()),
        EDITS.validate_python({"kind": "use-pin-table", "name": "small module", "text": MODULE}),
    )
    report = report_pins(design, library)
    assert report.plan is not None
    assert report.proof == "proven optimum"
    clock, buzzer, debug = (
        report.plan.of("screen:clock"),
        report.plan.of("buzzer"),
        report.plan.of("debug:data"),
    )
    assert clock is not None
    assert (clock.pin, clock.peripheral) == ("2", "i2c0")
    assert buzzer is not None
    assert buzzer.pin in ("4", "5")
    assert debug is not None
    assert debug.pin == "15"
    assert not {a.pin for a in report.plan.assignments} & {"3", "13", "14"}


def test_a_one_way_pad_carries_no_output() -> None:
    chip = chip_of_table(read_pin_table(MODULE.encode(), "small module"))
    assert chip.pin("12").one_way == "input"
    assert chip.pin("3").kind == "ground"
    assert chip.pin("13").is_reset


def test_csv_and_json_give_the_same_table() -> None:
    table = read_pin_table(MODULE.encode(), "small module")
    assert read_pin_table(table.model_dump_json().encode(), "ignored") == table


@pytest.mark.parametrize(
    ("text", "place", "said"),
    [
        (b"", "line 1", "columns none"),
        (b"pin;name\n1;a", "line 1", "pad, port, can"),
        (b"pad,port,can\n1,A\n2,B,input", "line 2", "2 columns"),
        (b"pad,port,can\n1,A,input\n1,B,input", "line 3", "again"),
        (b"pad,port,can\n1,A,fly\n2,B,input", "line 2", "not understood"),
        (b"pad,port,can\n1,A,adc.\n2,B,input", "line 2", "not understood"),
        (b"pad,port,can\n?!,A,input\n2,B,input", "line 2", "pad"),
        (b"pad,port,can\n1,A,input", "pin table", "at least 2"),
        (b"\xff\xfe\x00", "byte 0", "UTF-8"),
        (b"{", "start", "JSON"),
        (b'{"name": "x", "pads": [{"pad": "1"}]}', "pads", "at least 2"),
        (
            b'{"name": "x", "pads": [{"pad": "1", "can": ["fly"]}, {"pad": "2"}]}',
            "pads[0]",
            "not understood",
        ),
        (b"pad,port,can\n" + b"1,A,input\n" * 40_000, "pin table", "kB"),
        (b'pad,port,can\n1,"A,input\n2,B,input', "line", "CSV"),
    ],
)
def test_broken_tables_name_the_line_and_the_way_out(text: bytes, place: str, said: str) -> None:
    with pytest.raises(BriefError) as caught:
        read_pin_table(text, "broken")
    assert place in caught.value.place
    assert said.lower() in str(caught.value).lower()
    assert caught.value.way_out


def test_an_edit_with_a_broken_table_is_refused_in_words() -> None:
    with pytest.raises(EditRefused, match="line 2"):
        apply(
            Design(brief=dusk_remote()),
            EDITS.validate_python(
                {"kind": "use-pin-table", "name": "x", "text": "pad,port,can\n1,A,fly\n"}
            ),
        )


def test_what_a_pad_can_is_what_its_row_says() -> None:
    """Wake, boot, 5 V and one-way pads, one each; what is not said stays unknown."""
    rows = [
        "pad,port,can",
        "1,A1,input output wake",
        "2,A2,input output boot",
        "3,A3,input output 5v",
        "4,A4,input",
        "5,A5,output adc.in0",
        "6,,ground",
        "7,,reset",
        "8,,",
    ]
    chip = chip_of_table(read_pin_table("\n".join(rows).encode(), "module"))

    def able(kind: NeedKind) -> list[str]:
        return [o.pin for o in options_of(Need("", kind, "", ""), chip)]

    assert able("wake-up") == ["1"]
    assert able("input") == ["1", "2", "3", "4"]
    assert able("output") == ["1", "2", "3", "5"]
    assert able("analogue") == ["5"]
    assert {p.number for p in chip.pins if p.is_boot} == {"2"}
    assert {p.number: p.five_volt for p in chip.pins if p.five_volt is not None} == {"3": True}
    assert [p.kind for p in chip.pins[5:]] == ["ground", "reset", "unused"]
    assert {p.number for p in chip.pins if p.is_reset} == {"7"}
    assert [p.ports for p in chip.pins] == [("A1",), ("A2",), ("A3",), ("A4",), ("A5",), (), (), ()]
    assert [p.name for p in chip.pins][-2:] == ["7", "8"]

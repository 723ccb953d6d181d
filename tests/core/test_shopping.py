"""K13: a list of parts is read line by line; what a purchaser could misread is said with the line
and the way out.
"""

import pytest

from loquet.core.buying.shopping import SIZES, ListError, read_list, write_list
from loquet.core.design import Design, slice_of
from loquet.core.drawers.lines import part_lines
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from loquet.demo.scenario import demo_brief

HEAD = "Count,What,Value,Size,Part\n"


def read(library: Library, *lines: str) -> list[tuple[str, ...]]:
    return [row.findings for row in read_list((HEAD + "\n".join(lines)).encode(), library)]


def test_our_own_list_comes_back_as_it_was_without_a_finding(library: Library) -> None:
    brief = demo_brief("dusk-remote")
    design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    lines = part_lines(slice_of(design.circuit), library, 10)
    found = read_list(write_list(lines), library)
    assert [(r.count, r.what, r.value, r.size) for r in found] == [
        (line.to_buy, line.what, line.value, line.size) for line in lines
    ]
    assert [r.line for r in found] == list(range(2, len(lines) + 2))
    assert [r.findings for r in found if r.findings] == []


@pytest.mark.parametrize(
    ("size", "said"),
    [
        ("0603", "0603 is 1.6 x 0.8 mm as an inch code and 0.6 x 0.3 mm as a metric one"),
        ("0402", "0402 is 1.0 x 0.5 mm as an inch code and 0.4 x 0.2 mm as a metric one"),
        ("0201", "0201 is 0.6 x 0.3 mm as an inch code and 0.25 x 0.125 mm as a metric one"),
        ("1234", "1234 is no size of a chip part in either system."),
        ("metric 0805", "There is no metric size 0805."),
        ("inch 0603", ""),
        ("metric 1608", ""),
        ("0805", ""),
        ("2012", ""),
        ("SOT-23", ""),
    ],
)
def test_sizes_that_exist_in_both_systems(size: str, said: str, library: Library) -> None:
    (found,) = read(library, f"10,Something,,{size},")
    assert [said in sentence for sentence in found] == ([True] if said else [])


def test_the_codes_that_both_systems_have_are_three() -> None:
    """0201, 0402 and 0603 (IEC 60115-8 and common practice)."""
    assert {row[0] for row in SIZES} & {row[1] for row in SIZES} == {"0201", "0402", "0603"}


@pytest.mark.parametrize(
    ("what", "value", "said"),
    [
        ("Resistor", "4.7 kΩ", ""),
        ("Resistor", "4.7k", "does not say its unit"),
        ("Resistor", "10R", ""),
        ("Resistor", "1m", "milli or mega"),
        ("Capacitor", "100 nF", ""),
        ("Capacitor", "100n", "does not say its unit"),
        ("Capacitor", "104", "does not say its unit"),
        ("Capacitor", "small", "is no value of a capacitor"),
        ("Inductor", "", "is no value of an inductor"),
        ("Socket", "anything", ""),
    ],
)
def test_units_that_are_not_said(what: str, value: str, said: str, library: Library) -> None:
    (found,) = read(library, f"10,{what},{value},,")
    assert [said in sentence for sentence in found] == ([True] if said else [])


def test_counts_parts_and_lines_that_stand_twice(library: Library) -> None:
    found = read(
        library,
        "0,Socket,,,",
        "a few,Lamp,,,",
        "5,Diode,,,diode-sod123",
        "5,Diode,,,diode-sod999",
        "7,Diode,,,diode-sod123",
        "5,Resistor,1 kΩ,inch 0805,resistor-1608",
        "1,Chip,,,stm32l051c8t6",
        ",,,,",
    )
    assert [len(row) for row in found] == [1, 1, 0, 1, 1, 1, 0]
    assert "write a whole number" in found[0][0]
    assert "'a few' is no count" in found[1][0]
    assert "has no pattern" in found[3][0]
    assert found[4] == ("The same stands in line 4: put them together.",)
    assert found[5][0].startswith("resistor-1608 is inch 0603 / metric 1608")


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"\xff\xfe\x00", "not UTF-8"),
        (b"", "no column Count and no column What"),
        (b"What,Value\nLamp,1", "no column Count"),
        (b'Count,What\n1,"open', "no CSV"),
        (b"Count,What\n" + b"1,x\n" * 2001, "more than 2000 lines"),
        (b"Count,What\n" + b"x" * 1_000_001, "larger than 1 MB"),
    ],
)
def test_what_is_no_list_is_refused(data: bytes, said: str, library: Library) -> None:
    with pytest.raises(ListError) as caught:
        read_list(data, library)
    assert said in caught.value.problem
    assert caught.value.way_out


@pytest.mark.parametrize(
    ("part", "pins", "said"),
    [
        # pad 1 of a light is its cathode (drawing TL-20); SOT-23: 1 base, 2 emitter, 3 collector
        # (JEDEC TO-236)
        ("light-2012-amber", "1 cathode, 2 anode", ""),
        (
            "light-2012-amber",
            "1 anode, 2 cathode",
            "Pin 1 is 'anode' in the line and 'cathode' in the catalogue.",
        ),
        (
            "transistor-npn-sot23",
            "1 base, 2 collector, 3 emitter",
            "Pin 2 is 'collector' in the line and 'emitter' in the catalogue.",
        ),
        (
            "transistor-npn-sot23",
            "1 base, 2 emitter, 4 collector",
            "transistor-npn-sot23 has no pad '4': its pads are 1, 2, 3.",
        ),
        ("transistor-npn-sot23", "", ""),
        ("resistor-1608", "1, 2", ""),
    ],
)
def test_pins_that_do_not_match_their_pads(
    part: str, pins: str, said: str, library: Library
) -> None:
    text = f'Count,What,Value,Pins,Part\n3,Thing,,"{pins}",{part}\n'
    (row,) = read_list(text.encode(), library)
    assert [f for f in row.findings if "Pin" in f or "pad" in f][:1] == ([said] if said else [])

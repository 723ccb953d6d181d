"""Parts of one's own: packs as files, what is refused and where, and that recipes take them."""

import random
import tomllib
from datetime import date
from pathlib import Path
from typing import Any

import pytest
from pydantic import ValidationError

from loquet.catalogue.bundled import parts, registered_types, roles
from loquet.core.circuit import Circuit
from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.ordering.house import House
from loquet.core.ordering.market import NOBODY
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Part, pattern_of
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import prove_package, release
from loquet.core.reviewing import review
from loquet.core.shelf.differing import differences
from loquet.core.shelf.drawing import drawing_of
from loquet.core.shelf.faults import entry_faults, house_faults
from loquet.core.shelf.pack import Pack, PackRefused, part_faults, read_pack, write_pack
from loquet.core.shelf.pin_table import for_role, read_pin_table
from loquet.costing import parts_cost
from tests.making import FELL, device, thing

TARN = Path(__file__).parents[2] / "examples" / "packs" / "tarn-regulator.toml"
TEXT = TARN.read_text()
REGULATOR = read_pack(TARN.read_bytes()).part[0]
BOARD = device(
    thing("chip", "chip", part="stm32l433rct6"),
    thing("nine-volt", "block", converter="linear"),
    thing("button", "go", 20, 20),
)


def faults(text: str) -> list[tuple[int, str]]:
    with pytest.raises(PackRefused) as refused:
        read_pack(text.encode(), "tarn.toml")
    assert all(f.file == "tarn.toml" and f.way_out for f in refused.value.faults)
    return [(f.line, f.place) for f in refused.value.faults]


def line_of(start: str) -> int:
    return next(n for n, line in enumerate(TEXT.splitlines(), 1) if line.startswith(start))


def test_a_pack_written_and_read_gives_the_same_bytes() -> None:
    drawn = tuple(part for part in parts().values() if len(part.id) < 30)
    data = write_pack(Pack(name="all", title="all that ships", part=drawn))
    assert read_pack(data).part == drawn
    assert write_pack(read_pack(data)) == data
    assert tomllib.loads(data.decode())["part"][0]["body"]["family"] == "two-ends"


@pytest.mark.parametrize(
    ("old", "new", "at", "place"),
    [
        ('pads = ["3"], does', 'pads = ["9"], does', "in =", "terminals.in.pads"),
        ('number = "4"', 'number = "7"', "[part.terminals]", "terminals:"),
        ("height_mm = 1.6", 'height_mm = "tall"', "height_mm", "height_mm"),
        ("height_mm = 1.6", "height_mm = -2", "height_mm", "height_mm"),
        ('does = "supply" ', 'does = "feeds" ', "in =", "terminals.in.does"),
        ('kind = "linear', 'colour = "red"\nkind = "linear', "kind", "colour"),
        ("input_max_v = 12", "input_max_v = 3", "values", "values.input_min_v"),
        ("w_mm = 3.8", "w_mm = 0", '  { number = "1"', "body.pads.3.w_mm"),
        ('format = "loquet-pack-1"', 'format = "pack"', "format", "format"),
    ],
)
def test_what_is_wrong_is_told_with_its_line(old: str, new: str, at: str, place: str) -> None:
    assert old in TEXT
    found = faults(TEXT.replace(old, new))
    assert any(line == line_of(at) and place in where for line, where in found), found


def test_all_faults_are_told_at_once_and_two_of_one_name_refused() -> None:
    wrong = TEXT.replace("height_mm = 1.6", "height_mm = -2").replace('"U"', '"u9"')
    assert len(faults(wrong)) == 2
    body = TEXT[TEXT.index("[[part]]") :]
    ((line, place),) = faults(TEXT + "\n" + body)
    assert "own/tarn-r33" in place
    assert line == len(TEXT.splitlines()) + 2


@pytest.mark.parametrize(
    "data",
    [
        b"\xff\xfe",
        b"",
        b"format = 1",
        b"a = " + b"[" * 3000,
        b"[[part]]",
        b'format = "loquet-pack-1"\nname = "x"\npart = 3',
        b'format = "loquet-pack-1"\nname = "x"\npart = [1, 2]',
        b"x" * 2_000_001,
        TEXT.replace("pins", "").replace("12.", "").encode()[:700],
    ],
)
def test_what_is_no_pack_is_refused_in_words(data: bytes) -> None:
    with pytest.raises(PackRefused) as refused:
        read_pack(data, "it")
    assert "it" in str(refused.value)


@pytest.mark.parametrize(
    ("data", "line", "place", "problem", "way_out"),
    [
        (b"x = " + b"[" * 100_000, 0, "", "cannot be read", "docs/shelf.md"),
        (b"a = 1\nb = $", 2, "", "is not TOML", "Mend it"),
        (b"a = 1 \xff", 0, "byte 6", "is not UTF-8", "Save the file as UTF-8"),
        (b" " * 12_000_001, 0, "", "is 12.0 MB large", "at most 12 MB"),
        (b'format = "loquet-pack-2"', 1, "format", "does not say", "Its first line"),
    ],
    ids=["nested", "no TOML", "no text", "large", "another format"],
)
def test_a_file_that_cannot_be_read_says_where_and_the_way_out(
    data: bytes, line: int, place: str, problem: str, way_out: str
) -> None:
    with pytest.raises(PackRefused) as refused:
        read_pack(data, "odd.toml")
    (fault,) = refused.value.faults
    assert (fault.file, fault.line, fault.place) == ("odd.toml", line, place)
    assert problem in fault.problem
    assert way_out in fault.way_out


def test_bytes_changed_at_random_are_taken_or_refused() -> None:
    """No other error comes out, whatever stands in it."""
    chance = random.Random(5)
    signs = b'0919999.-="[]{}\n#ae,\\ '
    for _ in range(400):
        data = bytearray(TEXT.encode())
        for _ in range(chance.randint(1, 6)):
            at = chance.randrange(len(data))
            data[at : at + chance.randint(0, 4)] = bytes(chance.choices(signs, k=2))
        try:
            read_pack(bytes(data))
        except PackRefused as refused:
            assert 0 < len(refused.faults) <= 20


def test_every_bundled_part_serves_as_its_kind_and_a_lack_is_told_in_the_order_of_harm() -> None:
    known = roles()
    assert [(p.id, known.lacks(p)) for p in parts().values() if known.lacks(p)] == []
    values = {name: v for name, v in REGULATOR.values.items() if name not in HARM}
    terminals = {n: t for n, t in REGULATOR.terminals.items() if n != "out"}
    bare = REGULATOR.model_copy(update={"values": values, "terminals": terminals})
    assert [(lack.what, lack.serves) for lack in known.lacks(bare)] == [
        ("out", False),
        ("input_max_v", True),
        ("quiet_ma", True),
    ]
    assert not known.lacks(bare.model_copy(update={"kind": "teapot"}))[0].serves


HARM = ("quiet_ma", "input_max_v")


def edited(design: Design, **edit: Any) -> Design:
    return apply(design, EDITS.validate_python(edit))


def main_part(design: Design, library: Library) -> str:
    (made,) = bring_up_to_date(design, library, "circuit").circuit.values()
    circuit: Circuit = made.value
    return next(c.part for c in circuit.components if c.role == "block converter")


def test_a_regulator_of_ones_own_goes_through_the_same_recipe(library: Library) -> None:
    """Its three terminals lie on other pads than the bundled one's, two of them on ground; what it
    stands decides as for any other, and it comes before those that ship with Loquet.
    """
    plain = Design(brief=BOARD)
    assert main_part(plain, library) == "regulator-linear-high"
    taken = edited(plain, kind="take-part", part=REGULATOR.model_dump(mode="json"))
    assert main_part(taken, library) == "own/tarn-r33"
    weak = REGULATOR.model_copy(update={"values": {**REGULATOR.values, "input_max_v": 8.0}})
    told = edited(plain, kind="take-part", part=weak.model_dump(mode="json"))
    assert main_part(told, library) == "regulator-linear-high"
    dear = REGULATOR.model_copy(update={"price_cents": 900.0})
    costly = edited(plain, kind="take-part", part=dear.model_dump(mode="json"))
    assert main_part(costly, library) == "own/tarn-r33", "one's own comes first at any price"
    usual = {"role": "linear regulator", "part": "regulator-linear-high"}
    bundled = edited(costly, kind="prefer-part", **usual)
    assert main_part(bundled, library) == "regulator-linear-high"
    bare = {name: t for name, t in REGULATOR.terminals.items() if name != "ground"}
    adrift = {"pads": ("2", "4"), "does": "passive"}
    fields = {name: getattr(REGULATOR, name) for name in Part.model_fields}
    barred = Part(**{**fields, "terminals": {**bare, "tab": adrift}})
    lacking = edited(plain, kind="take-part", part=barred.model_dump(mode="json"))
    assert main_part(lacking, library) == "regulator-linear-high"
    chosen = edited(costly, kind="prefer-part", role="linear regulator", part="own/tarn-r33")
    assert main_part(chosen, library) == "own/tarn-r33"
    left = edited(chosen, kind="leave-part", part="own/tarn-r33")
    assert (left.choices.shelf, left.choices.preferred) == ({}, {})
    made = bring_up_to_date(taken, library)
    (circuit,) = (m.value for m in made.circuit.values())
    main = next(c for c in circuit.components if c.role == "block converter")
    assert main.pads["1"] == "SUPPLY"
    assert main.pads["2"] == main.pads["4"] == "GROUND"
    result = release(made, library)
    assert result.ready, [f.sentence for f in result.findings if f.severity == "stop"]
    assert prove_package(result.files, made, project_library(made, library)).holds


def test_a_changed_part_makes_stale_what_it_touches(library: Library) -> None:
    """Another land pattern moves parts and leaves the circuit; another limit asks for a circuit."""
    taken = edited(Design(brief=BOARD), kind="take-part", part=REGULATOR.model_dump(mode="json"))
    made = bring_up_to_date(taken, library)
    assert stale_slices(made) == ()
    taller = REGULATOR.model_copy(update={"height_mm": 2.2})
    changed = edited(made, kind="take-part", part=taller.model_dump(mode="json"))
    assert stale_slices(changed)[0] == "circuit"
    again = bring_up_to_date(changed, library, "circuit")
    assert stale_slices(again) == ("placement", "routing", "pour")
    assert [(d.field, d.before, d.after) for d in differences(REGULATOR, taller)] == [
        ("height_mm", "1.6", "2.2")
    ]


def test_a_part_that_cannot_be_is_not_taken() -> None:
    terminals = {n: t for n, t in REGULATOR.terminals.items() if n != "in"}
    fields = {name: getattr(REGULATOR, name) for name in Part.model_fields}
    for wrong in (
        Part(**{**fields, "terminals": terminals}),
        Part(**{**fields, "id": "regulator-linear-high"}),
    ):
        with pytest.raises(EditRefused):
            edited(Design(brief=BOARD), kind="take-part", part=wrong.model_dump(mode="json"))


@pytest.mark.parametrize(
    ("text", "rows"),
    [
        ("1\tVCC\tPower\n2\tGND\tGround", [("vcc", "1", "supply"), ("gnd", "2", "ground")]),
        (
            "VDD, 8\nSDA, 5, I/O\nSCL, 6, Input",
            [("vdd", "8", "supply"), ("sda", "5", "both ways"), ("scl", "6", "input")],
        ),
        (
            "1-3  GND  ground\nA1  OUT  Output",
            [("gnd", "1 2 3", "ground"), ("out", "A1", "output")],
        ),
        ("1; NC; not connected\n4; NC; no connection", [("nc", "1 4", "nothing")]),
    ],
)
def test_a_pin_table_is_read_as_it_was_copied(text: str, rows: list[tuple[str, str, str]]) -> None:
    read, unread = read_pin_table(text)
    assert [(row.name, " ".join(row.pads), row.does) for row in read] == rows
    assert unread == ()


def test_rows_without_a_pin_or_a_name_are_told() -> None:
    read, unread = read_pin_table("Pin\tName\n1\tIN\nfoo\tbar\n7\t8\n" + "9\tOUT\n" * 700)
    assert [row.name for row in read] == ["in", "out"]
    assert [(row.line, row.why) for row in unread] == [(3, "no pin number"), (4, "no name")]
    rows, _ = read_pin_table("1\tgnd1\n2\tgnd2\n3\tvin")
    named = for_role(rows, ("in", "ground", "out"))
    assert [row.name for row in named] == ["gnd1", "gnd2", "in"]


def test_a_figure_that_is_not_said_is_a_look_and_one_that_is_needed_keeps_the_part_out(
    library: Library,
) -> None:
    values = {n: v for n, v in REGULATOR.values.items() if n != "quiet_ma"}
    silent = REGULATOR.model_copy(update={"values": values})
    taken = edited(Design(brief=BOARD), kind="take-part", part=silent.model_dump(mode="json"))
    made = bring_up_to_date(taken, library, "circuit")
    (told,) = [f for f in review(made, library) if f.rule == "unsaid-figures"]
    assert told.severity == "look"
    assert "does not say its current that it takes itself (mA)" in told.sentence
    values = {n: v for n, v in REGULATOR.values.items() if n != "input_max_v"}
    dumb = REGULATOR.model_copy(update={"values": values})
    taken = edited(Design(brief=BOARD), kind="take-part", part=dumb.model_dump(mode="json"))
    assert main_part(taken, library) == "regulator-linear-high"


def test_registered_types_serve_as_their_kinds_and_say_that_nobody_has_compared_them() -> None:
    """81 types; a few pin orders and limits as their registrations have them, from memory."""
    pack = read_pack(registered_types())
    known, by_id = roles(), {part.id: part for part in pack.part}
    assert len(by_id) == 81
    assert [part.id for part in pack.part if known.lacks(part)] == []
    assert all("from memory" in part.evidence_text and not part.price_cents for part in pack.part)
    assert by_id["own/bc847b-sot23"].pad("collector") == "3"
    assert by_id["own/bss84-sot23"].values["voltage"] == 50
    register, mux = by_id["own/74hc165-so16"], by_id["own/74hc4051-tssop16"]
    assert [register.pad(f"line {i}") for i in range(8)] == [
        "6",
        "5",
        "4",
        "3",
        "14",
        "13",
        "12",
        "11",
    ]
    assert [mux.pad(f"channel {i}") for i in range(8)] == [
        "13",
        "14",
        "15",
        "12",
        "1",
        "5",
        "2",
        "4",
    ]
    assert by_id["own/74hct1g125-sot353"].pad("supply") == "5"


def test_what_nobody_priced_is_named_and_what_is_priced_counts(library: Library) -> None:
    for cents, priced in ((0.0, False), (9.0, True)):
        part = REGULATOR.model_copy(update={"price_cents": cents})
        taken = edited(Design(brief=BOARD), kind="take-part", part=part.model_dump(mode="json"))
        known = project_library(taken, library)
        made = bring_up_to_date(taken, library, "circuit")
        cost = parts_cost(made, known, NOBODY, 3)
        assert cost.unpriced == (() if priced else ("own/tarn-r33, 3.3 V",))
        assert (cost.cents.get("own prices", 0.0) >= 27.0) == priced


def test_a_drawing_has_everything_where_the_sheet_has_it() -> None:
    """In mm from the sheet: four pads, a body of 6.5 x 3.5, pin 1 marked; a peg of 1.2 at 3, -2."""
    body = REGULATOR.body.model_copy(update={"pegs_mm": ((3.0, -2.0, 1.2),)})
    drawn = drawing_of(REGULATOR, pattern_of(body))
    assert [(p.number, p.x_mm, p.y_mm, p.w_mm, p.h_mm, p.terminal, p.does) for p in drawn.pads] == [
        ("1", -2.3, -3.2, 1.2, 2.2, "out", "supply out"),
        ("2", 0.0, -3.2, 1.2, 2.2, "ground", "ground"),
        ("3", 2.3, -3.2, 1.2, 2.2, "in", "supply"),
        ("4", 0.0, 3.2, 3.8, 2.2, "ground", "ground"),
    ]
    assert drawn.holes_mm == ((3.0, -2.0, 1.2),)
    assert drawn.body_mm == (-3.25, -1.75, 3.25, 1.75)
    left, low, right, high = drawn.room_mm
    assert left <= -3.25
    assert low <= -4.3
    assert right >= 3.25
    assert high >= 4.3
    assert right - left < 8
    assert high - low < 10
    assert drawn.first_mm == (-2.3, -3.2)
    plain = drawing_of(REGULATOR, pattern_of(body.model_copy(update={"first_pin_mark": False})))
    assert plain.first_mm is None


def test_what_a_house_cannot_be_is_told() -> None:
    house = House.model_validate(FELL)
    assert house_faults(house) == ()

    def told(**change: object) -> list[str]:
        return [f.field for f in house_faults(house.model_copy(update=change))]

    assert told(known="simulated") == ["known"]
    assert told(setup_cents=0, area_cents_dm2=0) == ["area_cents_dm2"]
    assert told(setup_cents=0, area_cents_dm2=0, piece_cents=1) == []
    assert told(smallest_mm=(500.0, 10.0)) == ["smallest_mm"]
    assert told(smallest_mm=(10.0, 301.0)) == ["smallest_mm"]
    assert told(smallest_mm=(400.0, 300.0)) == []
    assert told(breaks=((5, 1.0), (20, 0.9))) == []
    assert told(breaks=((20, 1.0), (5, 0.9))) == ["breaks"]
    assert told(breaks=((5, 1.0), (5, 0.9))) == ["breaks"]
    assert told(breaks=((0, 1.0),)) == ["breaks"]
    assert told(finish_cents={"gold": 1.0}) == ["finish_cents"]
    assert told(colour_cents={"plum": 1.0}) == ["colour_cents"]
    supplier = Supplier.model_validate({"id": "supplier/beck", "name": "Beck"})
    assert entry_faults(supplier) == ()
    simulated = entry_faults(supplier.model_copy(update={"known": "simulated"}))
    assert [f.field for f in simulated] == ["known"]
    assert entry_faults(house.model_copy(update={"known": "simulated"}))[0].field == "known"
    assert entry_faults(REGULATOR) == ()


def test_a_pack_of_everything_is_told_apart_by_its_tables() -> None:
    text = """format = "loquet-pack-1"
name = "beck"

[[supplier]]
id = "supplier/beck"
name = "Beck"

[[price]]
supplier = "supplier/beck"
order_number = "A-1"
breaks = [[1, 3.5]]
seen_on = "2026-11-30"

[[price]]
supplier = "supplier/gone"
order_number = "A-2"
breaks = [[1, 3.5]]
seen_on = "2026-11-30"
"""
    with pytest.raises(PackRefused) as caught:
        read_pack(text.encode(), "beck.toml")
    (fault,) = caught.value.faults
    assert (fault.line, fault.place) == (14, "price 'A-2', supplier:")
    whole = read_pack(text.replace("supplier/gone", "supplier/beck").encode(), "beck.toml")
    assert [price.order_number for price in whole.price] == ["A-1", "A-2"]
    assert whole.price[0].seen_on == date(2026, 11, 30)
    assert list(whole.entries) == ["supplier/beck"]
    written = write_pack(whole)
    assert read_pack(written, "again") == whole
    assert write_pack(read_pack(written, "again")) == written
    late = text.replace('breaks = [[1, 3.5]]\nseen_on = "2026-11-30"\n\n[[price]]', "[[price]]")
    with pytest.raises(PackRefused) as caught:
        read_pack(late.encode(), "beck.toml")
    assert {(f.place, f.problem, f.way_out) for f in caught.value.faults} == {
        ("price '1', breaks:", "is missing", "Add it."),
        ("price '1', seen_on:", "is missing", "Add it."),
    }


def test_what_a_form_does_not_take_is_said_by_its_field() -> None:
    plain = REGULATOR.model_dump(mode="json")
    wrong = {**plain, "reference": "u", "body": {**plain["body"], "pads": [], "colour": "red"}}
    del wrong["kind"]
    with pytest.raises(ValidationError) as caught:
        Part.model_validate(wrong)
    told = {f.field: (f.problem, f.way_out) for f in part_faults(caught.value)}
    assert told["kind"] == ("is missing", "Add it.")
    assert told["body.colour"][1] == "Take it out, or spell it as docs/shelf.md does."
    assert set(told) == {"kind", "body.pads", "body.colour", "reference"}
    with pytest.raises(ValidationError) as caught:
        House.model_validate({"id": "house/x", "name": "", "setup_cents": 1, "area_cents_dm2": 1})
    said = {f.field: f.problem for f in part_faults(caught.value)}
    assert said["name"] == "is empty"
    with pytest.raises(ValidationError) as caught:
        Part.model_validate(3)
    assert [f.field for f in part_faults(caught.value)] == ["part"]


@pytest.mark.parametrize(
    ("row", "place", "line"),
    [
        (f'title = "{"a" * 121}"', "title:", 3),
        ("part = 3", "part:", 3),
        ('house = [{ id = "house/x" }]', "house 'house/x', name:", 3),
        ("price = [3]", "price '1':", 3),
    ],
)
def test_a_fault_of_the_head_is_told_at_its_field(row: str, place: str, line: int) -> None:
    text = f'format = "loquet-pack-1"\nname = "x"\n{row}\n'
    with pytest.raises(PackRefused) as caught:
        read_pack(text.encode(), "x.toml")
    first = caught.value.faults[0]
    assert (first.place, first.line) == (place, line)

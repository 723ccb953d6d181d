"""Files against a design of a few objects, each difference alone: which fault, of which file and
net, where, and in which words.
"""

from types import SimpleNamespace
from typing import Any

import pytest

from loquet.core.board.model import PourPiece
from loquet.core.fabrication.layers import Drawn, Layer
from loquet.core.geometry import Bar, Round, Seat
from loquet.core.pins import Assignment
from loquet.core.proof.agreement import (
    Fault,
    compare_holes,
    compare_layer,
    fault,
    name_of,
)
from loquet.core.proof.connecting import dark_pieces
from loquet.core.proof.drill_reader import ReadHole
from loquet.core.proof.gerber_reader import FileFault, ReadArc, ReadLayer, ReadObject, ReadRegion
from loquet.core.proof.listing import TURN, compare_lists, compare_netlist, compare_pins, in_header
from loquet.core.proof.table_reader import Contact

MM = 1_000_000
PAD, TRACK = Round(2 * MM, 3 * MM, 600_000), Bar(0, 0, 4 * MM, 0, 200_000)
SQUARE = ((0, 0), (10 * MM, 0), (10 * MM, 10 * MM), (0, 10 * MM))
PLAN = Layer(
    "copper-near.gbr",
    "Copper,L1,Top",
    (Drawn(PAD, "ComponentPad", "GO", "J1", "2"), Drawn(TRACK, "Conductor", "GO")),
    (PourPiece(far=False, outer=SQUARE),),
    "GROUND",
)


def layer(*objects: ReadObject, ring: Any = SQUARE, arcs: tuple[ReadArc, ...] = ()) -> ReadLayer:
    regions = [ReadRegion(ring, True, 9, "GROUND")] if ring else []
    return ReadLayer("copper-near.gbr", {}, list(objects), regions, list(arcs))


READ_PAD = ReadObject(PAD, True, 1, "GO", "J1", "2", "ComponentPad")
READ_TRACK = ReadObject(TRACK, True, 2, "GO")


def said(found: list[Fault]) -> list[tuple[str, str, float, float, str]]:
    return [(f.file, f.net, f.x_mm, f.y_mm, f.sentence) for f in found]


def near(net: str, x: float, y: float, words: str) -> tuple[str, str, float, float, str]:
    return ("copper-near.gbr", net, x, y, f"{words} at {x:.2f}, {y:.2f} mm (copper-near.gbr).")


def test_a_layer_as_it_was_planned_has_no_fault() -> None:
    """A stroke is the same copper from either end."""
    back = ReadObject(Bar(4 * MM, 0, 0, 0, 200_000), True, 2, "GO")
    for track in (READ_TRACK, back):
        assert compare_layer(PLAN, layer(READ_PAD, track)) == []


@pytest.mark.parametrize(
    ("read", "faults"),
    [
        (layer(READ_TRACK), [near("GO", 2, 3, "J1 pad 2 of GO is missing or changed")]),
        (layer(READ_PAD), [near("GO", 2, 0, "a track of GO is missing or changed")]),
        (
            layer(READ_PAD, READ_TRACK, ReadObject(Round(MM, MM, 9), True, 3, "X")),
            [near("X", 1, 1, "an object named X that is not in the design")],
        ),
        (
            layer(READ_PAD, READ_TRACK, ReadObject(Round(MM, 2 * MM, 9), True, 3)),
            [near("", 1, 2, "an object that is not in the design")],
        ),
        (
            layer(READ_PAD, READ_TRACK, READ_PAD),
            [near("GO", 2, 3, "an object named GO that is not in the design")],
        ),
        (
            layer(ReadObject(PAD, True, 1, "HUSH", "J1", "2"), READ_TRACK),
            [near("GO", 2, 3, "J1 pad 2 of GO is labelled HUSH J1 2")],
        ),
        (
            layer(READ_PAD, ReadObject(TRACK, True, 2)),
            [near("GO", 2, 0, "a track of GO is labelled no net")],
        ),
        (
            layer(READ_PAD, ReadObject(TRACK, False, 2, "GO")),
            [near("", 0, 0, "a pad or stroke that clears")],
        ),
        (
            layer(READ_PAD, READ_TRACK, arcs=(ReadArc(MM, 2 * MM, 0, 0, 0, 0, True, 3),)),
            [near("", 1, 2, "an arc that is not in the design")],
        ),
    ],
)
def test_each_difference_of_a_layer(read: ReadLayer, faults: list[Any]) -> None:
    assert said(compare_layer(PLAN, read)) == faults


def test_the_pour_by_what_only_one_of_both_has() -> None:
    """Two millimetres of ten are gone: 20 mm² about (9, 5).

    A sliver below 0.001 mm² is rounding.
    """
    smaller = ((0, 0), (8 * MM, 0), (8 * MM, 10 * MM), (0, 10 * MM))
    (found,) = compare_layer(PLAN, layer(READ_PAD, READ_TRACK, ring=smaller))
    assert (found.net, found.x_mm, found.y_mm) == ("GROUND", 9, 5)
    assert found.sentence.startswith(
        "the pour of GROUND differs over 20.000 square mm at 9.00, 5.00 mm"
    )
    sliver = ((0, 0), (10 * MM - 99, 0), (10 * MM - 99, 10 * MM), (0, 10 * MM))
    assert compare_layer(PLAN, layer(READ_PAD, READ_TRACK, ring=sliver)) == []
    beyond = ((0, 0), (10 * MM - 101, 0), (10 * MM - 101, 10 * MM), (0, 10 * MM))
    assert len(compare_layer(PLAN, layer(READ_PAD, READ_TRACK, ring=beyond))) == 1
    (gone,) = compare_layer(PLAN, layer(READ_PAD, READ_TRACK, ring=None))
    assert "differs over 100.000 square mm" in gone.sentence


def test_several_of_one_shape_are_counted() -> None:
    twice = Layer(
        "mask-near.gbr", "Soldermask,Top", (Drawn(PAD, ""), Drawn(PAD, ""), Drawn(PAD, ""))
    )
    (found,) = compare_layer(twice, ReadLayer("mask-near.gbr", {}, [ReadObject(PAD, True, 1)]))
    assert found.sentence.startswith("an opening is missing or changed (2 fewer) at 2.00, 3.00 mm")


def test_what_an_object_is_called() -> None:
    assert name_of(Drawn(PAD, "ViaPad", "GO")) == "a via of GO"
    assert name_of(Drawn(TRACK, "Conductor")) == "a track"
    assert name_of(Drawn(TRACK, "")) == "a stroke"
    assert name_of(Drawn(PAD, "", "GO", "U1", "7")) == "U1 pad 7 of GO"
    assert fault("f", "n", 1_234_567, -999, "It is") == Fault(
        "f", "n", 1.235, -0.001, "It is at 1.23, -0.00 mm (f)."
    )


def hole(x: int, y: int, owner: str, net: str = "", plated: bool = True) -> Any:
    return SimpleNamespace(x=x, y=y, d=300_000, plated=plated, owner=owner, net=net)


HOLES: Any = SimpleNamespace(
    holes=(hole(MM, MM, "a via", "GO"), hole(5 * MM, MM, "J1"), hole(9, 9, "post", plated=False))
)


def test_each_difference_of_the_holes() -> None:
    good = [ReadHole(MM, MM, 300_000, True), ReadHole(5 * MM, MM, 300_000, True)]
    assert compare_holes(HOLES, good, "h.drl", True) == []
    assert compare_holes(HOLES, [ReadHole(9, 9, 300_000, False)], "h.drl", False) == []
    (lost,) = compare_holes(HOLES, good[1:], "h.drl", True)
    assert (lost.net, lost.x_mm, lost.y_mm) == ("GO", 1, 1)
    assert lost.sentence.startswith("the hole of a via (GO) is missing or changed at 1.00, 1.00 mm")
    (other,) = compare_holes(HOLES, good[:1], "h.drl", True)
    assert other.sentence.startswith("the hole of J1 is missing or changed")
    extra = ReadHole(2 * MM, 2 * MM, 300_000, True)
    (more,) = compare_holes(HOLES, [*good, extra], "h.drl", True)
    assert (more.net, more.x_mm) == ("GO", 2)
    assert "a hole that is not in the design, nearest to a via" in more.sentence
    far = ReadHole(6 * MM, 2 * MM, 300_000, True)
    assert "nearest to J1" in compare_holes(HOLES, [*good, far], "h.drl", True)[0].sentence
    assert len(compare_holes(HOLES, [*good, good[0]], "h.drl", True)) == 1, "drilled twice"
    wide = ReadHole(MM, MM, 310_000, True)
    assert len(compare_holes(HOLES, [wide, good[1]], "h.drl", True)) == 2
    said_otherwise = [ReadHole(h.x, h.y, h.d, False) for h in good]
    (turned,) = compare_holes(HOLES, said_otherwise, "h.drl", True)
    assert "says that its holes are unplated" in turned.sentence


def copper(
    ref: str, pad: str, x: int, y: int, net: str, sides: tuple[str, ...], drill: int = 0
) -> Any:
    kind = "pad" if ref else "via"
    return SimpleNamespace(
        ref=ref, pad=pad, shape=Round(x, y, 9), net=net, sides=sides, drill_nm=drill, kind=kind
    )


NETS: Any = SimpleNamespace(
    pads=(
        copper("J1", "2", MM, 2 * MM, "GO", ("near",)),
        copper("J1", "3", 3 * MM, 2 * MM, "", ("far",)),
    ),
    wiring=(
        copper("", "", 5 * MM, MM, "GO", ("near", "far"), 300_000),
        SimpleNamespace(kind="track", shape=TRACK),
    ),
    holes=(hole(9 * MM, 9 * MM, "post", plated=False), hole(5 * MM, MM, "a via", "GO")),
)
CONTACTS = [
    Contact("GO", "J1", "2", 1000, 2000, 0, "A01"),
    Contact("", "J1", "3", 3000, 2000, 0, "A02"),
    Contact("GO", "VIA", "", 5000, 1000, 300, "A00"),
    Contact("", "", "", 9000, 9000, 300, "A00"),
]


def test_each_difference_of_the_bare_board_netlist() -> None:
    assert compare_netlist(NETS, CONTACTS) == []
    for index, words in enumerate(("J1 2 of GO", "J1 3 of no net", "VIA  of GO", "  of no net")):
        (lost,) = compare_netlist(NETS, CONTACTS[:index] + CONTACTS[index + 1 :])
        row = CONTACTS[index]
        assert lost.sentence.startswith(f"{words} is missing or changed")
        assert (lost.net, lost.x_mm, lost.y_mm) == (row.net, row.x_um / 1000, row.y_um / 1000)
    other = Contact(
        "HUSH",
        *(getattr(CONTACTS[0], f) for f in ("ref", "pad", "x_um", "y_um", "hole_um", "access")),
    )
    assert len(compare_netlist(NETS, [other, *CONTACTS[1:]])) == 1
    (more,) = compare_netlist(NETS, [*CONTACTS, Contact("X", "R9", "1", 7000, 8000, 0, "A01")])
    assert (more.net, more.x_mm, more.y_mm) == ("X", 7, 8)
    assert more.sentence.startswith("R9 1 is not in the design")


def component(ref: str, value: str, bare: bool = False, sits_in: tuple[str, ...] = ()) -> Any:
    return SimpleNamespace(ref=ref, value=value, bare=bare, sits_in=sits_in)


LISTS: Any = SimpleNamespace(
    circuit=SimpleNamespace(
        components=(
            component("R1", "10k"),
            component("R2", "10k"),
            component("U1", "chip", sits_in=("socket",)),
            component("TP1", "", bare=True),
        )
    ),
    seats={
        "R1": Seat(MM, 2 * MM, 90),
        "R2": Seat(3 * MM, 2_500_000, 0, True),
        "U1": Seat(-500, 0, 359),
    },
)


def rows(**changes: str) -> list[dict[str, str]]:
    plain = [
        {"Item": "1", "Count per board": "2", "Where": "R1 R2", "Value": "10k"},
        {"Item": "2", "Count per board": "1", "Where": "U1", "Value": "chip"},
        {"Item": "3", "Count per board": "1", "Where": "U1", "Value": ""},
    ]
    return [{**plain[0], **changes}, *plain[1:]]


PLACES = [
    dict(
        zip(
            ("Where", "Board side", "Middle X (mm)", "Middle Y (mm)", TURN),
            row,
            strict=True,
        )
    )
    for row in (
        ("R1", "near", "1.000", "2.000", "90"),
        ("R2", "far", "3.000", "2.500", "0"),
        ("U1", "near", "-0.001", "0.000", "359"),
    )
]


def words(found: list[Fault]) -> list[str]:
    return sorted(f"{f.file}: {f.sentence.split(' at 0.00')[0]}" for f in found)


def test_each_difference_of_the_lists() -> None:
    """A chip in a socket stands twice: itself and what it sits in."""
    assert compare_lists(LISTS, rows(), PLACES) == []
    assert words(compare_lists(LISTS, rows(Where="R1", **{"Count per board": "1"}), PLACES)) == [
        "parts.csv: R2 stands 0 times"
    ]
    assert words(compare_lists(LISTS, rows()[:2], PLACES)) == ["parts.csv: U1 stands 1 times"]
    assert words(
        compare_lists(LISTS, rows(Where="R1 R2 TP1", **{"Count per board": "3"}), PLACES)
    ) == ["parts.csv: TP1 is not in the design"]
    assert words(compare_lists(LISTS, rows(**{"Count per board": "3"}), PLACES)) == [
        "parts.csv: item 1 counts 3 for 2 parts"
    ]
    assert words(compare_lists(LISTS, rows(Value="22k"), PLACES)) == [
        f"parts.csv: R{n} has the value 22k, designed is 10k" for n in (1, 2)
    ]
    for row, (name, value) in ((0, (TURN, "270")), (1, ("Board side", "near"))):
        changed = [{**p, name: value} if i == row else p for i, p in enumerate(PLACES)]
        (moved,) = compare_lists(LISTS, rows(), changed)
        seat = LISTS.seats[PLACES[row]["Where"]]
        assert (moved.x_mm, moved.y_mm) == (seat.x / MM, seat.y / MM)
        assert moved.sentence.startswith(
            f"R{row + 1} stands at {' '.join(list(changed[row].values())[1:])}, designed is "
        )
    assert words(compare_lists(LISTS, rows(), PLACES[1:])) == ["places.csv: R1 is missing"]
    assert words(compare_lists(LISTS, rows(), [*PLACES, PLACES[0]])) == [
        "places.csv: R1 is not in the design, or stands twice"
    ]


@pytest.mark.parametrize(
    ("port", "shown"),
    [
        ("PA08", "A 8"),
        ("PB12", "B 12"),
        ("P0.03", "0 3"),
        ("P1.10", "1 10"),
        ("GPIO5", "0 5"),
        ("A0", "A0"),
    ],
)
def test_ports_as_a_header_has_them(port: str, shown: str) -> None:
    assert in_header(port) == shown


def test_each_difference_of_the_pin_map() -> None:
    plan: Any = SimpleNamespace(
        assignments=tuple(
            Assignment(signal=s, kind="input", title=s.title(), net=s.upper(), pin="1", port=p)
            for s, p in (("go", "PA3"), ("hush now", "pad 7"))
        )
    )
    good = "#define GO_PORT 'A'\n#define GO_BIT 3\n#define HUSH_NOW_PAD \"pad 7\"\n"
    assert compare_pins(plan, good, "firmware/pins.h") == []
    (moved,) = compare_pins(plan, good.replace("BIT 3", "BIT 4"), "firmware/pins.h")
    assert (moved.file, moved.net) == ("pins.h", "GO")
    assert moved.sentence.startswith("Go (GO) is mapped to A 4, planned is PA3")
    (gone,) = compare_pins(plan, good.replace("GO_PORT", "NO_PORT"), "firmware/pins.h")
    assert "is mapped to ? 3" in gone.sentence
    (pad,) = compare_pins(plan, good.replace("pad 7", "pad 8"), "firmware/pins.h")
    assert "Hush Now (HUSH NOW) is mapped to pad 8, planned is pad 7" in pad.sentence


def test_copper_that_no_file_of_ours_has_is_refused() -> None:
    """An arc of copper would be passed over by whoever reads strokes alone; a contour that crosses
    itself has no inside.
    """
    arc = ReadLayer("near", {}, [], [], [ReadArc(0, 0, 1, 1, 0, 1, True, 1)])
    bow = ReadLayer("near", {}, [], [ReadRegion(((MM, 0), (0, MM), (MM, MM), (0, 0)), True, 1)])
    for layer, problem in (
        (arc, "draws copper as an arc, which no file of Loquet does"),
        (bow, "has a region that crosses itself near 1.00, 0.00 mm"),
    ):
        with pytest.raises(FileFault) as caught:
            dark_pieces(layer, "near")
        assert (caught.value.file, caught.value.line, caught.value.problem) == ("near", 1, problem)

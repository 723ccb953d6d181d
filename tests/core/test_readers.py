"""The readers on files of others, and on hostile ones."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.proof.connecting import rebuild
from loquet.core.proof.drill_reader import ReadHole, read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, read_gerber
from loquet.core.proof.table_reader import Contact, read_bare_board_netlist, read_csv

HEAD = "%FSLAX24Y24*%\n%MOIN*%\n%ADD10C,0.01*%\n%ADD11R,0.06X0.04*%\n%ADD12O,0.08X0.03*%\n"


def read(body: str, head: str = HEAD) -> ReadLayer:
    return read_gerber((head + body).encode(), "sheet.gbr")


def test_inches_and_all_standard_apertures() -> None:
    layer = read(
        "D10*\nX10000Y0D02*\nX20000Y0D01*\nD11*\nX0Y5000D03*\n"
        "D12*\nX0Y0D03*\nD10*\nX0Y0D03*\nM02*\n"
    )
    assert [o.shape for o in layer.objects] == [
        Bar(25_400_000, 0, 50_800_000, 0, 254_000),
        Box(0, 12_700_000, 1_524_000, 1_016_000),
        Bar(-635_000, 0, 635_000, 0, 762_000),
        Round(0, 0, 254_000),
    ]


def test_coordinates_are_modal_and_comments_are_passed_over() -> None:
    layer = read("G04 a comment with 5*\nD10*\nX10000Y10000D02*\nX20000D01*\nY20000D01*\nM02*\n")
    assert [(o.shape.x2, o.shape.y2) for o in layer.objects if isinstance(o.shape, Bar)] == [
        (50_800_000, 25_400_000),
        (50_800_000, 50_800_000),
    ]


def test_only_plated_holes_join_sides() -> None:
    pad = read("D10*\nX0Y0D03*\nM02*\n")
    assert (
        len(
            set(rebuild({"near": pad, "far": pad}, [ReadHole(0, 0, 100_000, True)]).groups.tolist())
        )
        == 1
    )
    assert (
        len(
            set(
                rebuild({"near": pad, "far": pad}, [ReadHole(0, 0, 100_000, False)]).groups.tolist()
            )
        )
        == 2
    )
    assert len(set(rebuild({"near": pad, "far": pad}, []).groups.tolist())) == 2


@pytest.mark.parametrize(
    "body",
    [
        "D99*\nM02*\n",
        "X0Y0D03*\nM02*\n",
        "D10*\nX0Y0D03*\n",
        "%AMDONUT*1,1,1,0,0*%\nM02*\n",
        "%SRX2Y2I1J1*%\nM02*\n",
        "G36*\nX0Y0D02*\nX1Y0D01*\nX1Y1D01*\nG37*\nM02*\n",
        "D11*\nX0Y0D02*\nX1Y1D01*\nM02*\n",
        "D10*\nX99999999999999999Y0D03*\nM02*\n",
        "M02*\nD10*\n",
        "%ADD13C,-1*%\nM02*\n",
        "%ADD13P,1X3*%\nM02*\n",
        "%LPX*%\nM02*\n",
        "G91*\nM02*\n",
        "%FSLAX24Y24*",
    ],
)
def test_what_is_outside_the_format_is_named_with_its_line(body: str) -> None:
    with pytest.raises(FileFault) as caught:
        read(body)
    assert caught.value.line >= 1
    assert caught.value.file == "sheet.gbr"


@given(st.binary(max_size=300))
def test_no_bytes_crash_the_readers(data: bytes) -> None:
    for reader in (read_gerber, read_drill, read_bare_board_netlist, read_csv):
        try:
            reader(data, "noise")
        except FileFault as fault:
            assert fault.problem


@given(st.text(alphabet="%*XYDGM0123456789-.,ADFSLOCR\n", max_size=200))
def test_no_text_like_the_format_crashes_the_reader(text: str) -> None:
    try:
        read(text)
    except FileFault as fault:
        assert str(fault).startswith("sheet.gbr, line ")


def test_drill_files_in_inches_and_their_faults() -> None:
    good = b"M48\n; #@! TF.FileFunction,Plated,1,2,PTH\nINCH\nT1C0.0400\n%\nT1\nX1.0Y0.5\nM30\n"
    assert read_drill(good, "holes.drl") == [ReadHole(25_400_000, 12_700_000, 1_016_000, True)]
    for broken, line in (
        (good.replace(b"M30", b""), 8),
        (good.replace(b"T1\nX", b"T2\nX"), 6),
        (good.replace(b"T1\nX", b"X"), 6),
        (good.replace(b"INCH\n", b""), 3),
        (good.replace(b"X1.0", b"X99.0"), 7),
        (good + b"what\n", 9),
        (b"\xff", 1),
    ):
        with pytest.raises(FileFault) as caught:
            read_drill(broken, "holes.drl")
        assert (caught.value.file, caught.value.line) == ("holes.drl", line)


MM = "%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.2*%\n"


def shapes(body: str) -> list[Shape]:
    return [o.shape for o in read(body + "M02*\n", MM).objects]


def test_obrounds_lie_and_stand() -> None:
    """A slot of 0.3 x 0.8 mm: a stroke 0.3 wide over 0.5 mm, upright or across; a round one has no
    length.
    """
    assert shapes("%ADD13O,0.3X0.8*%\nD13*\nX1000000Y2000000D03*\n") == [
        Bar(1_000_000, 1_750_000, 1_000_000, 2_250_000, 300_000)
    ]
    assert shapes("%ADD13O,0.8X0.3*%\nD13*\nX1000000Y2000000D03*\n") == [
        Bar(750_000, 2_000_000, 1_250_000, 2_000_000, 300_000)
    ]
    assert shapes("%ADD13O,0.3X0.3*%\nD13*\nX0Y0D03*\n") == [Bar(0, 0, 0, 0, 300_000)]


@pytest.mark.parametrize(
    ("turn", "box"),
    [
        (30, (1_000_000, 500_000, 30)),
        (89, (1_000_000, 500_000, 89)),
        (90, (500_000, 1_000_000, 0)),
        (120, (500_000, 1_000_000, 30)),
        (180, (1_000_000, 500_000, 0)),
        (210, (1_000_000, 500_000, 30)),
    ],
)
def test_turned_rectangles(turn: int, box: tuple[int, int, int]) -> None:
    """A centre line of 1.0 x 0.5 mm about the origin: by 90 degrees its sides change places, by 180
    nothing does.
    """
    head = f"%AMslant*21,1,1.0,0.5,0,0,{turn}*%\n%ADD14slant*%\nD14*\n"
    assert shapes(head + "X3000000Y4000000D03*\n") == [Box(3_000_000, 4_000_000, *box)]


def test_attributes_hold_until_they_are_deleted() -> None:
    body = (
        "%TF.FileFunction,Copper,L1,Top*%\n%TA.AperFunction,ViaPad*%\n%ADD15C,0.6*%\n"
        "%TD.AperFunction*%\n"
        "%ADD16C,0.7*%\nD15*\n%TO.N,HUSH*%\n%TO.P,U1,7,PA7*%\nX0Y0D03*\n%TD.P*%\nX1Y0D03*\n"
        "D16*\n%TO.N,N/C*%\nX2Y0D03*\n%TO.N,GO*%\n%TD*%\nX3Y0D03*\nM02*\n"
    )
    layer = read(body, MM)
    assert layer.attributes == {".FileFunction": "Copper,L1,Top"}
    assert [(o.net, o.ref, o.pad, o.function) for o in layer.objects] == [
        ("HUSH", "U1", "7", "ViaPad"),
        ("HUSH", "", "", "ViaPad"),
        ("", "", "", ""),
        ("", "", "", ""),
    ]
    assert [o.order for o in layer.objects] == [1, 2, 3, 4]


def contour(corners: int) -> str:
    """A closed region of so many corners, the first one again at the end."""
    steps = "".join(f"X{i}Y{i % 7}D01*\n" for i in range(1, corners))
    return f"G36*\nX0Y0D02*\n{steps}X0Y0D01*\nG37*\n"


@pytest.mark.parametrize(
    ("good", "bad", "line", "problem"),
    [
        (
            "D10*\nX1000000000Y0D03*\n",
            "D10*\nX1000000001Y0D03*\n",
            *(5, "has a place more than a metre away"),
        ),
        (
            "%ADD11C,1000.0*%\n",
            "%ADD11C,1000.001*%\n",
            *(4, "has an aperture larger than a board, or more apertures than any board"),
        ),
        (
            "".join(f"%ADD{n}C,0.1*%\n" for n in range(11, 2010)),
            "".join(f"%ADD{n}C,0.1*%\n" for n in range(11, 2011)),
            *(2003, "has an aperture larger than a board, or more apertures than any board"),
        ),
        (
            contour(19_999),
            contour(20_000),
            *(20_005, "has a contour of more than 20000 corners"),
        ),
        (
            "G04 " + "x" * 3_995 + "*\n",
            "G04 " + "x" * 3_996 + "*\n",
            *(3, "has a command of more than 4000 characters"),
        ),
        (
            "G36*\nX0Y0D02*\nX1Y0D01*\nX1Y1D01*\nX0Y0D01*\nG37*\n",
            "G36*\nX0Y0D02*\nX1Y0D01*\nX0Y0D01*\nG37*\n",
            8,
            "has a contour that is not closed",
        ),
        ("G04 x*\n", "G04 x*\nG99*\n", 5, "has the unsupported code G99"),
        ("D10*\n", "D1*\n", 4, "draws before an aperture is chosen"),
        ("D10*\nX0Y0D03*\n", "D10*\nX0Y0D04*\n", 5, "has a word that is not understood: X0Y0D04"),
        ("%LPD*%\n", "%LPX*%\n", 4, "has an unknown polarity"),
        ("%LPD*%\n", "%MOFT*%\n", 4, "has the unknown unit FT"),
        ("%LPD*%\n", "%ABD12*%\n", 4, "has the unsupported command ABD12"),
        ("%LPD*%\n", "%ADD12C,1X2*%\n", 4, "has an aperture with wrong sizes"),
        ("%LPD*%\n", "%ADD12R,1*%\n", 4, "has an aperture with wrong sizes"),
        (
            "%LPD*%\n",
            "%ADD12P,1X3*%\n",
            *(4, "has an aperture that is not a circle, rectangle or obround: ADD12P,1X3"),
        ),
        (
            "%LPD*%\n",
            "%FSLIX46Y46*%\n",
            *(4, "has a coordinate format that is not in use any more"),
        ),
    ],
)
def test_limits_of_the_format(good: str, bad: str, line: int, problem: str) -> None:
    """What is just within is read; what is just beyond is named with its line (the head has
    three).
    """
    read(good + "M02*\n", MM)
    with pytest.raises(FileFault) as caught:
        read(bad + "M02*\n", MM)
    assert (caught.value.line, caught.value.problem) == (line, problem)


def test_places_before_unit_and_format_are_refused() -> None:
    for head, problem in (
        ("%FSLAX46Y46*%\n%ADD10C,0.2*%\n", "has no unit yet"),
        ("%MOMM*%\n%ADD10C,0.2*%\nD10*\nX0Y0D03*\n", "has no coordinate format yet"),
    ):
        with pytest.raises(FileFault) as caught:
            read("M02*\n", head)
        assert caught.value.problem == problem


def test_files_of_the_greatest_size_and_a_byte_more() -> None:
    """12 MB of layer, 4 MB of holes, netlist and lists."""
    tail = b"M02*\n"
    filler = b"G04 " + b"x" * 3_000 + b"*\n"
    layer = MM.encode() + filler * 3_992
    layer += b"G04 " + b"x" * (12_000_000 - len(layer) - len(tail) - 6) + b"*\n" + tail
    assert len(layer) == 12_000_000
    assert read_gerber(layer, "sheet.gbr").objects == []
    with pytest.raises(FileFault, match="is larger than 12 MB"):
        read_gerber(layer + b"\n", "sheet.gbr")
    holes = b"M48\nMETRIC\n%\nM30\n"
    assert read_drill(holes + b"\n" * (4_000_000 - len(holes)), "h") == []
    with pytest.raises(FileFault, match="is larger than 4 MB"):
        read_drill(holes + b"\n" * (4_000_001 - len(holes)), "h")
    records = b"C" + b"x" * 3_999_994 + b"\n999\n"
    assert read_bare_board_netlist(records, "n") == []
    with pytest.raises(FileFault, match="is larger than 4 MB"):
        read_bare_board_netlist(b"C" + records, "n")
    cells = b"Where\n" + (b"x" * 99_999 + b"\n") * 39
    cells += b"x" * (4_000_000 - len(cells) - 1) + b"\n"
    assert len(read_csv(cells, "c")) == 40
    with pytest.raises(FileFault, match="is larger than 4 MB"):
        read_csv(cells + b"\n", "c")


DRILL = "M48\n; #@! TF.FileFunction,NonPlated,1,2,NPTH\nMETRIC\nT1C2.200\nT12C0.300\n%\n"


def test_holes_of_several_tools() -> None:
    text = DRILL + "G05\nG90\nT12\nX1.5Y-2.\nX.25Y+3.125\nT1\nX1000.0Y0.0\nM30\n"
    assert read_drill(text.replace("-2.\n", "-2.0\n").encode(), "h.drl") == [
        ReadHole(1_500_000, -2_000_000, 300_000, False),
        ReadHole(250_000, 3_125_000, 300_000, False),
        ReadHole(1_000_000_000, 0, 2_200_000, False),
    ]


@pytest.mark.parametrize(
    ("text", "line", "problem"),
    [
        (DRILL + "T1\nX1000.001Y0.0\nM30\n", 8, "has a hole more than a metre away"),
        (DRILL + "T1\nX0.0Y-1000.001\nM30\n", 8, "has a hole more than a metre away"),
        (DRILL + "T2\nM30\n", 7, "uses the tool T2, which is not defined"),
        (DRILL + "T1\nX1.0Y1.0R5\nM30\n", 8, "has a line that is not understood: X1.0Y1.0R5"),
        (DRILL.replace("%\n", "T1\n%\n") + "M30\n", 6, "has a line that is not understood: T1"),
        (
            "M48\nMETRIC\nT1C0.3\n%\nT1\nX1.0Y1.0\nM30\n",
            6,
            "drills before plating and tool are known",
        ),
        (DRILL + "X1.0Y1.0\nM30\n", 7, "drills before plating and tool are known"),
        ("M48\nT1C0.3\nMETRIC\n", 2, "defines a tool before the unit"),
        (DRILL + "M30\nT1\n", 8, "goes on after its end"),
        (DRILL, 6, "ends without M30"),
    ],
)
def test_faults_of_a_drill_file(text: str, line: int, problem: str) -> None:
    with pytest.raises(FileFault) as caught:
        read_drill(text.encode(), "h.drl")
    assert (caught.value.file, caught.value.line) == ("h.drl", line)
    assert caught.value.problem.startswith(problem)


def test_fifty_thousand_holes_are_the_most() -> None:
    row = "X1.0Y1.0\n"
    assert len(read_drill((DRILL + "T1\n" + row * 50_000 + "M30\n").encode(), "h")) == 50_000
    with pytest.raises(FileFault, match="more holes than any board"):
        read_drill((DRILL + "T1\n" + row * 50_001 + "M30\n").encode(), "h")


def record(kind: str, net: str, ref: str, pin: str, hole: str, access: str, place: str) -> str:
    """A test record by the columns of IPC-D-356A: net 4 to 17, owner 21 to 26, pin 28 to 31, hole
    33 to 38, access 39 to 41, X 42, Y 50.
    """
    return f"{kind}{net:14}   {ref:6}-{pin:4} {hole:6}{access}{place}"


def test_records_of_the_bare_board_netlist_by_their_columns() -> None:
    rows = [
        "C  a comment",
        "P  UNITS CUST 1",
        "P  NNAME1  A_NET_WITH_A_LONG_NAME",
        record("317", "HUSH", "J1", "3", "D1000P", "A00", "X+012345Y-000678"),
        record("327", "NNAME1", "U1", "48", "", "A01", "X-000001Y+000002"),
        record("367", "N/C", "", "", "D2200U", "A00", "X+000000Y+000000"),
        "999",
    ]
    assert read_bare_board_netlist("\n".join(rows).encode(), "n") == [
        Contact("HUSH", "J1", "3", 12_345, -678, 1000, "A00"),
        Contact("A_NET_WITH_A_LONG_NAME", "U1", "48", -1, 2, 0, "A01"),
        Contact("", "", "", 0, 0, 2200, "A00"),
    ]
    for text, line, problem in (
        ("C\n999\nC\n", 3, "goes on after its end"),
        ("C\nX\n999\n", 2, "has a line that is not understood"),
        ("C\n317\n999\n", 2, "has a record that is not understood"),
        ("C\nP\n", 2, "ends without its last record"),
        ("\xff", 1, "is not text"),
    ):
        with pytest.raises(FileFault) as caught:
            read_bare_board_netlist(text.encode("latin-1"), "n")
        assert (caught.value.line, caught.value.problem) == (line, problem)


def test_rows_of_a_list_have_as_many_cells_as_the_heading() -> None:
    assert read_csv(b'Where,What\nR1,"a, b"\n', "c") == [{"Where": "R1", "What": "a, b"}]
    for text, line in (("Where,What\nR1,x\nR2\n", 3), ("Where,What\nR1,x,y\n", 2)):
        with pytest.raises(FileFault, match="more or fewer cells") as caught:
            read_csv(text.encode(), "c")
        assert caught.value.line == line
    with pytest.raises(FileFault, match="is not UTF-8 text"):
        read_csv(b"\xff", "c")


def touching(*bodies: str, plated: bool = True, d: int = 300_000, at: int = 0) -> int:
    """How many groups the copper of one sheet falls into, with a hole at (at, 0)."""
    sheet = read("".join(bodies) + "M02*\n", MM)
    hole = [ReadHole(at, 0, d, plated)] if at else []
    return len(set(rebuild({"near": sheet, "far": read("M02*\n", MM)}, hole).groups.tolist()))


def test_copper_is_joined_where_it_touches_and_not_a_nanometre_before() -> None:
    """Discs of 0.2 mm whose middles are 0.2 mm apart; a stroke of 0.2 mm and a disc; a hole of 0.3
    mm between two discs.
    """
    disc = "D10*\nX{}Y0D03*\n"
    assert touching(disc.format(0), disc.format(200_000)) == 1
    assert touching(disc.format(0), disc.format(200_001)) == 2
    stroke = "D10*\nX-500000Y200000D02*\nX500000Y200000D01*\n"
    assert touching(stroke, disc.format(0)) == 1
    assert touching(stroke.replace("Y200000", "Y200001"), disc.format(0)) == 2
    ends = disc.format(0), disc.format(500_000)
    assert touching(*ends, at=250_000) == 1
    assert touching(*ends, at=250_000, d=299_998) == 2
    assert touching(*ends, at=250_000, plated=False) == 2

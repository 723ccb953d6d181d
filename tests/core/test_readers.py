"""The readers on files of others, and on hostile ones."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from loquet.core.geometry import Bar, Box, Round
from loquet.core.proof.connecting import rebuild
from loquet.core.proof.drill_reader import ReadHole, read_drill
from loquet.core.proof.gerber_reader import FileFault, ReadLayer, read_gerber
from loquet.core.proof.table_reader import read_bare_board_netlist, read_csv

HEAD = "%FSLAX24Y24*%\n%MOIN*%\n%ADD10C,0.01*%\n%ADD11R,0.06X0.04*%\n%ADD12O,0.08X0.03*%\n"


def read(body: str, head: str = HEAD) -> ReadLayer:
    return read_gerber((head + body).encode(), "sheet.gbr")


def test_inches_and_all_standard_apertures() -> None:
    layer = read(
        "D10*\nX10000Y0D02*\nX20000Y0D01*\nD11*\nX0Y5000D03*\nD12*\nX0Y0D03*\nD10*\nX0Y0D03*\nM02*\n"
    )
    assert [o.shape for o in layer.objects] == [
        Bar(25_400_000, 0, 50_800_000, 0, 254_000),
        Box(0, 12_700_000, 1_524_000, 1_016_000),
        Bar(-635_000, 0, 635_000, 0, 762_000),
        Round(0, 0, 254_000),
    ]


def test_coordinates_are_modal_and_comments_are_passed_over() -> None:
    layer = read(
        "G04 a comment with * and 5*\nD10*\nX10000Y10000D02*\nX20000D01*\nY20000D01*\nM02*\n".replace(
            " * and 5", ""
        )
    )
    assert [(o.shape.x2, o.shape.y2) for o in layer.objects if isinstance(o.shape, Bar)] == [
        (50_800_000, 25_400_000),
        (50_800_000, 50_800_000),
    ]


def test_cleared_copper_separates_what_it_cuts() -> None:
    square = "G36*\nX0Y0D02*\nX10000Y0D01*\nX10000Y10000D01*\nX0Y10000D01*\nX0Y0D01*\nG37*\n"
    slit = "%LPC*%\nG36*\nX4000Y-1000D02*\nX6000Y-1000D01*\nX6000Y11000D01*\nX4000Y11000D01*\nX4000Y-1000D01*\nG37*\n%LPD*%\n"
    whole, halved = read(square + "M02*\n"), read(square + slit + "M02*\n")
    empty = read("M02*\n")
    assert len(set(rebuild(whole, empty, []).groups.tolist())) == 1
    assert len(set(rebuild(halved, empty, []).groups.tolist())) == 2


def test_only_plated_holes_join_sides() -> None:
    pad = read("D10*\nX0Y0D03*\nM02*\n")
    assert len(set(rebuild(pad, pad, [ReadHole(0, 0, 100_000, True)]).groups.tolist())) == 1
    assert len(set(rebuild(pad, pad, [ReadHole(0, 0, 100_000, False)]).groups.tolist())) == 2
    assert len(set(rebuild(pad, pad, []).groups.tolist())) == 2


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

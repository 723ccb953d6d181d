"""A package in which anything at all was changed is not proven: 27 directed changes, and readers on
files made to hurt.
"""

import time
from collections.abc import Callable

import pytest

from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.proof.connecting import rebuild
from loquet.core.proof.drill_reader import read_drill
from loquet.core.proof.gerber_reader import FileFault, read_gerber
from loquet.core.proof.table_reader import read_bare_board_netlist, read_csv
from loquet.core.release import Release, prove_package

F, A, W = "fabrication/", "assembly/", "firmware/"
Files = dict[str, bytes]


def swap(name: str, old: bytes, new: bytes) -> Callable[[Files], Files]:
    def change(files: Files) -> Files:
        assert old in files[name], (name, old)
        return {**files, name: files[name].replace(old, new, 1)}

    return change


def gone(name: str) -> Callable[[Files], Files]:
    return lambda files: {k: v for k, v in files.items() if k != name}


def more(name: str, data: bytes) -> Callable[[Files], Files]:
    return lambda files: {**files, name: data}


def emptied(name: str) -> Callable[[Files], Files]:
    return lambda files: {**files, name: b""}


def exchanged(one: str, other: str) -> Callable[[Files], Files]:
    return lambda files: {**files, one: files[other], other: files[one]}


def places_swapped(files: Files) -> Files:
    lines = files[A + "places.csv"].decode().splitlines()
    lines[1], lines[2] = lines[2], lines[1]
    return {**files, A + "places.csv": ("\n".join(lines) + "\n").encode()}


def first_tool_m30(files: Files) -> Files:
    lines = files[F + "holes-plated.drl"].decode().splitlines()
    at = [i for i, line in enumerate(lines) if line.startswith("X")][-10]
    return {**files, F + "holes-plated.drl": "\n".join([*lines[:at], "M30", *lines[at:]]).encode()}


TAMPERINGS: dict[str, Callable[[Files], Files]] = {
    "an arc between two nets": swap(
        F + "copper-near.gbr",
        b"M02*",
        b"D10*\nG75*\nX9000000Y9000000D02*\nG03*\nX12000000Y12000000I3000000J0D01*\nG01*\nM02*",
    ),
    "the drill file ends ten holes early": first_tool_m30,
    "a cut-out in the profile": swap(
        F + "profile.gbr", b"M02*", b"X30000000Y20000000D02*\nX32000000Y20000000D01*\nM02*"
    ),
    "an extra copper file": more(F + "copper-inner.gbr", b"G04 nothing*\nM02*\n"),
    "an extra file in a new folder": more("notes/read-me.txt", b"hello"),
    "near copper says that it is the far one": swap(
        F + "copper-near.gbr", b"Copper,L1,Top", b"Copper,L2,Bot"
    ),
    "copper files exchanged": exchanged(F + "copper-near.gbr", F + "copper-far.gbr"),
    "mask polarity": swap(F + "mask-near.gbr", b"FilePolarity,Negative", b"FilePolarity,Positive"),
    "paste files exchanged": exchanged(F + "paste-near.gbr", F + "paste-far.gbr"),
    "netlist in inches": swap(F + "netlist.ipc", b"UNITS CUST 1", b"UNITS CUST 0"),
    "netlist without its end": swap(F + "netlist.ipc", b"999", b"C  "),
    "job file: thickness": swap(
        F + "board.gbrjob", b'"BoardThickness": 1.6', b'"BoardThickness": 0.8'
    ),
    "job file gone": gone(F + "board.gbrjob"),
    "job file: layer count": swap(F + "board.gbrjob", b'"LayerNumber": 2', b'"LayerNumber": 4'),
    "thickness in the design": swap("design.json", b'"thickness_mm":1.6', b'"thickness_mm":0.8'),
    "finish in the design": swap("design.json", b'"finish":"lead-free solder"', b'"finish":"gold"'),
    "a value emptied in the parts list": swap(A + "parts.csv", "2.7 kΩ".encode(), b""),
    "a price changed in the parts list": swap(A + "parts.csv", b"house", b"hand"),
    "rows swapped in the places list": places_swapped,
    "places list emptied": emptied(A + "places.csv"),
    "drawing emptied": emptied(A + "drawing.pdf"),
    "drawing cut": lambda files: {**files, A + "drawing.pdf": files[A + "drawing.pdf"][:-100]},
    "wiring card gone": gone(W + "wiring-card.pdf"),
    "a row of the header's table": swap(W + "pins.h", b"_BIT 1", b"_BIT 2"),
    "a comment in the header": swap(W + "pins.h", b"/*", b"/* #include <evil.h>"),
    "the map": swap(W + "pins.json", b"{", b"{ "),
    "the legend": swap(F + "legend-near.gbr", b"D01*", b"D02*"),
}


@pytest.mark.parametrize("name", TAMPERINGS)
def test_no_tampering_is_proven(
    released: Release, finished: Design, library: Library, name: str
) -> None:
    files = TAMPERINGS[name](released.files)
    assert files != released.files
    text = files.get("design.json", b"")
    assert not prove_package(files, Design.model_validate_json(text), library).holds


def test_the_package_as_it_was_written_is_proven(released: Release, library: Library) -> None:
    assert (
        prove_package(
            released.files, Design.model_validate_json(released.files["design.json"]), library
        ).faults
        == ()
    )


HEAD = "%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.2*%\nD10*\n"
HOSTILE: dict[str, Callable[[], object]] = {
    "a number of 400 digits": lambda: read_gerber(
        b"%FSLAX46Y46*%\n%MOMM*%\n%ADD10C," + b"9" * 400 + b"*%\nM02*\n", "f"
    ),
    "an aperture number of 5,000 digits": lambda: read_gerber(
        (HEAD + "D" + "1" * 5_000 + "*\nM02*\n").encode(), "f"
    ),
    "a format of no decimals and a place beyond the world": lambda: read_gerber(
        b"%FSLAX46Y46*%\n%MOIN*%\n%ADD10C,0.2*%\nD10*\nX999999999999Y0D03*\nM02*\n", "f"
    ),
    "a region of 200,000 corners": lambda: read_gerber(
        (
            HEAD
            + "G36*\nX0Y0D02*\n"
            + "".join(f"X{i}Y{i % 7}D01*\n" for i in range(200_000))
            + "X0Y0D01*\nG37*\nM02*\n"
        ).encode(),
        "f",
    ),
    "20,000 flashes on one spot": lambda: rebuild(
        {
            "near": read_gerber(
                (HEAD + "".join(f"X{i}Y0D03*\n" for i in range(20_000)) + "M02*\n").encode(), "f"
            ),
            "far": read_gerber((HEAD + "M02*\n").encode(), "g"),
        },
        [],
    ),
    "500,000 holes": lambda: read_drill(
        b"M48\n; #@! TF.FileFunction,Plated,1,2,PTH\nMETRIC\nT1C0.300\n%\nT1\n"
        + b"X1.0Y1.0\n" * 500_000
        + b"M30\n",
        "f",
    ),
    "a hole of 400 digits": lambda: read_drill(
        b"M48\nMETRIC\nT1C0." + b"3" * 400 + b"\n%\nM30\n", "f"
    ),
    "a table cell of 200 kB": lambda: read_csv(b'Where,What\nR1,"' + b"x" * 200_000 + b'"\n', "f"),
    "a table with a NUL": lambda: read_csv(b"Where,What\nR1\0,x,y\n", "f"),
    "a netlist record cut short": lambda: read_bare_board_netlist(b"317GROUND\n999\n", "f"),
    "5 MB of netlist": lambda: read_bare_board_netlist(b"C\n" * 2_500_000, "f"),
}


SAID = {
    "a number of 400 digits": ("f", 3, "has an aperture with wrong sizes"),
    "an aperture number of 5,000 digits": ("f", 4, "has a command of more than 4000 characters"),
    "a format of no decimals and a place beyond the world": (
        *("f", 5, "has a place more than a metre away"),
    ),
    "a region of 200,000 corners": ("f", 20_006, "has a contour of more than 20000 corners"),
    "20,000 flashes on one spot": (
        *("copper", 1, "heaps more copper on one spot than any board of this kind"),
    ),
    "500,000 holes": ("f", 1, "is larger than 4 MB, which no board of this kind needs"),
    "a hole of 400 digits": ("f", 3, "has a line that is not understood: T1C0." + "3" * 25),
    "a table cell of 200 kB": ("f", 1, "is no table (field larger than field limit (131072))"),
    "a table with a NUL": ("f", 2, "has more or fewer cells than the heading"),
    "a netlist record cut short": ("f", 1, "has a record that is not understood"),
    "5 MB of netlist": ("f", 1, "is larger than 4 MB, which no netlist of this kind needs"),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_files_made_to_hurt_are_refused_soon_with_a_sentence(name: str) -> None:
    began = time.process_time()
    with pytest.raises(FileFault) as caught:
        HOSTILE[name]()
    assert time.process_time() - began < 10
    assert (caught.value.file, caught.value.line, caught.value.problem) == SAID[name]

"""The proof on whole packages, and on at least 200 random damages to single objects of the
files.
"""

import random
import re
from collections.abc import Iterator

import pytest

from loquet.core.design import Design, slice_of
from loquet.core.fabrication.layers import plan_layers
from loquet.core.legend import legend_of
from loquet.core.library import Library
from loquet.core.pipeline import board_view
from loquet.core.proof.proving import Proof, prove
from loquet.core.release import Release, release

COPPER = ("fabrication/copper-near.gbr", "fabrication/copper-far.gbr")
PADS = (
    *COPPER,
    "fabrication/mask-near.gbr",
    "fabrication/mask-far.gbr",
    "fabrication/paste-near.gbr",
    "fabrication/paste-far.gbr",
)
DRILLS = ("fabrication/holes-plated.drl", "fabrication/holes-unplated.drl")
DAMAGES_EACH = 10
MOVED_NM = 300_000


class Bench:
    """The package of the demo with everything that the proof needs, worked out once."""

    def __init__(self, design: Design, package: Release, library: Library) -> None:
        self.files = package.files
        self.view = board_view(design, library)
        self.plan = {"firmware/pins.h": slice_of(design.pins)}
        self.layers = plan_layers(self.view, legend_of(self.view))

    def proof(self, **changes: bytes) -> Proof:
        return prove({**self.files, **changes}, self.view, self.plan, self.layers)

    def damaged(self, name: str, data: str) -> Proof:
        return prove({**self.files, name: data.encode()}, self.view, self.plan, self.layers)


@pytest.fixture(scope="module")
def bench(finished: Design, released: Release, library: Library) -> Bench:
    return Bench(finished, released, library)


def operations(lines: list[str]) -> Iterator[tuple[str, int]]:
    """Flashes and strokes of a Gerber file outside its regions, by the line of their last
    operation.
    """
    in_region = False
    for index, line in enumerate(lines):
        in_region = (in_region or line == "G36*") and line != "G37*"
        if in_region:
            continue
        if line.endswith("D03*"):
            yield "pad", index
        elif line.endswith("D01*") and lines[index - 1].endswith("D02*"):
            yield "track", index


def shifted(line: str, dx: int, dy: int) -> str:
    found = re.fullmatch(r"X(-?\d+)Y(-?\d+)(D0\d\*)", line)
    assert found
    return f"X{int(found[1]) + dx}Y{int(found[2]) + dy}{found[3]}"


def damage(bench: Bench, chance: random.Random) -> tuple[str, str, str]:
    """One object of one file removed, or moved by 0.3 mm: what was done, the file, its new text."""
    what = chance.choice(["track", "hole", "pad", "track", "hole", "pad", "opening"])
    remove = chance.random() < 0.5
    dx, dy = chance.choice([(MOVED_NM, 0), (-MOVED_NM, 0), (0, MOVED_NM), (0, -MOVED_NM)])
    if what == "hole":
        name = chance.choice(DRILLS)
        lines = bench.files[name].decode().splitlines()
        index = chance.choice([i for i, line in enumerate(lines) if line.startswith("X")])
        found = re.fullmatch(r"X(-?[\d.]+)Y(-?[\d.]+)", lines[index])
        assert found
        lines[index : index + 1] = (
            []
            if remove
            else [f"X{float(found[1]) + dx / 1e6:.6f}Y{float(found[2]) + dy / 1e6:.6f}"]
        )
        return (
            f"{what} {'removed' if remove else 'moved'} in {name}, line {index + 1}",
            name,
            "\n".join(lines) + "\n",
        )
    name = chance.choice(COPPER if what == "track" else PADS[2:] if what == "opening" else COPPER)
    lines = bench.files[name].decode().splitlines()
    kind = "track" if what == "track" else "pad"
    index = chance.choice([i for k, i in operations(lines) if k == kind])
    first = index - 1 if kind == "track" else index
    moved = [] if remove else [shifted(line, dx, dy) for line in lines[first : index + 1]]
    lines[first : index + 1] = moved
    return (
        f"{what} {'removed' if remove else 'moved'} in {name}, line {index + 1}",
        name,
        "\n".join(lines) + "\n",
    )


def test_a_file_that_cannot_be_read_is_the_one_fault(bench: Bench) -> None:
    name = "fabrication/holes-plated.drl"
    proof = bench.damaged(name, bench.files[name].decode().replace("M30", ""))
    (fault,) = proof.faults
    assert (fault.file, fault.net) == ("holes-plated.drl", "")
    assert fault.sentence.endswith("ends without M30.")
    assert (proof.nets, proof.pads, proof.gaps, proof.holes) == (0, 0, 0, 0)
    missing = prove(
        {path: data for path, data in bench.files.items() if path != name},
        bench.view,
        bench.plan,
        bench.layers,
    )
    assert [f.sentence for f in missing.faults] == [f"{name}, line 0: is missing."]


@pytest.fixture(scope="module")
def little(small: Design, library: Library) -> Bench:
    return Bench(small, release(small, library), library)


@pytest.mark.parametrize("seed", range(8))
def test_every_random_damage_is_caught_and_placed(little: Bench, seed: int) -> None:
    bench, chance = little, random.Random(seed)
    for _ in range(DAMAGES_EACH):
        done, name, text = damage(bench, chance)
        proof = bench.damaged(name, text)
        assert proof.faults, f"not caught: {done}"
        assert any(name.endswith(fault.file) for fault in proof.faults), done
        placed = [fault for fault in proof.faults if name.endswith(fault.file)]
        assert all(fault.x_mm or fault.y_mm for fault in placed), done
        if name in COPPER:
            assert (
                any(fault.net for fault in proof.faults)
                or "U1" in proof.faults[0].sentence
                or "pad" in proof.faults[0].sentence
            ), done


def test_a_removed_track_opens_its_net_by_geometry_alone(bench: Bench, finished: Design) -> None:
    routing = slice_of(finished.routing)
    longest = max(
        (t for t in routing.tracks if t.net == "BUTTON_RED"),
        key=lambda t: abs(t.x2_nm - t.x1_nm) + abs(t.y2_nm - t.y1_nm),
    )
    name = COPPER[longest.far]
    lines = bench.files[name].decode().splitlines()
    start = lines.index(f"X{longest.x1_nm}Y{longest.y1_nm}D02*")
    while lines[start + 1] != f"X{longest.x2_nm}Y{longest.y2_nm}D01*":
        start = lines.index(f"X{longest.x1_nm}Y{longest.y1_nm}D02*", start + 1)
    del lines[start : start + 2]
    sentences = [fault.sentence for fault in bench.damaged(name, "\n".join(lines)).faults]
    assert any(s.startswith("BUTTON_RED is open between") for s in sentences)


def test_a_stroke_between_two_pads_is_a_short(bench: Bench) -> None:
    name = COPPER[0]
    text = bench.files[name].decode()
    aperture = re.search(r"%ADD(\d+)C,0.200000\*%", text)
    assert aperture
    chip = bench.view.seats["U1"]
    pads = [c for c in bench.view.pads if c.ref == "U1" and c.pad in ("12", "11")]
    (x1, y1), (x2, y2) = [(c.shape.x, c.shape.y) for c in pads]  # type: ignore[union-attr]
    stroke = f"%TD*%\nD{aperture[1]}*\nX{x1}Y{y1}D02*\nX{x2}Y{y2}D01*\n"
    sentences = [
        fault.sentence
        for fault in bench.damaged(name, text.replace("M02*", stroke + "M02*")).faults
    ]
    assert chip
    assert any("is joined with" in s for s in sentences)


def test_a_swapped_label_in_the_files_is_found(bench: Bench) -> None:
    text = bench.files[COPPER[0]].decode().replace("%TO.N,SCREEN_DATA*%", "%TO.N,SCREEN_CLOCK*%", 1)
    assert any("labelled" in fault.sentence for fault in bench.damaged(COPPER[0], text).faults)


@pytest.mark.parametrize(
    ("name", "old", "new", "said"),
    [
        ("assembly/parts.csv", "2.7 kΩ", "27 kΩ", "27 kΩ"),
        ("assembly/parts.csv", "S1 S2", "S1", "S2"),
        ("assembly/places.csv", "B1,buzzer-9x9-magnetic", "B9,buzzer-9x9-magnetic", "B9"),
        ("assembly/places.csv", ",near,9.500,22.000,0", ",far,9.500,22.000,0", "S1"),
        ("firmware/pins.h", "BUTTON_RED_BIT ", "BUTTON_RED_BIT 3", "BUTTON_RED"),
        ("fabrication/netlist.ipc", "327SUPPLY  ", "327GROUND  ", "U1"),
        ("fabrication/profile.gbr", "X60000000Y0D01*", "X59700000Y0D01*", "outline"),
    ],
)
def test_lists_maps_and_outline_are_compared_as_well(
    bench: Bench, name: str, old: str, new: str, said: str
) -> None:
    text = bench.files[name].decode()
    assert old in text
    faults = bench.damaged(name, text.replace(old, new, 1)).faults
    assert any(said in fault.sentence for fault in faults)


def test_a_missing_or_broken_file_is_a_fault(bench: Bench) -> None:
    files = {k: v for k, v in bench.files.items() if k != COPPER[1]}
    assert "is missing" in prove(files, bench.view, bench.plan, bench.layers).faults[0].sentence
    assert "line" in bench.damaged(COPPER[0], "%FSLAX46Y46*%\nwhat*\n").faults[0].sentence


def test_a_poured_corner_cut_off_is_found(bench: Bench) -> None:
    lines = bench.files[COPPER[1]].decode().splitlines()
    start = lines.index("G36*")
    del lines[start + 6 : start + 8]
    sentences = " ".join(
        fault.sentence for fault in bench.damaged(COPPER[1], "\n".join(lines)).faults
    )
    assert "pour of GROUND differs" in sentences


def test_a_release_is_refused_while_a_stop_is_open(finished: Design, library: Library) -> None:
    unpoured = finished.model_copy(update={"pour": {}})
    result = release(unpoured, library)
    assert (result.ready, result.files, result.proof) == (False, {}, None)
    assert any(f.severity == "stop" for f in result.findings)

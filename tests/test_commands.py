"""The commands as a user has them: ./loquet compile and verify."""

import json
import shutil
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from loquet.compiling import (
    Unusable,
    compile_brief,
    made_otherwise,
    report_file,
    report_of,
    verify_folder,
)
from loquet.core.design import Design
from loquet.core.fabrication.package import package_files
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from loquet.core.release import release, sheets_of
from loquet.demo.scenario import BRAIN_BRIEFS, SPREAD_BRIEFS
from tests.conftest import ROOT
from tests.making import device, thing

Command = Callable[..., tuple[int, str, str]]
DUSK = ROOT / "examples" / "dusk-remote.brief.json"
KEYS = {
    "ready",
    "stops",
    "looks",
    "notes",
    "components",
    "nets",
    "unrouted",
    "violations",
    "track_mm",
    "vias",
    "ground_islands",
    "stages",
}


def files_of(folder: Path) -> dict[str, bytes]:
    return {
        str(p.relative_to(folder)): p.read_bytes() for p in sorted(folder.rglob("*")) if p.is_file()
    }


@pytest.fixture(scope="module")
def compiled(tmp_path_factory: pytest.TempPathFactory) -> Path:
    out = tmp_path_factory.mktemp("compiled") / "dusk"
    code, _ = compile_brief(DUSK, out)
    assert code == 0
    return out


def test_compile_prints_one_object_and_the_same_bytes_twice(
    command: Command, compiled: Path, tmp_path: Path
) -> None:
    code, output, errors = command("compile", str(DUSK), "--out", str(tmp_path / "again"), "--json")
    assert (code, errors) == (0, "")
    report = json.loads(output)
    assert report.keys() >= KEYS
    assert (
        report["ready"],
        report["unrouted"],
        report["violations"],
        report["ground_islands"],
    ) == (True, 0, 0, 1)
    assert [s["name"] for s in report["stages"]] == [
        "pins",
        "circuit",
        "placement",
        "routing",
        "pour",
        "release and proof",
    ]
    assert files_of(tmp_path / "again") == files_of(compiled)
    assert {p.name for p in compiled.iterdir()} == {
        "fabrication",
        "assembly",
        "firmware",
        "design.json",
        "report.json",
    }


def test_verify_says_what_it_proved(command: Command, compiled: Path) -> None:
    code, output, _ = command("verify", str(compiled))
    assert code == 0
    assert "23 nets, 136 pads" in output


def test_verify_names_net_and_place_of_a_damage(
    command: Command, compiled: Path, tmp_path: Path
) -> None:
    folder = tmp_path / "damaged"
    shutil.copytree(compiled, folder)
    drill = folder / "fabrication" / "holes-plated.drl"
    lines = drill.read_text().splitlines()
    index = next(i for i, line in enumerate(lines) if line.startswith("X"))
    del lines[index]
    drill.write_text("\n".join(lines) + "\n")
    code, output, _ = command("verify", str(folder))
    assert code == 3
    assert "holes-plated.drl" in output
    assert " mm " in output


def whole(design: Design, library: Library) -> dict[str, bytes]:
    """A package that says the same as its design in every file, whatever the design is."""
    said = release(design, library)
    report = report_file(report_of(design, said, library))
    files = package_files(design, sheets_of(design, library), library)
    return {**files, "report.json": report}


def test_a_package_of_a_board_that_is_not_ready_is_not_called_ready(
    finished: Design, library: Library, command: Command, tmp_path: Path
) -> None:
    """A track of 0.05 mm in design and files alike: proven, and not ready."""
    made = finished.routing["main"]
    first, *others = made.value.tracks
    thin = (first.model_copy(update={"width_nm": 50_000}), *others)
    routing = made.value.model_copy(update={"tracks": thin})
    design = finished.with_made("routing", "main", made.model_copy(update={"value": routing}))
    design = run_stage(design, "pour", library)
    for path, data in whole(design, library).items():
        (tmp_path / path).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / path).write_bytes(data)
    code, output, _ = command("verify", str(tmp_path))
    assert code == 2
    assert "Proven, not ready" in output
    assert "0.05 mm" in output


@pytest.mark.parametrize("how", ["value", "part", "place"])
def test_a_design_that_its_brief_does_not_give_is_not_proven(
    how: str, finished: Design, library: Library
) -> None:
    """1 pF for 100 nF, a chip for another one, a key 1 mm away, the same in every file."""
    if how == "place":
        placed = finished.placement["main"]
        parts = placed.value.parts
        key = next(p for p in parts if p.ref == "S1")
        seat = {"x_nm": key.x_nm + 1_000_000}
        moved = tuple(p.model_copy(update=seat) if p is key else p for p in parts)
        other = placed.value.model_copy(update={"parts": moved})
        design = finished.with_made("placement", "main", placed.model_copy(update={"value": other}))
    else:
        made = next(iter(finished.circuit.values()))
        change = {"value": "1 pF"} if how == "value" else {"part": "capacitor-2012"}
        components = tuple(
            c.model_copy(update=change) if c.ref == "C1" else c for c in made.value.components
        )
        circuit = made.value.model_copy(update={"components": components})
        subject = next(iter(finished.circuit))
        design = finished.with_made("circuit", subject, made.model_copy(update={"value": circuit}))
    said = made_otherwise(design, library)
    wanted = "S1 does not lie where" if how == "place" else "is not the one that its brief gives"
    assert any(wanted in words for words in said)
    assert made_otherwise(finished, library) == []


def test_bad_input_is_one_sentence_and_writes_nothing(command: Command, tmp_path: Path) -> None:
    broken = tmp_path / "broken.json"
    broken.write_text(DUSK.read_text().replace('"x_mm": 9.5, "y_mm": 22', '"x_mm": 93, "y_mm": 22'))
    code, output, errors = command("compile", str(broken), "--out", str(tmp_path / "out"), "--json")
    assert code == 1
    assert "things[0] 'brighter'" in errors
    assert len(errors.strip().splitlines()) == 1
    assert json.loads(output)["ready"] is False
    assert not (tmp_path / "out").exists()


@pytest.mark.parametrize("path", ["missing.json", "."])
def test_a_brief_that_cannot_be_read(path: str, tmp_path: Path) -> None:
    with pytest.raises(Unusable, match="cannot be read|larger|not JSON"):
        compile_brief(tmp_path / path, tmp_path / "out")


def test_other_peoples_files_are_not_overwritten(tmp_path: Path) -> None:
    (tmp_path / "out").mkdir()
    (tmp_path / "out" / "diary.txt").write_text("mine")
    with pytest.raises(Unusable, match="holds other files"):
        compile_brief(DUSK, tmp_path / "out")
    assert (tmp_path / "out" / "diary.txt").read_text() == "mine"


def test_a_board_that_is_not_ready_lists_its_stops_and_has_no_fabrication(tmp_path: Path) -> None:
    plain = json.loads(DUSK.read_text())
    plain["boards"][0]["outline"] = {
        "kind": "rounded-rectangle",
        "width_mm": 64,
        "height_mm": 42,
        "corner_mm": 4,
    }
    (brain,) = (t for t in plain["things"] if t["kind"] == "chip")
    brain |= {"part": "stm32l051r8t6"}
    brain["place"] = {"x_mm": 32, "y_mm": 16}
    source = tmp_path / "crowded.json"
    source.write_text(json.dumps(plain))
    code, report = compile_brief(source, tmp_path / "out")
    assert code == 2
    assert report["stops"]
    assert all(s["sentence"] and s["way_out"] for s in report["stops"])
    assert not (tmp_path / "out" / "fabrication").exists()
    assert json.loads((tmp_path / "out" / "report.json").read_text())["ready"] is False
    with pytest.raises(Unusable, match="no fabrication files"):
        verify_folder(tmp_path / "out")


@pytest.mark.parametrize(
    "chip",
    [
        "stm32g031k8t6",
        "stm32f103c8t6",
        "stm32l431cct6",
        "stm32f411ceu6",
        "stm32c031k6u6",
        "stm32g071rbt6",
        "stm32g030f6p6",
    ],
)
def test_the_chip_can_be_changed_and_the_chain_still_ends_ready(chip: str, tmp_path: Path) -> None:
    source = tmp_path / "other.json"
    source.write_text(DUSK.read_text().replace("stm32l051c8t6", chip))
    code, report = compile_brief(source, tmp_path / "out")
    assert (code, report["stops"], report["unrouted"], report["violations"]) == (0, [], 0, 0)
    proof, stops = verify_folder(tmp_path / "out")
    assert (proof.holds, stops) == (True, ())


def test_verify_wants_a_compiled_folder(tmp_path: Path) -> None:
    for folder in (tmp_path / "none", tmp_path):
        with pytest.raises(Unusable):
            verify_folder(folder)
    (tmp_path / "fabrication").mkdir()
    for content in ("{}", "not json", "[]"):
        (tmp_path / "design.json").write_text(content)
        with pytest.raises(Unusable, match="not a design"):
            verify_folder(tmp_path)


def test_help_and_unknown_commands(command: Command) -> None:
    assert command("help")[0] == 0
    code, _, errors = command("fly")
    assert code == 1
    assert "no command 'fly'" in errors


def test_no_download_address_and_no_machine_path_in_the_tree() -> None:
    import re
    import subprocess

    names = subprocess.run(
        ["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout.split()
    address = re.compile(
        r'"(resolved|funding)":|--(extra-)?index-url|--find-links|registry *= *http'
    )
    for name in names:
        if name.endswith((".lock", "lock.json", ".toml", ".npmrc", ".txt")):
            assert not address.search((ROOT / name).read_text("utf-8")), name


def compiled_report(folder: Path) -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads((folder / "report.json").read_text())
    return loaded


def test_the_report_has_no_times(compiled: Path) -> None:
    assert "stages" not in compiled_report(compiled)


def test_pins_plans_a_brief_and_writes_its_files(command: Command, tmp_path: Path) -> None:
    code, out, _ = command(
        "pins", "examples/log-key-pad.brief.json", "--json", "--out", str(tmp_path / "handover")
    )
    report = json.loads(out)
    assert code == 0
    assert report["feasible"]
    assert report["proof"] == "proven optimum"
    assert len(report["schemes"]) == 8
    assert len(report["assignment"]) == 14
    assert {b["kind"] for b in report["budget"]} >= {"plain pins", "USB ports"}
    assert all(w["source"]["text"] for w in report["workings"])
    assert {p.name for p in (tmp_path / "handover").iterdir()} == {
        "pins.h",
        "pins.json",
        "wiring-card.pdf",
        "usb-report.h",
        "usb-report.bin",
    }


def test_pins_says_why_not_and_ranks_the_ways_out(command: Command, tmp_path: Path) -> None:
    code, out, _ = command(
        "pins", "examples/ridge-handset.brief.json", "--json", "--out", str(tmp_path / "none")
    )
    report = json.loads(out)
    assert code == 2
    assert report["proof"] == "proven infeasible"
    assert len(report["conflict"]["signals"]) == 25
    assert [w["cost"] for w in report["ways_out"]] == sorted(w["cost"] for w in report["ways_out"])
    assert len(report["ways_out"]) >= 6
    assert not (tmp_path / "none").exists()
    code, out, _ = command("pins", "examples/ridge-handset.brief.json")
    assert code == 2
    assert "way out" in out


def test_pins_refuses_bad_input_with_its_place(command: Command, tmp_path: Path) -> None:
    broken = tmp_path / "broken.json"
    broken.write_text('{"name": "x"')
    code, out, err = command("pins", str(broken), "--json")
    assert code == 1
    assert "line 1" in err
    assert json.loads(out)["error"]


@pytest.mark.parametrize("name", [*SPREAD_BRIEFS, *BRAIN_BRIEFS])
def test_boards_brains_modules_and_slanted_parts_come_out_ready_and_the_same_twice(
    name: str, tmp_path: Path
) -> None:
    """A folder a board; keys at 30 degrees, cells and sounder behind; a changed byte on any board
    is found.
    """
    source = ROOT / "examples" / f"{name}.brief.json"
    code, report = compile_brief(source, tmp_path / "one")
    assert (code, report["ready"], report["unrouted"], report["violations"]) == (0, True, 0, 0)
    compile_brief(source, tmp_path / "two")
    files = files_of(tmp_path / "one")
    assert files == files_of(tmp_path / "two")
    copper = sorted(path for path in files if path.endswith("copper-near.gbr"))
    assert len(copper) == len(json.loads(source.read_text())["boards"])
    last = tmp_path / "one" / copper[-1]
    last.write_bytes(last.read_bytes().replace(b"D03*", b"D02*", 1))
    assert not verify_folder(tmp_path / "one")[0].holds


def test_a_board_is_compiled_as_it_is_to_be_ordered(tmp_path: Path) -> None:
    """Bare contacts want gold; a colour that the house has not is refused in words."""
    key = thing("button", "pill", 60, 30, part="button-carbon-fingers")
    brief = tmp_path / "pill.brief.json"
    chip = thing("chip", "chip", part="stm32l433rct6")
    brief.write_text(device(chip, thing("leads", "leads"), key).model_dump_json())
    said = {}
    for finish in ("lead-free solder", "gold"):
        _, report = compile_brief(brief, tmp_path / finish[:4], finish=finish)
        said[finish] = [stop["rule"] for stop in report["stops"]]
    assert said == {"lead-free solder": ["contact-finish"], "gold": []}
    with pytest.raises(Unusable, match="--colour pink is not offered"):
        compile_brief(brief, tmp_path / "pink", colour="pink")


def test_on_switches_a_brief_on(command: Command) -> None:
    """703 mA through a switch for 300 mA is a stop; one state can be asked for; none that is not
    there.
    """
    pack = str(ROOT / "tests" / "data" / "devices" / "d09c-switch.brief.json")
    code, out, _ = command("on", pack, "--json")
    report = json.loads(out)
    assert code == 2
    assert [f["rule"] for f in report["findings"]] == ["part-current"]
    assert report["state"]["id"] == report["findings"][0]["state"]
    assert all(state["sound"] for state in report["states"])
    code, out, _ = command("on", pack, "--state", "pack=most,reset,sleep,on")
    assert "With pack full, before the firmware runs" in out
    code, out, err = command("on", pack, "--state", "pack=sideways")
    assert code == 1
    assert "'pack=sideways' is no source of this device." in out + err

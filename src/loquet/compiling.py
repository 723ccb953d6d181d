"""`loquet compile` and `loquet verify`: a brief file to a proven package, and a package proven
again, without a database.
"""

import json
import re
import shutil
import time
from collections.abc import Sequence
from dataclasses import replace
from math import hypot
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from loquet.catalogue.library import bundled_library
from loquet.core.board.linking import open_links
from loquet.core.brief import Brief, BriefError, read_brief
from loquet.core.brief.making import Making
from loquet.core.brief.seats import fixed_seats
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import DEVICE, SLICES, Choices, Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.ordering.price_list import PriceLine
from loquet.core.parts import PartError
from loquet.core.pipeline import STATIONS_OF_STAGES, StageRefused, board_view, run_stage
from loquet.core.placement.seating import NoRoom
from loquet.core.planning.feasibility import brief_faults
from loquet.core.proof.agreement import Fault
from loquet.core.proof.proving import Proof
from loquet.core.provenance import Finding
from loquet.core.release import Release, prove_package, release
from loquet.core.reviewing import review
from loquet.core.shelf.faults import entry_faults
from loquet.core.shelf.pack import OWN_ID, SORTS, Pack, PackRefused, read_pack

MOST_FILES = 400


class Unusable(Exception):
    """Input that cannot be used: one sentence with the place and the way out."""


def read_limited(path: Path, most: int = 20_000_000) -> bytes:
    """A file's bytes; raises Unusable where it cannot be read or is far too large."""
    try:
        if path.stat().st_size > most:
            raise Unusable(
                f"{path} is larger than {most // 1_000_000} MB. Check that this is the right file."
            )
        return path.read_bytes()
    except OSError as error:
        raise Unusable(
            f"{path} cannot be read ({error.strerror}). Give the path of a readable file."
        ) from None


def own_packs(packs: Sequence[Path]) -> Pack:
    """Packs as one, the later of two entries with one id in place of the earlier; raises Unusable
    with every fault, and where an entry has not an id of one's own.
    """
    entries: dict[str, dict[str, Any]] = {sort: {} for sort in SORTS}
    prices: list[PriceLine] = []
    for path in packs:
        try:
            pack = read_pack(read_limited(path), path.name)
        except PackRefused as error:
            raise Unusable(str(error)) from None
        for sort, begins in SORTS.items():
            for entry in getattr(pack, sort):
                if not re.fullmatch(OWN_ID.replace("own/", begins), entry.id):
                    name = f"{begins}NAME"
                    raise Unusable(
                        f"{path.name}: {sort} '{entry.id}' is not called {name}. Call it so."
                    )
                if faults := entry_faults(entry):
                    first = faults[0]
                    raise Unusable(f"{path.name}: {entry.id}: {first.problem}. {first.way_out}")
                entries[sort][entry.id] = entry
        prices += pack.price
    tables = {sort: tuple(rows.values()) for sort, rows in entries.items()}
    return Pack(name="workshop", price=tuple(prices), **tables)


def made_as(brief: Brief, order: dict[str, Any]) -> Brief:
    """The brief with what was said on the command line of how the boards are made; raises
    Unusable.
    """
    if not order:
        return brief
    try:
        making = Making.model_validate({**brief.making.model_dump(), **order})
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        field = str(first["loc"][0])
        option = next((o for o, f in OPTIONS.items() if f == field), field).replace("_", "-")
        raise Unusable(f"--{option} {order[field]}: {first['msg']}.") from None
    return brief.model_copy(update={"making": making})


OPTIONS = {"thickness": "thickness_mm", "copper": "copper_um"}


def chosen_from(pack: Pack, house: str | None) -> Choices:
    """The choices of a project that takes all parts of a pack, and orders at a house, where one is
    named: of the pack, or one that ships with Loquet.
    """
    own = next((one for one in pack.house if one.id == house), None)
    taken = Choices(shelf={part.id: part for part in pack.part}, own_house=own)
    return taken if house is None else taken.model_copy(update={"house": house})


def refuse_order(design: Design, library: Library, order: dict[str, Any]) -> None:
    """Raise Unusable for an unknown house, or for what was asked of it on the command line and it
    does not offer; what the brief asks is a stop of the report.
    """
    choices, making = design.choices, design.brief.making
    try:
        house = library.house(choices.house)
    except PartError as error:
        raise Unusable(f"--house '{choices.house}' {error.problem}. {error.way_out}") from None
    for name, field, asked, offered in (
        ("finish", "finish", making.finish, house.finishes),
        ("colour", "colour", making.colour, house.colours),
        (
            "thickness",
            "thickness_mm",
            making.thickness_mm,
            tuple(um / 1000 for um in house.thickness_um),
        ),
        ("copper", "copper_um", making.copper_um, house.copper_um),
    ):
        if asked not in offered and (field in order or "house" in order):
            words = ", ".join(f"{one:g}" if name == "thickness" else str(one) for one in offered)
            raise Unusable(f"--{name} {asked} is not offered by {house.name}. It offers: {words}.")


def compile_brief(
    brief_path: Path, out: Path, packs: Sequence[Path] = (), **order: Any
) -> tuple[int, dict[str, Any]]:
    """Compile a brief into `out`, with the parts of packs and as it is to be ordered: `house`, and
    the fields of the brief's `making`, in place of what the brief says; returns the exit code (0
    ready, 2 not ready) and the report.

    Raises Unusable before writing.
    """
    choices = chosen_from(own_packs(packs), order.get("house"))
    data = read_limited(brief_path)
    try:
        brief = read_brief(data, brief_path.name)
    except BriefError as error:
        raise Unusable("\n".join(error.sentences)) from None
    brief = made_as(brief, {name: value for name, value in order.items() if name != "house"})
    library = project_library(Design(brief=brief, choices=choices), bundled_library())
    refuse_order(Design(brief=brief, choices=choices), library, order)
    ways = [way.name for way in library.house(choices.house).shipping]
    if choices.shipping not in ways:
        choices = choices.model_copy(update={"shipping": ways[0]})
    faults = brief_faults(brief, library)
    if faults:
        raise Unusable("\n".join(dict.fromkeys(str(fault) for fault in faults)))
    if out.exists() and not ours(out):
        raise Unusable(
            f"{out} holds other files. Give an empty or new folder, or one that compile made."
        )
    stages: list[dict[str, Any]] = []
    design, stop = run_all(Design(brief=brief, choices=choices), library, stages)
    began = time.perf_counter()
    if stop:
        waiting = [f for f in review(design, library) if f.severity == "stop"]
        result = Release((stop, *waiting), {}, None)
    else:
        result = release(design, library)
    stages.append({"name": "release and proof", "ms": round((time.perf_counter() - began) * 1000)})
    report = report_of(design, result, library)
    write_package(out, design, result, report)
    return (0 if result.ready else 2), {**report, "stages": stages}


def ours(out: Path) -> bool:
    """Whether a folder is empty or one that compile wrote before."""
    return out.is_dir() and ((out / "report.json").is_file() or not any(out.iterdir()))


def run_all(
    design: Design, library: Library, stages: list[dict[str, Any]]
) -> tuple[Design, Finding | None]:
    """All stages with their times; a stage that refuses ends the chain with a stop."""
    for name in SLICES:
        began = time.perf_counter()
        try:
            design = run_stage(design, name, library)
        except (StageRefused, RecipeNotPossible, NoRoom, PartError) as error:
            sentence, way_out = (
                getattr(error, "why", str(error)),
                getattr(error, "way_out", "Change the brief."),
            )
            return design, Finding(
                rule="stage-refused",
                severity="stop",
                station=STATIONS_OF_STAGES[name],
                sentence=sentence,
                way_out=way_out,
            )
        finally:
            stages.append({"name": name, "ms": round((time.perf_counter() - began) * 1000)})
    return design, None


def report_of(design: Design, result: Release, library: Library) -> dict[str, Any]:
    """Figures and findings; no times, so that two runs write the same bytes."""
    by_severity: dict[str, list[dict[str, Any]]] = {"stop": [], "look": [], "note": []}
    for finding in result.findings:
        plain = finding.model_dump(mode="json", exclude={"working", "repairs"})
        by_severity[finding.severity].append(plain)
    boards = [board_figures(design, board.name, library) for board in design.brief.boards]
    circuit = design.circuit.get(DEVICE)
    violations = sum(
        f.severity == "stop"
        and f.station == "board"
        and f.rule not in ("unrouted", "not-made", "stage-refused")
        for f in result.findings
    )
    islands = [row["ground_islands"] for row in boards]
    return {
        "ready": result.ready,
        "stops": by_severity["stop"],
        "looks": by_severity["look"],
        "notes": by_severity["note"],
        "components": len(circuit.value.components) if circuit else 0,
        "nets": len(circuit.value.nets) if circuit else 0,
        "unrouted": sum(row["unrouted"] for row in boards) if design.routing else None,
        "violations": violations,
        "track_mm": round(sum(row["track_mm"] for row in boards), 3),
        "vias": sum(row["vias"] for row in boards),
        "ground_islands": max(i for i in islands if i is not None) if design.pour else None,
        "boards": boards,
        "proof": proof_figures(result.proof),
    }


def board_figures(design: Design, name: str, library: Library) -> dict[str, Any]:
    """The figures of one board; what is open is found from what touches what."""
    routing, pour = design.routing.get(name), design.pour.get(name)
    placement = design.placement.get(name)
    tracks = routing.value.tracks if routing else ()
    length = sum(hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) for t in tracks)
    return {
        "board": name,
        "parts": len(placement.value.parts) if placement else 0,
        "unrouted": len(open_links(board_view(design, library, name))) if routing else 0,
        "track_mm": round(length / 1e6, 3),
        "vias": (
            (len(routing.value.vias) if routing else 0) + (len(pour.value.stitches) if pour else 0)
        ),
        "ground_islands": pour.value.islands if pour else None,
    }


def proof_figures(proof: Proof | None) -> dict[str, int] | None:
    """What the proof covered."""
    if proof is None:
        return None
    return {
        "nets": proof.nets,
        "pads": proof.pads,
        "gaps": proof.gaps,
        "holes": proof.holes,
        "keys": proof.keys,
        "copies": proof.copies,
        "faults": len(proof.faults),
    }


def write_package(out: Path, design: Design, result: Release, report: dict[str, Any]) -> None:
    """Write into a draft folder beside `out`, then put it in place whole."""
    out.parent.mkdir(parents=True, exist_ok=True)
    draft = out.parent / f".{out.name}.draft"
    shutil.rmtree(draft, ignore_errors=True)
    files = dict(result.files) or {
        "design.json": (json.dumps(design.model_dump(mode="json"), sort_keys=True) + "\n").encode()
    }
    files["report.json"] = report_file(report)
    for name, data in files.items():
        path = draft / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_bytes(data)
    if out.exists():
        shutil.rmtree(out)
    draft.rename(out)


def verify_folder(folder: Path) -> tuple[Proof, tuple[str, ...]]:
    """The proof of a compiled folder, and the stops that stand against its design all the same;
    raises Unusable where there is no package in it.
    """
    if not folder.is_dir():
        raise Unusable(f"{folder} is not a folder. Give the folder that compile wrote.")
    if not (folder / "design.json").is_file():
        raise Unusable(f"{folder} holds no design.json. Give the folder that compile wrote.")
    if not any(folder.glob("**/fabrication")):
        raise Unusable(
            f"{folder} holds no fabrication files: the design was not ready. See report.json."
        )
    files = package_in(folder)
    try:
        design = Design.model_validate_json(read_limited(folder / "design.json"))
    except ValidationError as error:
        raise Unusable(
            f"{folder / 'design.json'} is not a design ({error.error_count()} faults). Compile the"
            " brief again."
        ) from None
    try:
        return prove_folder(files, design, project_library(design, bundled_library()))
    except (ValueError, PartError, KeyError) as error:
        raise Unusable(
            f"{folder / 'design.json'} cannot be proven: {error}. Compile the brief again."
        ) from None


def package_in(folder: Path) -> dict[str, bytes]:
    """Every file of a folder by its path in it; raises Unusable where there are far too many."""
    paths = sorted(path for path in folder.rglob("*") if path.is_file() or path.is_symlink())
    if len(paths) > MOST_FILES:
        raise Unusable(f"{folder} holds {len(paths)} files. Give the folder that compile wrote.")
    return {path.relative_to(folder).as_posix(): read_limited(path) for path in paths}


def prove_folder(
    files: dict[str, bytes], design: Design, library: Library
) -> tuple[Proof, tuple[str, ...]]:
    """The proof of a whole folder, its report included, and the stops of its design; raises
    ValueError, PartError, KeyError for a design that cannot be proven.
    """
    report = files.pop("report.json", b"")
    proof = prove_package(files, design, library)
    if not proof.holds:
        return proof, ()
    said = release(design, library)
    stops = tuple(f.sentence for f in said.findings if f.severity == "stop")
    faults = [Fault("design.json", "", 0, 0, words) for words in made_otherwise(design, library)]
    if not faults and report != report_file(report_of(design, said, library)):
        how = "is missing" if not report else "does not say what this design gives"
        faults = [Fault("report.json", "", 0, 0, f"report.json {how}.")]
    return replace(proof, faults=tuple(faults)), stops


def made_otherwise(design: Design, library: Library) -> list[str]:
    """What of a design its own brief does not give: its circuit, made again, and the places of what
    the brief places.
    """
    try:
        circuit = run_stage(design, "circuit", library).circuit
    except (StageRefused, RecipeNotPossible, PartError) as error:
        return [f"The brief of design.json gives no circuit: {error}"]
    found = []
    for subject, made in circuit.items():
        kept = design.circuit.get(subject)
        if kept is None or kept.value != made.value:
            found.append("The circuit of design.json is not the one that its brief gives.")
    for board in design.brief.boards:
        given = fixed_seats(design.brief, board.name)
        chosen = design.choices.part_seats
        placed = design.placement.get(board.name)
        for part in placed.value.parts if placed else ():
            wanted = given.get(part.role)
            if wanted is not None and part.role not in chosen and part.seat != wanted:
                found.append(f"{part.ref} does not lie where the brief places it.")
    return found


def report_file(report: dict[str, Any]) -> bytes:
    """The report as it is written."""
    return (json.dumps(report, indent=1, ensure_ascii=False) + "\n").encode()

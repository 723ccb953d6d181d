"""The release: review, package and proof in one, refused while a stop is open or the files differ
from the design.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from loquet.core.design import Design, plans_of
from loquet.core.fabrication.layers import Layer
from loquet.core.fabrication.package import Sheets, package_files, sheets_of
from loquet.core.freshness import stale_slices
from loquet.core.handover.package import folder_of
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.panel import Panel
from loquet.core.pins import PinPlan
from loquet.core.pipeline import TITLES
from loquet.core.proof.agreement import Fault
from loquet.core.proof.gerber_reader import FileFault
from loquet.core.proof.panel_proof import prove_panel
from loquet.core.proof.proving import Proof, prove
from loquet.core.proof.scanning import Fabricated, scan
from loquet.core.proof.table_reader import read_bare_board_netlist
from loquet.core.provenance import Finding, Severity
from loquet.core.reviewing import review


@dataclass(frozen=True)
class Release:
    """Findings, and, where no stop is open, the files with their proof."""

    findings: tuple[Finding, ...]
    files: dict[str, bytes]
    proof: Proof | None

    @property
    def ready(self) -> bool:
        """Whether an order may be placed."""
        return self.proof is not None and self.proof.holds


def release(design: Design, library: Library) -> Release:
    """The package of a design, or the stops that keep it back."""
    library = project_library(design, library)
    findings = (*review(design, library), *not_made(design))
    if any(f.severity == "stop" for f in findings):
        return Release(findings, {}, None)
    sheets = sheets_of(design, library)
    files = package_files(design, sheets, library)
    proof = prove_device(files, sheets, design, library)
    said = (*findings, *legend_findings(sheets), *proof_findings(proof))
    return Release(said, files if proof.holds else {}, proof)


def not_made(design: Design) -> Iterator[Finding]:
    """A stop where a stage is not made of the present state: there is nothing to write files of."""
    stale = stale_slices(design)
    if stale:
        yield Finding(
            rule="not-made",
            severity="stop",
            station="board",
            sentence=f"Not made of the present state: {', '.join(TITLES[n] for n in stale)}.",
            way_out="Make the board.",
        )


def headers_of(design: Design) -> dict[str, PinPlan]:
    """The pin plan that each header file has to hold, by its path."""
    brief, plans = design.brief, plans_of(design)
    return {f"firmware/{folder_of(brief, b)}pins.h": plans[b.name] for b in brief.brains}


def scan_sheets(
    files: dict[str, bytes], sheets: tuple[Sheets, ...], design: Design, library: Library
) -> tuple[int, tuple[Fault, ...]]:
    """How many keys were scanned on the netlists of all boards, and what reads wrongly; nothing
    where a netlist cannot be read.
    """
    nets: dict[tuple[str, str], str] = {}
    for sheet in sheets:
        path = f"{sheet.folder}fabrication/netlist.ipc"
        try:
            contacts = read_bare_board_netlist(files.get(path, b""), path)
        except FileFault:
            return 0, ()
        nets |= {(c.ref, c.pad): c.net for c in contacts if c.net}
    components = tuple(c for sheet in sheets for c in sheet.view.circuit.components)
    made = Fabricated(components, library.parts, nets)
    count, faults = scan(design.brief, plans_of(design), made)
    return count, tuple(Fault("netlist.ipc", "", 0, 0, text) for text in faults)


def prove_device(
    files: dict[str, bytes], sheets: tuple[Sheets, ...], design: Design, library: Library
) -> Proof:
    """The proof of all boards, and every key scanned on what they carry."""
    proof = prove_sheets(files, sheets, headers_of(design))
    count, faults = scan_sheets(files, sheets, design, library)
    return replace(proof, keys=count, faults=(*proof.faults, *faults))


def prove_sheets(
    files: dict[str, bytes], sheets: tuple[Sheets, ...], headers: Mapping[str, PinPlan]
) -> Proof:
    """The proof of every board from the files' own bytes, as one; the headers are read with the
    first.
    """
    proofs = []
    for index, sheet in enumerate(sheets):
        own = {
            path.removeprefix(sheet.folder): data
            for path, data in files.items()
            if path.startswith(sheet.folder) or path.startswith("firmware/")
        }
        proof = prove(own, sheet.view, {} if index else headers, sheet.layers)
        if sheet.panel is not None:
            proof = with_panel(proof, own, sheet.panel, sheet.layers)
        named = tuple(replace(f, file=f"{sheet.folder}{f.file}") for f in proof.faults)
        proofs.append(replace(proof, faults=named))
    return Proof(
        nets=sum(p.nets for p in proofs),
        pads=sum(p.pads for p in proofs),
        gaps=sum(p.gaps for p in proofs),
        holes=sum(p.holes for p in proofs),
        faults=tuple(fault for p in proofs for fault in p.faults),
        copies=sum(p.copies for p in proofs),
    )


def with_panel(
    proof: Proof, files: Mapping[str, bytes], panel: Panel, layers: tuple[Layer, ...]
) -> Proof:
    """The proof of a board with that of its panel."""
    try:
        copies, faults = prove_panel(files, panel, layers)
    except FileFault as problem:
        copies, faults = 0, [Fault(problem.file, "", 0, 0, f"{problem}.")]
    return replace(proof, copies=copies, faults=(*proof.faults, *faults))


def prove_package(files: dict[str, bytes], design: Design, library: Library) -> Proof:
    """The proof of finished files against the design that lies with them; raises ValueError for an
    unfinished design.

    Two opinions: every file is made again from the design and compared byte for byte, with nothing
    missing and nothing more; and the files are read back by readers that know the published formats
    alone, and compared by geometry.
    """
    if stale_slices(design):
        raise ValueError("design.json does not hold a finished design")
    sheets = sheets_of(design, library)
    wanted = package_files(design, sheets, library)
    proof = prove_device(files, sheets, design, library)
    return replace(proof, faults=(*proof.faults, *package_faults(files, wanted)))


def package_faults(files: dict[str, bytes], wanted: dict[str, bytes]) -> list[Fault]:
    """Files that are missing, unknown, or not byte for byte what the design gives."""
    faults = [
        Fault(path, "", 0, 0, f"{path} is missing.")
        for path in sorted(wanted.keys() - files.keys())
    ]
    faults += [
        Fault(path, "", 0, 0, f"{path} does not belong to the package.")
        for path in sorted(files.keys() - wanted.keys())
    ]
    for path in sorted(wanted.keys() & files.keys()):
        if files[path] != wanted[path]:
            faults.append(
                Fault(
                    path,
                    "",
                    0,
                    0,
                    f"{path} is not what the design gives: it differs"
                    f" {difference(files[path], wanted[path])}.",
                )
            )
    return faults


def difference(found: bytes, wanted: bytes) -> str:
    """Where two files part, in words."""
    at = next(
        (i for i, (a, b) in enumerate(zip(found, wanted, strict=False)) if a != b),
        min(len(found), len(wanted)),
    )
    return f"from line {wanted[:at].count(10) + 1} on (byte {at})"


def proof_findings(proof: Proof) -> list[Finding]:
    """Each fault of the proof as a stop."""
    return [
        Finding(
            rule="proof",
            severity="stop",
            station="release",
            sentence=f.sentence,
            way_out="Report this: the files do not hold the design.",
            about=(f"net:{f.net}",) if f.net else (),
            x_mm=f.x_mm,
            y_mm=f.y_mm,
        )
        for f in proof.faults
    ]


def legend_findings(sheets: tuple[Sheets, ...]) -> list[Finding]:
    """What found no room on the legend, board by board; words that a person put there are to be
    looked at.
    """
    found = []
    for sheet in sheets:
        board = sheet.view.board.name
        asked = {p.text for t in sheet.view.brief.on(board) if (p := t.printed()) is not None}
        rows: tuple[tuple[Severity, list[str]], ...] = (
            ("look", [t for t in sheet.left_out if t in asked]),
            ("note", [t for t in sheet.left_out if t not in asked]),
        )
        for severity, texts in rows:
            if texts:
                found.append(
                    Finding(
                        rule="legend-room",
                        severity=severity,
                        station="release",
                        sentence=(
                            f"There is no room on the legend of {board} for: {', '.join(texts)}."
                        ),
                        way_out="Move what stands there, or read it from the assembly drawing.",
                    )
                )
    return found

"""The release: review, package and proof in one, refused while a stop is open or the files differ from the design."""

from dataclasses import dataclass

from loquet.core.design import Design
from loquet.core.fabrication.layers import plan_layers
from loquet.core.fabrication.legend import legend_of
from loquet.core.fabrication.package import package_files
from loquet.core.library import Library
from loquet.core.pipeline import board_view, slice_of, stale_slices
from loquet.core.proof.proving import Proof, prove
from loquet.core.provenance import Finding
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
    findings = tuple(review(design, library))
    if any(f.severity == "stop" for f in findings):
        return Release(findings, {}, None)
    view, plan = board_view(design, library), slice_of(design.pins)
    layers = plan_layers(view, legend_of(view))
    files = package_files(design, view, plan, layers, library)
    proof = prove(files, view, plan, layers)
    return Release((*findings, *proof_findings(proof)), files if proof.holds else {}, proof)


def prove_package(files: dict[str, bytes], design: Design, library: Library) -> Proof:
    """The proof of finished files against the design that lies with them; raises ValueError for an unfinished design."""
    if stale_slices(design):
        raise ValueError("design.json does not hold a finished design")
    return prove(files, board_view(design, library), slice_of(design.pins))


def proof_findings(proof: Proof) -> list[Finding]:
    """Each fault of the proof as a stop."""
    return [
        Finding(
            rule="proof", severity="stop", station="release", sentence=f.sentence, way_out="Report this: the files do not hold the design.",
            about=(f"net:{f.net}",) if f.net else (), x_mm=f.x_mm, y_mm=f.y_mm,
        )
        for f in proof.faults
    ]  # fmt: skip

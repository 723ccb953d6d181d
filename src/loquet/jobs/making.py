"""What a worker process does: stages and releases, from a design as text to an answer as plain values."""

import json
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import proof_figures
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, SliceName
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, run_stage
from loquet.core.placement.seating import NoRoom
from loquet.core.release import release
from loquet.core.routing import RouteProgress

Tell = Callable[[RouteProgress], bool]


@dataclass(frozen=True)
class Refusal:
    """A stage that cannot give an answer, as a sentence; errors with data do not cross processes well."""

    sentence: str


def make_slice(tell: Tell, design_text: str, name: SliceName, subject: str) -> str | Refusal:
    """One slice of a design made anew for a subject, as JSON; the same design gives the same text on any machine."""
    design = Design.model_validate_json(design_text)
    try:
        made = getattr(run_stage(design, name, bundled_library(), tell, subject), name)[subject]
    except (StageRefused, RecipeNotPossible, NoRoom, PartError) as problem:
        return Refusal(str(problem))
    text: str = made.model_dump_json()
    return text


def make_package(tell: Tell, design_text: str) -> tuple[dict[str, bytes], dict[str, Any]] | Refusal:
    """The proven files of a design with the figures of the proof, or the first stop that keeps them back."""
    result = release(Design.model_validate_json(design_text), bundled_library())
    if not result.ready or result.proof is None:
        stops = [f.sentence for f in result.findings if f.severity == "stop"]
        return Refusal(f"Not ready: {stops[0]}" if stops else "Not ready.")
    return result.files, json.loads(json.dumps(proof_figures(result.proof) or {}))

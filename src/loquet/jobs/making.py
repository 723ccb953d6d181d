"""What a worker process does: stages and releases, from a design as text to an answer as plain values."""

import json
from dataclasses import dataclass
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import proof_figures
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, SliceName
from loquet.core.parts import PartError
from loquet.core.pinning import verdict_of, ways_for
from loquet.core.pipeline import StageRefused, run_stage
from loquet.core.placement.seating import NoRoom
from loquet.core.release import release
from loquet.core.rerouting import nets_rerouted
from loquet.core.routing import RouteProgress
from loquet.jobs.telling import Tell, Told

USUAL_TRIES = 40


@dataclass(frozen=True)
class Refusal:
    """A stage that cannot give an answer, as a sentence; errors with data do not cross processes well."""

    sentence: str


def make_slice(tell: Tell, design_text: str, name: SliceName, subject: str) -> str | Refusal:
    """One slice of a design made anew for a subject, as JSON; the same design gives the same text on any machine."""
    design = Design.model_validate_json(design_text)

    def routed(seen: RouteProgress) -> bool:
        doing = f"round {seen.round}: {seen.contested} of {seen.nets} nets still share places"
        return tell(Told(doing, 1 - seen.contested / max(1, seen.nets)))

    try:
        made = getattr(run_stage(design, name, bundled_library(), routed, subject), name)[subject]
    except (StageRefused, RecipeNotPossible, NoRoom, PartError) as problem:
        return Refusal(str(problem))
    text: str = made.model_dump_json()
    return text


def make_nets(tell: Tell, design_text: str, board: str, nets: list[str]) -> str | Refusal:
    """The routing of a board with some nets made anew, as JSON."""
    design = Design.model_validate_json(design_text)

    def routed(seen: RouteProgress) -> bool:
        return tell(Told(f"round {seen.round}", 1 - seen.contested / max(1, seen.nets)))

    try:
        made = nets_rerouted(design, bundled_library(), board, frozenset(nets), routed)
    except (StageRefused, PartError) as problem:
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


def find_ways(tell: Tell, design_text: str, brain: str) -> list[dict[str, Any]] | Refusal:
    """Ways out for a brain whose pins run out, as plain values; none where they do not."""
    design, library = Design.model_validate_json(design_text), bundled_library()

    def tried(count: int) -> None:
        tell(Told(f"trying a change on the solver, number {count}", min(count / USUAL_TRIES, 0.95)))

    try:
        if verdict_of(design, library, brain) is None:
            return []
        return [way.model_dump(mode="json") for way in ways_for(design, library, brain, tried)]
    except PartError as problem:
        return Refusal(str(problem))

"""What a worker process does: stages and releases, from a design as text to an answer as plain
values.
"""

import json
from collections.abc import Callable
from dataclasses import dataclass
from time import monotonic
from typing import Any

from loquet.catalogue.library import bundled_library
from loquet.compiling import proof_figures
from loquet.core.board import Routing
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, Made, SliceName, slice_of
from loquet.core.edits import EditRefused
from loquet.core.edits.wire_edits import DrawTracks
from loquet.core.freshness import inputs_digest
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.parts import PartError
from loquet.core.pipeline import Progress, StageRefused, board_view, run_stage
from loquet.core.placement.seating import NoRoom
from loquet.core.planning.aiming import aims_of
from loquet.core.planning.pinning import verdict_of, ways_for
from loquet.core.redoing.giving_way import made_to_give_way
from loquet.core.redoing.rerouting import nets_rerouted
from loquet.core.redoing.tries import figures_of, tried
from loquet.core.release import release
from loquet.core.routing import RouteProgress
from loquet.jobs.telling import Tell, Told

USUAL_TRIES = 40
PICTURE_EVERY_S = 0.6


@dataclass(frozen=True)
class Refusal:
    """A stage that cannot give an answer, as a sentence; errors with data do not cross processes
    well.
    """

    sentence: str


def known(design: Design) -> Library:
    """The library as the project of a design knows it."""
    return project_library(design, bundled_library())


def make_slice(tell: Tell, design_text: str, name: SliceName, subject: str) -> str | Refusal:
    """One slice of a design made anew for a subject, as JSON; the same design gives the same text
    on any machine.
    """
    design = Design.model_validate_json(design_text)

    made_from = inputs_digest(design, name, subject)

    def clean(routing: Routing) -> str:
        text: str = Made[Routing](made_from=made_from, value=routing).model_dump_json()
        return text

    try:
        routed = picturing(tell, subject, clean)
        made = getattr(run_stage(design, name, known(design), routed, subject), name)[subject]
    except (StageRefused, RecipeNotPossible, NoRoom, PartError) as problem:
        return Refusal(str(problem))
    text: str = made.model_dump_json()
    return text


def picturing(
    tell: Tell, board: str = "", clean: Callable[[Routing], str] = lambda _: ""
) -> Progress:
    """Tells of routing as it goes, now and then with a picture of it, and with the text of what is
    `clean` and complete; in words alone where no board is named.
    """
    last = 0.0

    def told(seen: RouteProgress) -> bool:
        nonlocal last
        doing = f"round {seen.round}: {seen.contested} of {seen.nets} nets still share places"
        said = Told(
            "shortening the ways" if seen.clean else doing, 1 - seen.contested / max(1, seen.nets)
        )
        if not board or monotonic() - last < PICTURE_EVERY_S:
            return tell(said)
        state = seen.state()
        last = monotonic()
        whole = seen.clean and not state.open_links
        return tell(
            said._replace(picture=picture_of(board, state), keep=clean(state) if whole else "")
        )

    return told


def picture_of(board: str, routing: Routing) -> str:
    """Tracks as (far side?, from, to, width) and vias, in mm, as JSON."""
    tracks = [
        (int(t.far), *(round(v / 1e6, 2) for v in (t.x1_nm, t.y1_nm, t.x2_nm, t.y2_nm, t.width_nm)))
        for t in routing.tracks
    ]
    vias = [(round(v.x_nm / 1e6, 2), round(v.y_nm / 1e6, 2)) for v in routing.vias]
    return json.dumps({"board": board, "tracks": tracks, "vias": vias})


def make_try(tell: Tell, design_text: str, board: str, number: int) -> dict[str, Any] | Refusal:
    """A board in one arrangement: its figures, what it looks like, and its slices as JSON."""
    design = Design.model_validate_json(design_text)
    library = known(design)
    try:
        made = tried(design, library, board, number, picturing(tell))
        figures = figures_of(made, library, board)
    except (StageRefused, NoRoom, PartError) as problem:
        return Refusal(str(problem))
    view = board_view(made, library, board)
    bodies = [
        (int(part.seat.far), *part.seat.rect(view.patterns[part.ref].courtyard))
        for part in view.placement.parts
    ]
    return {
        "figures": figures.model_dump(),
        "picture": (
            json.loads(picture_of(board, slice_of(made.routing, board)))
            | {"parts": [(far, *(round(v / 1e6, 2) for v in rect)) for far, *rect in bodies]}
        ),
        "slices": {
            name: getattr(made, name)[board].model_dump_json()
            for name in ("placement", "routing", "pour")
        },
    }


def make_nets(tell: Tell, design_text: str, board: str, nets: list[str]) -> str | Refusal:
    """The routing of a board with some nets made anew, as JSON."""
    design = Design.model_validate_json(design_text)

    try:
        routed = picturing(tell, board)
        made = nets_rerouted(design, known(design), board, frozenset(nets), routed)
    except (StageRefused, PartError) as problem:
        return Refusal(str(problem))
    text: str = made.model_dump_json()
    return text


def make_way(
    tell: Tell, design_text: str, drawing_text: str
) -> tuple[str, tuple[str, ...]] | Refusal:
    """The routing of a board after drawing where others lie, as JSON, and the nets that were led
    about it.
    """
    design = Design.model_validate_json(design_text)
    drawing = DrawTracks.model_validate_json(drawing_text)
    try:
        routed = picturing(tell, drawing.board)
        made, yielding = made_to_give_way(design, known(design), drawing, routed)
    except (EditRefused, StageRefused, PartError) as problem:
        return Refusal(str(problem))
    return made.routing[drawing.board].model_dump_json(), yielding


def make_package(tell: Tell, design_text: str) -> tuple[dict[str, bytes], dict[str, Any]] | Refusal:
    """The proven files of a design with the figures of the proof, or the first stop that keeps them
    back.
    """
    design = Design.model_validate_json(design_text)
    result = release(design, known(design))
    if not result.ready or result.proof is None:
        stops = [f.sentence for f in result.findings if f.severity == "stop"]
        return Refusal(f"Not ready: {stops[0]}" if stops else "Not ready.")
    return result.files, json.loads(json.dumps(proof_figures(result.proof) or {}))


def find_aims(tell: Tell, design_text: str) -> list[dict[str, Any]] | Refusal:
    """What solving the pins for the placed board would gain, brain by brain, as plain values."""
    design = Design.model_validate_json(design_text)
    try:
        aims = aims_of(design, known(design))
    except (StageRefused, PartError) as problem:
        return Refusal(str(problem))
    return [aim.model_dump(mode="json") for aim in aims]


def find_ways(tell: Tell, design_text: str, brain: str) -> list[dict[str, Any]] | Refusal:
    """Ways out for a brain whose pins run out, as plain values; none where they do not."""
    design = Design.model_validate_json(design_text)
    library = known(design)

    def tried(count: int) -> None:
        tell(Told(f"trying a change on the solver, number {count}", min(count / USUAL_TRIES, 0.95)))

    try:
        if verdict_of(design, library, brain) is None:
            return []
        return [way.model_dump(mode="json") for way in ways_for(design, library, brain, tried)]
    except PartError as problem:
        return Refusal(str(problem))

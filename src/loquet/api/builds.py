"""What the Build station shows of a board: steps, heating, first power."""

from typing import Annotated, Literal

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from loquet.api.boards import board_named, placed_view
from loquet.api.building import suspects_of
from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.api.pastes import pastes_for
from loquet.core.build.expected import FirstPower, first_power
from loquet.core.build.faults import UNSTEADY, function_of
from loquet.core.build.finding import Suspects
from loquet.core.build.reflow import (
    BadCurve,
    Check,
    Point,
    checked_curve,
    profile,
    read_curve,
)
from loquet.core.build.steps import Step, build_steps
from loquet.core.parts.paste import Paste
from loquet.core.stack.stacking import stack_of
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["build"])
MOST_CURVE, USUAL_PASTE = 600_000, "lead-free"


class BuildView(BaseModel):
    """How a board is built, heated and powered for the first time; the functions that a symptom may
    name.
    """

    board: str
    steps: tuple[Step, ...]
    paste: Paste
    pastes: list[Paste]
    profile: tuple[Point, ...]
    power: FirstPower
    functions: list[str]
    keys: list[str]
    sticks: list[str]


class CurveWanted(BaseModel):
    """A recorded curve as CSV."""

    paste: Annotated[str, Field(max_length=80)] = USUAL_PASTE
    csv: Annotated[str, Field(max_length=MOST_CURVE)]


class CurveView(BaseModel):
    """A recorded curve and every limit held against it."""

    points: tuple[Point, ...]
    checks: tuple[Check, ...]


@router.get("/projects/{project_id}/build")
def get_build(
    project_id: int,
    session: SessionNow,
    context: ContextNow,
    board: str = "",
    way: Literal["hand", "plate"] = "hand",
    paste: Annotated[str, Query(max_length=80)] = USUAL_PASTE,
) -> BuildView:
    """How a board is built; 404 before it is placed."""
    design = load_design(session, head_of(session, project_id).version)
    view = placed_view(design, context, board_named(design, board))
    library = context.known(design)
    stack = stack_of(view, library, design.choices.stack, design.brief.making.thickness_mm)
    suspects, faults = suspects_of(design, context.known(design))
    known = pastes_for(session, context)
    chosen = known.get(paste) or known[USUAL_PASTE]
    things = design.brief.things
    return BuildView(
        board=view.board.name,
        steps=build_steps(view, library, stack, hand=way == "hand"),
        paste=chosen,
        pastes=list(known.values()),
        profile=profile(chosen),
        power=first_power(suspects.desk, faults),
        functions=functions_of(suspects),
        keys=[t.role(c.piece) for t in things for c in t.contacts()],
        sticks=[t.name for t in things if len(t.axes()) > 1],
    )


def functions_of(suspects: Suspects) -> list[str]:
    """What a person may see not working."""
    desk = suspects.desk
    found = {function_of(desk, c) for c in desk.circuit.components} - {"", UNSTEADY}
    return [*sorted(found), UNSTEADY]


@router.post("/reflow")
def check_curve(wanted: CurveWanted, session: SessionNow, context: ContextNow) -> CurveView:
    """A recorded curve held against the limits of its paste."""
    known = pastes_for(session, context)
    if wanted.paste not in known:
        raise Refused(f"There is no paste '{wanted.paste}'.", "Choose one of the list.", 404)
    try:
        points = read_curve(wanted.csv.encode())
    except BadCurve as error:
        raise Refused(str(error), "") from None
    return CurveView(points=points, checks=checked_curve(points, known[wanted.paste]))

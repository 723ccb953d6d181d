"""Random walks of edits on a stored board: what is remembered always equals a full check, and
undoing everything gives the same bytes.

`LOQUET_WALKS` says how many walks of 25 steps; 80 of them are 2,000 edits.
"""

import os
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy.orm import Session

from loquet.api.describing import all_findings, worked_out
from loquet.core.design import Design, slice_of
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.pipeline import StageRefused, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.demo.scenario import demo_brief
from loquet.store.designs import (
    commit_version,
    create_project,
    head_of,
    load_design,
    redo,
    undo,
)

WALKS = int(os.environ.get("LOQUET_WALKS", "3"))
STEPS = 25
MM = 1_000_000


@dataclass(frozen=True)
class Step:
    """A step of a walk: what is done, with three numbers that choose what with."""

    what: str
    which: int
    x: int
    y: int


STEP = st.builds(
    Step,
    st.sampled_from(
        [
            "seat",
            "seat",
            "turn",
            "flip",
            "release",
            "draw",
            "cut",
            "cut",
            "keep",
            "free",
            "move",
            "arrange",
            "area",
            "make",
            "undo",
            "undo",
            "redo",
        ]
    ),
    st.integers(0, 1000),
    st.integers(-20, 20),
    st.integers(-20, 20),
)


@pytest.fixture(scope="module")
def lamp(library: Library) -> Design:
    """A small board, made up to its pour."""
    return bring_up_to_date(Design(brief=demo_brief("pocket-lamp")), library)


def edit_of(step: Step, design: Design) -> dict[str, Any] | None:
    """The edit that a step asks for, on the design as it stands; None where there is nothing to do
    it with.
    """
    if step.what == "move":
        placed = [t for t in design.brief.things if t.place]
        thing = placed[step.which % len(placed)]
        assert thing.place
        return {
            "kind": "move-thing",
            "name": thing.name,
            "x_mm": max(thing.place.x_mm + step.x / 4, 0),
            "y_mm": max(thing.place.y_mm + step.y / 4, 0),
        }
    if step.what in ("seat", "turn", "flip", "release", "arrange"):
        return seat_of(step, design)
    if step.what == "area":
        return area_of(step, design)
    return wires_of(step, design)


def area_of(step: Step, design: Design) -> dict[str, Any]:
    """A square about a part poured with a net, an area taken out, tear-drops wanted or not."""
    board = design.brief.boards[0].name
    if step.y % 3 == 0:
        return {"kind": "set-tear-drops", "board": board, "wanted": step.x % 2 == 0}
    if step.y % 3 == 1:
        return {"kind": "drop-pour-area", "board": board, "index": 0}
    parts, nets = slice_of(design.placement).parts, slice_of(design.circuit).nets
    part, half = parts[step.which % len(parts)], (2 + abs(step.x)) * MM // 4
    ring = [
        (part.x_nm + a * half, part.y_nm + b * half)
        for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))
    ]
    net = nets[step.which % len(nets)].name
    area = {"net": net, "far": step.x % 2 == 0, "ring": ring}
    return {"kind": "add-pour-area", "board": board, "area": area}


def seat_of(step: Step, design: Design) -> dict[str, Any]:
    """A part put, turned, turned over or given back."""
    parts = slice_of(design.placement).parts
    part = parts[step.which % len(parts)]
    if step.what == "arrange":
        roles = [parts[(step.which + i) % len(parts)].role for i in range(2 + step.x % 3)]
        if step.y % 8 == 6:
            steps = {"columns": 1 + step.x % 2, "step_x_mm": 3.5, "step_y_mm": -2.5}
            return {"kind": "array-parts", "roles": roles, **steps}
        if step.y % 8 == 7:
            return {"kind": "mirror-parts", "roles": roles}
        how = ("row", "column", "spread across", "spread up", "turn alike", "swap")[step.y % 8]
        return {"kind": "arrange-parts", "roles": roles, "how": how}
    if step.what == "release":
        return {"kind": "release-part", "role": part.role}
    return {
        "kind": "seat-part",
        "role": part.role,
        "x_mm": max(part.x_nm / MM + step.x / 4, 0),
        "y_mm": max(part.y_nm / MM + step.y / 4, 0),
        "turn_deg": (part.turn_deg + (step.x * 15 if step.what == "turn" else 0)) % 360,
        "far": part.far is not (step.what == "flip"),
    }


def wires_of(step: Step, design: Design) -> dict[str, Any] | None:
    """A track drawn or cut, a net kept or given back."""
    tracks = slice_of(design.routing).tracks
    if step.what == "keep":
        return {"kind": "keep-nets", "board": "main", "nets": [tracks[0].net] if tracks else []}
    if step.what == "free":
        return {"kind": "release-nets", "board": "main"}
    if not tracks:
        return None
    track = tracks[step.which % len(tracks)]
    plain = track.model_dump(mode="json")
    if step.what == "cut":
        return {"kind": "cut-track", "board": "main", "track": plain}
    end = {"x2_nm": track.x1_nm + step.x * 250_000, "y2_nm": track.y1_nm + step.y * 250_000}
    return {"kind": "draw-tracks", "board": "main", "tracks": [{**plain, **end}]}


def full_check(design: Design, library: Library) -> list[str]:
    """The findings of a design made again from its bytes, so that nothing that is remembered of its
    objects is known.
    """
    again = Design.model_validate_json(design.model_dump_json())
    return [f.model_dump_json() for f in worked_out(again, library)]


@pytest.mark.filterwarnings("ignore:Generating overly large repr")
@settings(
    max_examples=WALKS,
    deadline=None,
    derandomize=WALKS < 10,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
@given(steps=st.lists(STEP, min_size=STEPS, max_size=STEPS))
def test_walks(session: Session, lamp: Design, library: Library, steps: list[Step]) -> None:
    """After every step the findings shown are those of a full check; at the end all is undone to
    the byte, and done again.
    """
    project = create_project(session, lamp.brief, "Ottilie", datetime.now(UTC))
    commit_version(
        session, head_of(session, project).revision, lamp, "Made", "Ottilie", datetime.now(UTC)
    )
    session.flush()
    first = now(session, project).model_dump_json()
    for step in steps:
        taken(session, project, step, library)
        design = now(session, project)
        shown = [f.model_dump_json() for f in all_findings(design, library)]
        assert shown == full_check(design, library), step
    while redo(session, project):
        session.flush()
    last = now(session, project).model_dump_json()
    while head_of(session, project).version.label != "Made" and undo(session, project):
        session.flush()
    assert now(session, project).model_dump_json() == first
    while redo(session, project):
        session.flush()
    assert now(session, project).model_dump_json() == last


def now(session: Session, project: int) -> Design:
    """The design as it is stored."""
    return load_design(session, head_of(session, project).version)


def taken(session: Session, project: int, step: Step, library: Library) -> None:
    """One step, as far as it can be taken."""
    head = head_of(session, project)
    if step.what == "undo":
        if head.version.label != "Made":
            undo(session, project)
    elif step.what == "redo":
        redo(session, project)
    else:
        before = load_design(session, head.version)
        after = made(before, library) if step.what == "make" else changed(step, before)
        if after is not None:
            commit_version(session, head.revision, after, step.what, "Ottilie", datetime.now(UTC))
    session.flush()


def made(before: Design, library: Library) -> Design | None:
    """The design with everything made anew; None where a stage refuses it in words."""
    try:
        return bring_up_to_date(before, library)
    except (StageRefused, NoRoom) as said:
        assert str(said)
        return None


def changed(step: Step, before: Design) -> Design | None:
    """The design after an edit; None where it is refused."""
    wanted = edit_of(step, before)
    if wanted is None:
        return None
    try:
        return apply(before, EDITS.validate_python(wanted))
    except EditRefused as said:
        assert said.way_out
        return None

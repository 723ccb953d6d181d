"""What the Brief and Pins stations ask beyond the chip's drawing: verdict, schemes, hand-over
files, tray, presets.
"""

import io
import zipfile
from datetime import UTC, datetime
from typing import Literal

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, TypeAdapter

from loquet.api.context import AUTHOR, ContextNow, SessionNow
from loquet.api.describing import head_now
from loquet.api.errors import Refused
from loquet.api.shapes import DesignHead
from loquet.api.stations import BrainAsked
from loquet.catalogue.presets import presets
from loquet.core.brief import Brief
from loquet.core.design import Design, plans_of
from loquet.core.edits import apply
from loquet.core.edits.pin_edits import TakePlacedTargets
from loquet.core.freshness import stale_slices
from loquet.core.handover.package import device_files
from loquet.core.pins.schemes import SchemeCard
from loquet.core.pins.ways_out import WayOut
from loquet.core.planning.aiming import Aim, aims_key
from loquet.core.planning.pinning import (
    Conflict,
    of_brain,
    placed_targets,
    schemes_of,
    sums,
    verdict_of,
    ways_key,
)
from loquet.core.provenance import Working
from loquet.store.answers import answer_of
from loquet.store.designs import commit_version, head_of, load_design

router = APIRouter(prefix="/api", tags=["planning"])
WAYS = TypeAdapter(list[WayOut])
AIMS = TypeAdapter(list[Aim])
TYPES = {"pdf": "application/pdf", "json": "application/json", "bin": "application/octet-stream"}


class PinVerdict(BaseModel):
    """Whether the brief fits its chip; if not, why, and what to do: `ways_out` is nothing until a
    job "ways out" has looked for them.
    """

    fits: bool
    conflict: Conflict | None
    ways_out: list[WayOut] | None


@router.get("/projects/{project_id}/pin-verdict")
def get_pin_verdict(
    project_id: int, session: SessionNow, context: ContextNow, brain: BrainAsked = ""
) -> PinVerdict:
    """The verdict on what a brain reads as it stands, with the ways out that were found for it."""
    design = load_design(session, head_of(session, project_id).version)
    conflict = verdict_of(design, context.known(design), brain)
    ways: list[WayOut] | None = []
    if conflict:
        kept = answer_of(session, ways_key(design, context.known(design), brain))
        ways = None if kept is None else WAYS.validate_json(kept)
    return PinVerdict(fits=conflict is None, conflict=conflict, ways_out=ways)


@router.get("/projects/{project_id}/aim")
def get_aims(project_id: int, session: SessionNow, context: ContextNow) -> list[Aim]:
    """What the pins would gain from being solved for the placed board, where a job "aim" has looked
    for it.
    """
    design = load_design(session, head_of(session, project_id).version)
    if not design.brief.brains or not plans_of(design):
        return []
    known = answer_of(session, aims_key(design, context.known(design)))
    return AIMS.validate_json(known) if known else []


@router.post("/projects/{project_id}/aim", response_model=DesignHead)
def aim_at_board(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """Take the pads of the placed board as targets for the pins; refused before it is placed."""
    head = head_of(session, project_id, lock=True)
    design = load_design(session, head.version)
    targets = placed_targets(design, context.known(design))
    if not targets:
        raise Refused("The board is not placed for this circuit.", "Place it first.")
    edit = TakePlacedTargets(targets=targets)
    commit_version(
        session, head.revision, apply(design, edit), edit.label, AUTHOR, datetime.now(UTC)
    )
    session.flush()
    return head_now(session, project_id, context)


class SchemesView(BaseModel):
    """All ways to read the keys, and the sums on buses and axes."""

    schemes: list[SchemeCard]
    sums: list[Working]


@router.get("/projects/{project_id}/schemes")
def get_schemes(
    project_id: int, session: SessionNow, context: ContextNow, brain: BrainAsked = ""
) -> SchemesView:
    """Schemes side by side for the keys of a brain."""
    design = load_design(session, head_of(session, project_id).version)
    return SchemesView(
        schemes=list(schemes_of(design, context.known(design), brain)),
        sums=list(sums(of_brain(design, brain), context.known(design))),
    )


class HandoverFile(BaseModel):
    """A file that comes out of the pin plan."""

    name: str
    bytes: int


def files_of(design: Design) -> dict[str, bytes]:
    """The hand-over files of a design whose plan is fresh; raises Refused."""
    if not design.pins or "pins" in stale_slices(design):
        raise Refused("The pins are not solved for this brief.", "Solve them first.", 404)
    return device_files(design.brief, plans_of(design))


@router.get("/projects/{project_id}/handover")
def list_handover(project_id: int, session: SessionNow) -> list[HandoverFile]:
    """Header, map, report, overlay and wiring card, by name."""
    files = files_of(load_design(session, head_of(session, project_id).version))
    return [HandoverFile(name=name, bytes=len(data)) for name, data in files.items()]


@router.get("/projects/{project_id}/handover/{name:path}", response_class=Response)
def get_handover(project_id: int, name: str, session: SessionNow) -> Response:
    """One file, or all of them as `handover.zip`."""
    design = load_design(session, head_of(session, project_id).version)
    files = files_of(design)
    if name == "handover.zip":
        data = zipped(files)
    elif name in files:
        data = files[name]
    else:
        raise Refused(f"There is no file '{name[:40]}'.", "Choose one of the list.", 404)
    kind = TYPES.get(
        name.rsplit(".", 1)[-1],
        "application/zip" if name.endswith(".zip") else "text/plain; charset=utf-8",
    )
    shown = f"{design.brief.name.replace(' ', '-')}-{name.replace('/', '-')}"
    return Response(
        data, media_type=kind, headers={"Content-Disposition": f'attachment; filename="{shown}"'}
    )


def zipped(files: dict[str, bytes]) -> bytes:
    """Files as one archive with a fixed date, so that the same plan gives the same bytes."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, data in files.items():
            archive.writestr(zipfile.ZipInfo(name, (2020, 1, 1, 0, 0, 0)), data)
    return out.getvalue()


class TrayPart(BaseModel):
    """A part that a thing can be."""

    id: str
    kind: str
    description: str
    price_cents: float


class TrayScreen(BaseModel):
    """A screen that can be put on."""

    id: str
    bus: Literal["two-wire", "one-way serial", "parallel colour"]
    description: str
    width_mm: float
    height_mm: float


class TrayView(BaseModel):
    """Parts and screens with their words and prices."""

    parts: list[TrayPart]
    screens: list[TrayScreen]


@router.get("/tray")
def get_tray(context: ContextNow) -> TrayView:
    """All parts, and screens."""
    return TrayView(
        parts=[
            TrayPart(id=p.id, kind=p.kind, description=p.description, price_cents=p.price_cents)
            for p in context.library.parts.values()
        ],
        screens=[
            TrayScreen(
                id=s.id,
                bus=s.bus,
                description=s.description,
                width_mm=s.width_mm,
                height_mm=s.height_mm,
            )
            for s in context.library.screens.values()
        ],
    )


class PresetView(BaseModel):
    """A starting point."""

    id: str
    title: str
    about: str
    brief: Brief


@router.get("/presets")
def list_presets() -> list[PresetView]:
    """Starting points for a new project."""
    return [PresetView(id=p.id, title=p.title, about=p.about, brief=p.brief) for p in presets()]

"""What the Circuit station shows: sheets, components, nets, figures, and what was changed by
hand.
"""

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel

from loquet.api.board_shapes import NetView
from loquet.api.context import ContextNow, SessionNow
from loquet.api.errors import Refused
from loquet.core.circuit import Circuit, Component
from loquet.core.circuit.by_hand import HandChange
from loquet.core.circuit.nodal import Curve
from loquet.core.design import slice_of
from loquet.core.library import Library
from loquet.core.lookup.curving import curves_for
from loquet.core.plain.remembering import Remembered
from loquet.core.provenance import Working
from loquet.core.sheets import Area, areas_of, title_of, write_sheets
from loquet.core.sheets.faces import names_of
from loquet.core.sheets.gathered import Gathered, gathered
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["circuit"])


class PinView(BaseModel):
    """A pin of a component: its number, its name, and its net; none where it is open."""

    pad: str
    name: str
    net: str


class ComponentView(BaseModel):
    """A component in the Circuit station; `working` is the figure that gives its value."""

    ref: str
    role: str
    thing: str
    board: str
    block: str
    description: str
    value: str
    size: str
    purpose: str
    pins: list[PinView]
    evidence: str
    working: str


class SheetView(BaseModel):
    """A block as it is drawn, under its title; sizes in mm.

    `workings` are the figures that set its values.
    """

    title: str
    block: str
    board: str
    width_mm: float
    height_mm: float
    drawn: Gathered
    workings: list[str]


class ChangeView(BaseModel):
    """A change by hand, in words."""

    words: str
    change: HandChange


class CircuitView(BaseModel):
    """The Circuit station."""

    sheets: list[SheetView]
    components: list[ComponentView]
    nets: list[NetView]
    workings: list[Working]
    curves: list[Curve]
    changes: list[ChangeView]
    parts: list[tuple[str, str]]


CURVES: Remembered[list[Curve]] = Remembered(16)
DRAWN: Remembered[list[SheetView]] = Remembered(16)


@router.get("/projects/{project_id}/circuit")
def get_circuit(project_id: int, session: SessionNow, context: ContextNow) -> CircuitView:
    """Sheets, components, nets and workings; all empty before the circuit is made."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        return CircuitView(
            sheets=[], components=[], nets=[], workings=[], curves=[], changes=[], parts=[]
        )
    circuit, library = slice_of(design.circuit), context.known(design)
    return CircuitView(
        sheets=sheets_of(circuit, library),
        components=[describe_component(c, library) for c in circuit.components],
        nets=[NetView(name=n.name, kind=n.kind, pads=list(n.pads)) for n in circuit.nets],
        workings=list(circuit.workings),
        curves=CURVES.of(
            (design.brief, circuit, library),
            lambda: list(curves_for(design.brief, circuit, library)),
        ),
        changes=[ChangeView(words=c.words, change=c) for c in design.choices.by_hand],
        parts=sorted((p.id, p.description) for p in library.parts.values()),
    )


def sheets_of(circuit: Circuit, library: Library) -> list[SheetView]:
    """The sheets of a circuit, drawn once."""
    return DRAWN.of(
        (circuit, library), lambda: [describe_sheet(area) for area in areas_of(circuit, library)]
    )


def describe_sheet(area: Area) -> SheetView:
    """An area under its title."""
    return SheetView(
        title=title_of(area.block),
        block=area.block,
        board=area.board,
        width_mm=area.width_mm,
        height_mm=area.height_mm,
        drawn=gathered(area),
        workings=list(area.workings),
    )


def describe_component(component: Component, library: Library) -> ComponentView:
    """A component with its part's words and all pins that it has."""
    _, names, numbers = names_of(component, library)
    if component.is_chip:
        chip = library.find_chip(component.part[5:])
        description, size, evidence = f"Microcontroller {chip.name}", chip.package, chip.data_source
    else:
        part = library.parts[component.part]
        description, size, evidence = part.description, part.size_codes, part.evidence_text
    return ComponentView(
        ref=component.ref,
        role=component.role,
        thing=component.thing,
        board=component.board,
        block=component.block,
        description=description,
        value=component.value,
        size=size,
        purpose=component.purpose,
        pins=[
            PinView(pad=pad, name=names.get(pad, ""), net=component.pads.get(pad, ""))
            for pad in numbers
        ],
        evidence=evidence,
        working=component.working,
    )


@router.get("/projects/{project_id}/sheets", response_class=Response)
def get_sheets(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The sheets as pages of A4; refused before there is a circuit."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        raise Refused("There is no circuit yet.", "Make it first.", 404)
    library = context.known(design)
    data = write_sheets(slice_of(design.circuit), library, design.brief.name)
    headers = {"Content-Disposition": 'inline; filename="circuit-sheets.pdf"'}
    return Response(data, media_type="application/pdf", headers=headers)

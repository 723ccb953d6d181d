"""What the Parts station shows."""

from fastapi import APIRouter
from pydantic import BaseModel

from loquet.api.context import ContextNow, SessionNow
from loquet.core.design import slice_of
from loquet.core.drawers import DrawerLine, part_lines
from loquet.core.kit import Kit, kit_of
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["parts"])


class Drawers(BaseModel):
    """The bench: what is on the boards (nothing before there is a circuit), and the kit."""

    on_board: list[DrawerLine]
    kit: Kit
    quantity: int


@router.get("/projects/{project_id}/parts")
def get_parts(project_id: int, session: SessionNow, context: ContextNow) -> Drawers:
    """Parts of the circuit as it was made last, and the kit as the brief stands."""
    design = load_design(session, head_of(session, project_id).version)
    lines: tuple[DrawerLine, ...] = ()
    if design.circuit:
        circuit = slice_of(design.circuit)
        lines = part_lines(circuit, context.library, design.brief.quantity)
    return Drawers(
        on_board=list(lines), kit=kit_of(design, context.library), quantity=design.brief.quantity
    )

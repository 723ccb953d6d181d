"""What the Power station draws."""

from fastapi import APIRouter

from loquet.api.context import ContextNow, SessionNow
from loquet.core.circuit.protecting import Protection, protections
from loquet.core.design import slice_of
from loquet.core.lookup.switched_on import power_with
from loquet.core.power.plan import PowerPlan
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["power"])


@router.get("/projects/{project_id}/power")
def get_power(project_id: int, session: SessionNow, context: ContextNow) -> PowerPlan:
    """Sources, rails, loads and the ways between them, as the brief stands; run times as its
    circuit does.
    """
    design = load_design(session, head_of(session, project_id).version)
    return power_with(design, context.known(design))


@router.get("/projects/{project_id}/protections")
def get_protections(
    project_id: int, session: SessionNow, context: ContextNow
) -> tuple[Protection, ...]:
    """What protects the device; nothing before there is a circuit."""
    design = load_design(session, head_of(session, project_id).version)
    if not design.circuit:
        return ()
    parts, changes = context.known(design).parts, design.choices.by_hand
    return protections(design.brief, slice_of(design.circuit), parts, changes)

"""What the Power station draws."""

from fastapi import APIRouter

from loquet.api.context import ContextNow, SessionNow
from loquet.core.lookup.powering import power_of
from loquet.core.power.plan import PowerPlan
from loquet.store.designs import head_of, load_design

router = APIRouter(prefix="/api", tags=["power"])


@router.get("/projects/{project_id}/power")
def get_power(project_id: int, session: SessionNow, context: ContextNow) -> PowerPlan:
    """Sources, rails, loads and the ways between them, as the brief stands."""
    design = load_design(session, head_of(session, project_id).version)
    return power_of(design.brief, context.known(design))

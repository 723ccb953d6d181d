"""The power of a design with the library at hand: the plan, and how low each rail may fall for the
brains on it.
"""

from loquet.core.brief import Brief
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.parts import PartError
from loquet.core.plain.remembering import Remembered
from loquet.core.power import rail_of
from loquet.core.power.budget import Made, loads_of, rails_made
from loquet.core.power.lasting import peak_at_source
from loquet.core.power.plan import PowerPlan, power_plan
from loquet.core.power.plugged import plugged

PLANS: Remembered[PowerPlan] = Remembered(64)
MADE: Remembered[tuple[Made, ...]] = Remembered(64)


def made_of(brief: Brief, library: Library) -> tuple[Made, ...]:
    """Every rail of a brief with what makes it; kept as long as the brief is."""
    return MADE.of(
        (brief, library),
        lambda: rails_made(brief, library.parts, loads_of(brief, library.parts, library.screens)),
    )


def lead_ma(made: Made, brief: Brief, library: Library) -> float:
    """The most that the leads of a source carry: what it gives with everything on, or what charges
    it.
    """
    at_plug = plugged(brief, made, library.parts)
    return max(peak_at_source(made), at_plug.charge_ma if at_plug else 0.0)


def power_of(brief: Brief, library: Library) -> PowerPlan:
    """The power plan of a brief; kept as long as the brief is."""
    return PLANS.of(
        (brief, library),
        lambda: power_plan(brief, library.parts, library.screens, lowest_of(brief, library)),
    )


def lowest_of(brief: Brief, library: Library) -> dict[str, float]:
    """By rail, the volts below which a brain on it stops; a brain whose limits are not known says
    nothing.
    """
    found: dict[str, float] = {}
    for brain in brief.brains:
        try:
            chip = chip_for(brief, library, brain.name)
        except PartError:
            continue
        if chip.supply_min_mv is not None:
            rail = rail_of(brief, brain).name
            found[rail] = max(found.get(rail, 0.0), chip.supply_min_mv / 1000)
    return found

"""Compiling the fast loops and baking the chip index at set-up, so that the first click does not
wait.
"""

from loquet.catalogue.library import bundled_chips, bundled_library
from loquet.core.design import Design, slice_of
from loquet.core.lookup.switched_on import energised_of, planned_of
from loquet.core.pipeline import bring_up_to_date
from loquet.demo.scenario import dusk_remote


def warm() -> None:
    """Route the demo board once, switch it on, and list the chips."""
    library = bundled_library()
    design = bring_up_to_date(Design(brief=dusk_remote()), library)
    brains = planned_of(design, library)
    energised_of(design.brief, slice_of(design.circuit), library, brains)
    bundled_chips()

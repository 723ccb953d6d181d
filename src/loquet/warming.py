"""Compiling the fast loops and baking the chip index at set-up, so that the first click does not
wait.
"""

from loquet.catalogue.library import bundled_chips, bundled_library
from loquet.core.design import Design
from loquet.core.pipeline import bring_up_to_date
from loquet.demo.scenario import dusk_remote


def warm() -> None:
    """Route the demo board once and list the chips."""
    bring_up_to_date(Design(brief=dusk_remote()), bundled_library())
    bundled_chips()

"""What a part of the shelf asks, that is joined by hand."""

from loquet.core.brief.kinds.shelf_part import ShelfPart
from loquet.core.pins.asking import Asking
from loquet.core.pins.model import Need


def needs(thing: ShelfPart, ask: Asking) -> list[Need]:
    """A line for every terminal that goes to the brain; the bus is shared with the others."""
    return [
        ask.need(name, "output" if where == "from chip" else "input", f"{thing.name} {name}")
        for name, where in thing.asked_lines().items()
    ]


NEEDS = (ShelfPart, needs)

"""A brain of a brief and its chip."""

from loquet.core.brief import Brief, PinTable, Thing
from loquet.core.library import Library
from loquet.core.parts import Chip, PartError
from loquet.core.pins.own_chip import chip_of_table, chip_on


def brain_of(brief: Brief, name: str = "") -> Thing:
    """The brain of that name, or the first; raises PartError where there is none."""
    found = next((b for b in brief.brains if name in ("", b.name)), None)
    if found is None:
        raise PartError(name or "chip", "is missing", "Add a microcontroller at the Brief.")
    return found


def chip_of(table: PinTable, library: Library) -> Chip:
    """The chip of a table, on the package that it names where the shelf has that; raises
    PartError.
    """
    part = library.parts.get(table.package) if table.package else None
    return chip_on(table, part) if part else chip_of_table(table)


def chip_for(brief: Brief, library: Library, name: str = "") -> Chip:
    """The chip of a brain (the first, unless named): of the open data set, or made of a table on
    the shelf; raises PartError.
    """
    brain = brain_of(brief, name)
    named = str(getattr(brain, "table", ""))
    if named:
        table = brief.shelf.pin_table(named)
        if table is None:
            raise PartError(named, "is not on the shelf", "Read its pin table again.")
        return chip_of(table, library)
    chip = library.find_chip(brain.part)
    if chip.module != brain.READY_MADE:
        words = ("a ready module", "a bare chip")
        what, other = words if chip.module else words[::-1]
        raise PartError(chip.name, f"is {what}, and {brain.name} is {other}", f"Take {other}.")
    return chip

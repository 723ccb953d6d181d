"""The library as one project knows it: parts of its own, parts that it prefers, and pin orders that
somebody measured and that differ from the catalogue's.
"""

from collections.abc import Mapping
from dataclasses import replace

from loquet.core.brief import PinTable
from loquet.core.design import Choices, Design
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_of
from loquet.core.parts import Chip, Part
from loquet.core.parts.own import PartShelf
from loquet.core.plain.remembering import Remembered

KNOWN: Remembered[Library] = Remembered(16)
Order = Mapping[str, str]


def project_library(design: Design, library: Library) -> Library:
    """The library with the parts and the house that the project took, those it prefers before all
    others, and every measured pin order in place of the catalogue's; an order that does not name
    the pins that the part has is left out (`measured-order` says so).
    """
    choices, tables = design.choices, design.brief.shelf
    own = choices.pin_orders or choices.shelf or choices.preferred or tables.pin_tables
    if library.known_by or not (own or choices.own_house):
        return library
    about = (
        *(choices.pin_orders, choices.shelf, choices.preferred, choices.own_house),
        *(tables, library),
    )
    return KNOWN.of(about, lambda: known(choices, tables.pin_tables, library))


def known(choices: Choices, tables: tuple[PinTable, ...], library: Library) -> Library:
    """The library with all of that."""
    shelf = library_with(choices.shelf, library, tuple(choices.preferred.values()))
    ordered = with_orders(choices.pin_orders, shelf)
    houses = dict(library.houses)
    if choices.own_house:
        houses[choices.own_house.id] = choices.own_house.in_euro
    return replace(with_tables(tables, ordered), houses=houses, known_by="a project")


def with_tables(tables: tuple[PinTable, ...], library: Library) -> Library:
    """The library with chips and modules of one's own, on the packages that they name."""
    by_name = {table.name: table for table in tables}

    def find_chip(name: str) -> Chip:
        table = by_name.get(name)
        return chip_of(table, library) if table else library.find_chip(name)

    return replace(library, find_chip=find_chip) if by_name else library


def library_with(own: Mapping[str, Part], library: Library, first: tuple[str, ...] = ()) -> Library:
    """The library with parts of one's own, which come before bundled ones, and `first` before
    all.
    """
    parts = PartShelf(library.parts)
    parts.update({key: part for key, part in own.items() if key not in library.parts})
    parts.preferred, parts.own = frozenset(first), frozenset(own)
    parts.barred = frozenset(key for key, part in own.items() if not serves(part, library))
    return replace(library, parts=parts)


def serves(part: Part, library: Library) -> bool:
    """Whether a part has every terminal that its kind asks for."""
    return all(lack.serves for lack in library.roles.lacks(part))


def with_orders(orders: Mapping[str, Order], library: Library) -> Library:
    """The library with these orders."""
    parts = PartShelf(library.parts)
    if isinstance(library.parts, PartShelf):
        parts.preferred, parts.own = library.parts.preferred, library.parts.own
        parts.barred = library.parts.barred
    for part_id, order in orders.items():
        if misfit(part_id, order, library):
            continue
        parts[part_id] = library.parts[part_id].ordered(order)
    return replace(library, parts=parts)


def catalogue_order(part_id: str, library: Library) -> dict[str, str]:
    """The pins of a part as the catalogue has them; nothing for what is not there."""
    part = library.parts.get(part_id)
    return dict(part.pin_names) if part is not None else {}


def misfit(part_id: str, order: Order, library: Library) -> str:
    """What is wrong with an order: other pads, or other names than the part has; empty where it is
    the same pins in another order.
    """
    known = catalogue_order(part_id, library)
    if not known:
        return "the catalogue has no such part"
    if set(order) != set(known):
        return "it does not name every pad"
    if sorted(order.values()) != sorted(known.values()):
        return "it does not name the pins that the part has"
    return ""

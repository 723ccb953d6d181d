"""The bundled library as the core wants it."""

from functools import cache

from loquet.catalogue.bundled import houses, parts, pastes, roles, suppliers
from loquet.catalogue.chip_index import listed_chips
from loquet.catalogue.chips import find_chip
from loquet.core.library import Library
from loquet.core.parts.listing import ListedChip
from loquet.core.parts.own import PartShelf
from loquet.settings import settings
from loquet.standins.part_supplier import stock_of


@cache
def bundled_library() -> Library:
    """Everything that ships with Loquet."""
    return Library(
        PartShelf(parts()),
        houses(),
        suppliers(),
        find_chip,
        bundled_chips,
        stock_of,
        roles(),
        pastes(),
    )


@cache
def bundled_chips() -> tuple[ListedChip, ...]:
    """The chip index, from the state folder."""
    return tuple(listed_chips(settings().state / "chips.json"))

"""The bundled library as the core wants it."""

from functools import cache

from loquet.catalogue.bundled import houses, package_body, parts, screens
from loquet.catalogue.chips import find_chip
from loquet.core.library import Library


@cache
def bundled_library() -> Library:
    """Everything that ships with Loquet."""
    return Library(parts(), screens(), houses(), find_chip, package_body)

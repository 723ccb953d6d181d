"""Parts that fit in the place of another one: the same kind, the same pads, the same pin names."""

from loquet.core.library import Library
from loquet.core.parts.part import Part


def drop_ins(part: Part, library: Library) -> tuple[Part, ...]:
    """Other parts of the catalogue that go on to the same pads with the same pins, in the order of
    their ids.
    """
    pads = library.pattern(part.id).pads
    return tuple(
        other
        for _, other in sorted(library.parts.items())
        if other.id != part.id
        and other.kind == part.kind
        and other.terminals == part.terminals
        and library.pattern(other.id).pads == pads
    )

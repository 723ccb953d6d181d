"""Other parts of the same roles, made up: pads called otherwise, other bodies and limits, names of
one's own.
"""

import random

from loquet.core.brief import Brief, brief_from_plain
from loquet.core.library import Library
from loquet.core.lookup.project_library import library_with
from loquet.core.parts import Part, pattern_of
from loquet.core.parts.part import Drawn, GullWings
from tests.making import plain_of


def renumbered(part: Part, seed: int) -> Part:
    """The part with its pads called otherwise: a drawn body keeps each function at its place, one
    by formula has its functions at other places.
    """
    numbers = sorted({pad.number for pad in pattern_of(part.body).pads})
    others = random.Random(f"{seed} {part.id}").sample(numbers, len(numbers))
    new = dict(zip(numbers, others, strict=True))
    terminals = {
        name: t.model_copy(update={"pads": tuple(new[pad] for pad in t.pads)})
        for name, t in part.terminals.items()
    }
    body = part.body
    if isinstance(body, Drawn):
        pads = tuple(p.model_copy(update={"number": new[p.number]}) for p in body.pads)
        body = body.model_copy(update={"pads": pads})
    fields = {name: getattr(part, name) for name in Part.model_fields}
    return Part(**{**fields, "terminals": terminals, "body": body})


def twins(library: Library) -> dict[str, Part]:
    """A second part for every one, with other pads, a longer body and a fifth of a volt less
    at its limits, under a name of one's own.
    """
    found = {}
    for part in [renumbered(usual, 4) for usual in library.parts.values()]:
        fields = {name: getattr(part, name) for name in Part.model_fields}
        values = {n: v - 0.2 if n == "input_max_v" else v for n, v in part.values.items()}
        body = part.body
        if isinstance(body, Drawn):
            wide, high = body.body_mm
            body = body.model_copy(update={"body_mm": (wide + 0.2, high)})
        if isinstance(body, GullWings):
            span = tuple(mm + 0.1 for mm in body.span_mm)
            body = body.model_copy(update={"span_mm": span, "prefix": f"{body.prefix} wide"})
        twin = Part(**{**fields, "id": f"own/{part.id}", "values": values, "body": body})
        found[twin.id] = twin
    return found


def shelf_of_twins(library: Library) -> Library:
    """The library with the second parts as those of one's own, which come first."""
    return library_with(twins(library), library)


def named_otherwise(brief: Brief, library: Library) -> Brief:
    """The brief with the second part in place of every one that it names."""
    plain, own = plain_of(brief), twins(library)
    for row in plain["things"]:
        for field, value in row.items():
            if field == "part" and f"own/{value}" in own:
                row[field] = f"own/{value}"
    return brief_from_plain(plain)

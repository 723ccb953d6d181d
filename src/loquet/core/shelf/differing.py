"""What a change of an entry of the shelf would change, field by field."""

from collections.abc import Iterator
from typing import Any

from loquet.core.plain.frozen import Frozen

NOTHING = "nothing"


class Difference(Frozen):
    """A field with its value before and after, in words."""

    field: str
    before: str
    after: str


def differences(before: Frozen, after: Frozen) -> tuple[Difference, ...]:
    """Every field that differs, in the order of the fields."""
    old, new = (dict(flat(entry.model_dump(mode="json"), "")) for entry in (before, after))
    return tuple(
        Difference(field=name, before=old.get(name, NOTHING), after=new.get(name, NOTHING))
        for name in dict.fromkeys((*old, *new))
        if old.get(name) != new.get(name)
    )


def flat(value: Any, name: str) -> Iterator[tuple[str, str]]:
    """Plain values by the path of their names; a row of numbers is one value."""
    if isinstance(value, dict):
        for key, piece in value.items():
            yield from flat(piece, f"{name}.{key}" if name else key)
    elif isinstance(value, list) and any(isinstance(piece, dict) for piece in value):
        for index, piece in enumerate(value, 1):
            yield from flat(piece, f"{name}.{index}")
    elif isinstance(value, list):
        yield name, ", ".join(str(piece) for piece in value)
    else:
        yield name, str(value)

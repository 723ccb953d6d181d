"""Checks of a project's own, made from what once went wrong: one of a few templates with its
values.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Name
from loquet.core.plain.frozen import Frozen

Word = Annotated[str, Field(min_length=1, max_length=60)]


class PinOrderCheck(Frozen):
    """A pad of a part (by its catalogue id) must be on a net whose name begins so, wherever the
    part stands.
    """

    kind: Literal["pin-order"] = "pin-order"
    title: Word
    part: Word
    pad: Annotated[str, Field(min_length=1, max_length=8)]
    net: Word


class PartOnRailCheck(Frozen):
    """At least so many parts of a kind must hang on a net."""

    kind: Literal["part-on-net"] = "part-on-net"
    title: Word
    part_kind: Word
    net: Word
    least: Annotated[int, Field(ge=1, le=50)] = 1


class HeightCheck(Frozen):
    """No part on a side of a board is higher than this."""

    kind: Literal["height"] = "height"
    title: Word
    board: Name
    far: bool = False
    most_mm: Annotated[float, Field(gt=0, le=100)]


class WordsCheck(Frozen):
    """These words must be on the legend of the device."""

    kind: Literal["words"] = "words"
    title: Word
    text: Annotated[str, Field(pattern=r"^[ -~]{1,40}$")]


OwnCheck = Annotated[
    PinOrderCheck | PartOnRailCheck | HeightCheck | WordsCheck, Field(discriminator="kind")
]
MOST_CHECKS = 60

"""How the keys are read, and which of them must be readable together."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

SchemeName = Literal[
    "one pin each",
    "diode matrix",
    "bare matrix",
    "charlieplexed",
    "expander 8",
    "expander 16",
    "shift register",
    "resistor ladder",
    "mixed",
]
KeyId = Annotated[str, Field(max_length=80)]


class KeyScheme(Frozen):
    """The way the keys are read.

    `direct` keys get a pin of their own in a mixed scheme; `diodes` are the keys of a bare matrix
    with one.
    """

    name: SchemeName = "one pin each"
    shape: Literal["best", "few rows", "left and right"] = "best"
    direct: Annotated[tuple[KeyId, ...], Field(max_length=120)] = ()
    diodes: Annotated[tuple[KeyId, ...], Field(max_length=120)] = ()


class Chords(Frozen):
    """Which keys must be readable together.

    `two thumbs`: one key (or two neighbours of a pad) under each thumb, and every finger key.
    `whole pad`: as before, with any two keys under each thumb. `typing`: any keys, up to `at_once`.
    `own`: the groups as they are listed.
    """

    rule: Literal["two thumbs", "whole pad", "typing", "own"] = "two thumbs"
    at_once: Annotated[int, Field(ge=2, le=6)] = 6
    groups: Annotated[tuple[tuple[KeyId, ...], ...], Field(max_length=60)] = ()

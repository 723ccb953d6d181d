"""A figure that a person sees, with the way it was reached."""

from typing import Literal

from loquet.core.plain.frozen import Frozen

SourceKind = Literal[
    "standard",
    "brief",
    "part drawing",
    "house rules",
    "open data",
    "common practice",
    "from memory",
    "assumed",
    "computed",
]


class Source(Frozen):
    """Where a formula or value is from; `text` names the standard and clause, or says what is
    known.
    """

    kind: SourceKind
    text: str


class WorkingInput(Frozen):
    """One input of a formula, with its unit and its origin."""

    name: str
    value: str
    unit: str = ""
    origin: str


def given(name: str, value: float, unit: str, origin: str) -> WorkingInput:
    """An input that is a number, to six digits."""
    return WorkingInput(name=name, value=f"{value:.6g}", unit=unit, origin=origin)


class Working(Frozen):
    """A computed figure: its value, formula, inputs and source.

    A formula is arithmetic over the names of its inputs (`x` multiplies, `^` is a power), so that
    anybody can work it out again; what follows its first comma is words. A figure that is counted
    says `counted`, and its inputs say of what. A test holds to this.
    """

    id: str
    title: str
    value: float
    unit: str
    shown: str
    formula: str
    inputs: tuple[WorkingInput, ...] = ()
    source: Source

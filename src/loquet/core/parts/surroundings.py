"""What a part wants about it, as its drawing says: small parts between its terminals and ground, by
value or by a formula over its figures.
"""

from collections.abc import Mapping
from typing import Annotated, Literal

from pydantic import Field
from simpleeval import InvalidExpression, SimpleEval

from loquet.core.plain.frozen import Frozen
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import read_si, show_si

UNITS = {"resistor": "Ω", "capacitor": "F"}
SERIES = {"resistor": "E24", "capacitor": "E12"}
GROUND_END = "ground"
Words = Annotated[str, Field(min_length=2, max_length=120)]
End = Annotated[str, Field(min_length=1, max_length=40)]


class NoValue(Exception):
    """A value that cannot be read or worked out: why."""


class Around(Frozen):
    """A small part about another: its kind, its `value` (`4.7 kΩ`, or `= ...` in Ω or F over the
    part's figures and `rail_v`), the terminals between which it lies (`ground` is the board's own),
    and why.
    """

    kind: Literal["resistor", "capacitor"]
    value: Words
    one: End
    other: End = GROUND_END
    why: Words


class Reckoned(Frozen):
    """A value as it is bought, with the formula and the inputs that it was worked out by, if it
    was.
    """

    shown: str
    exact: float
    formula: str = ""
    inputs: dict[str, float] = {}


def value_of(row: Around, figures: Mapping[str, float]) -> Reckoned:
    """The preferred value (IEC 60063) of a row; raises NoValue."""
    unit = UNITS[row.kind]
    if not row.value.startswith("="):
        exact = read_si(row.value, unit)
        if not exact or exact <= 0:
            raise NoValue(f"'{row.value}' is no value in {unit}, such as 4.7 kΩ or 100 nF")
        return Reckoned(shown=show_si(exact, unit), exact=exact)
    formula = row.value[1:].strip()
    if ";" in formula:
        raise NoValue(f"'{formula}' is more than one formula")
    names = Named(figures)
    try:
        exact = float(SimpleEval(names=names, functions={}).eval(formula))
    except (InvalidExpression, ArithmeticError, SyntaxError, TypeError, ValueError) as error:
        raise NoValue(f"'{formula}' cannot be worked out: {str(error)[:80]}") from None
    if not 1e-15 < exact < 1e9:
        raise NoValue(f"'{formula}' gives {exact:g} {unit}")
    shown = show_si(nearest(exact, SERIES[row.kind]), unit)
    return Reckoned(shown=shown, exact=exact, formula=formula, inputs=names.asked)


class Named(dict[str, float]):
    """Figures by name that remember which of them were asked for."""

    def __init__(self, figures: Mapping[str, float]) -> None:
        super().__init__(figures)
        self.asked: dict[str, float] = {}

    def __getitem__(self, name: str) -> float:
        self.asked[name] = super().__getitem__(name)
        return self.asked[name]

"""What the JSON in rows must be like, for rows that come from elsewhere: a row that is not would be
found only when somebody looks at it.
"""

from collections.abc import Callable, Mapping
from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from loquet.core.build.faults import Fault
from loquet.core.build.sticks import StickResult

Short = Annotated[str, Field(max_length=80)]
Lead = tuple[Short, Short]


class Said(BaseModel):
    """A record in words, with its verdict where it has one."""

    model_config = ConfigDict(extra="allow")
    words: Annotated[str, Field(max_length=2000)] = ""
    good: bool | None = None


class SymptomSaid(BaseModel):
    """What was seen first."""

    dead: bool
    hot: bool
    broken: Annotated[list[Short], Field(max_length=500)]
    manner: Literal["", "dead", "always", "together", "off"]


class TestSaid(Said):
    """A reading."""

    sort: Literal["ohm", "volt", "diode", "farad", "look"]
    one: Lead
    other: Lead
    reading: float


class KeysSaid(Said):
    """What every key read as; records of old have words alone."""

    read: dict[Short, list[Short]] = {}


class StickSaid(Said):
    """The movement of a stick; records of old have words alone."""

    stick: Short = ""
    path: Annotated[list[tuple[int, int]], Field(max_length=5000)] = []
    result: StickResult | None = None


class Simulated(BaseModel):
    """A simulated unit: the seed of its meter, and the fault that is set in it."""

    seed: int = 0
    fault: Fault | None = None


class Quoted(BaseModel):
    """What an order was quoted at."""

    quantity: Annotated[int, Field(ge=1, le=10_000)]
    lines: list[tuple[str, int]]
    total_cents: int
    ready_on: date
    arrives_on: date


RECORDS: dict[str, type[BaseModel]] = {
    "symptom": SymptomSaid,
    "test": TestSaid,
    "keys": KeysSaid,
    "stick": StickSaid,
}
SIMULATED = TypeAdapter(Simulated | None)
PROOF = TypeAdapter(dict[str, int])
CHECKS: dict[str, Callable[[Mapping[str, Any]], object]] = {
    "records": lambda row: RECORDS.get(str(row["sort"]), Said).model_validate(row["content"]),
    "units": lambda row: SIMULATED.validate_python(row["simulated"]),
    "orders": lambda row: Quoted.model_validate(row["quote"]),
    "releases": lambda row: PROOF.validate_python(row["proof"]),
}


def checked_row(table: str, row: Mapping[str, Any]) -> None:
    """Look at the JSON of a row; raises ValueError or KeyError where it is not as its table has
    it.
    """
    check = CHECKS.get(table)
    if check is not None:
        check(row)

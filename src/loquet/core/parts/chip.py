"""A microcontroller as the open data set describes it: package pins, what each can do."""

from typing import Literal

from loquet.core.frozen import Frozen

PinKind = Literal["port", "supply", "ground", "regulator", "reset", "boot", "unused", "unknown"]


class AlternateFunction(Frozen):
    """A peripheral signal that a pin can carry.

    `peripheral` such as `i2c1`; `signal` such as `scl`; `route` the function number, remap group, or `fixed`.
    """

    peripheral: str
    signal: str
    route: str


class ChipPin(Frozen):
    """A package pin; `ports` are the port pins bonded to it (one, except on very small packages)."""

    number: str
    name: str
    kind: PinKind
    ports: tuple[str, ...] = ()
    functions: tuple[AlternateFunction, ...] = ()
    is_reset: bool = False
    is_boot: bool = False
    rail: str = ""


class Chip(Frozen):
    """A microcontroller in one package. Supply limits are None where nobody has told us."""

    name: str
    family: str
    package: str
    pins: tuple[ChipPin, ...]
    supply_min_mv: int | None = None
    supply_max_mv: int | None = None
    supply_source: str = ""
    data_source: str

    def pin(self, number: str) -> ChipPin:
        """The pin of that number; raises KeyError."""
        for pin in self.pins:
            if pin.number == number:
                return pin
        raise KeyError(number)

"""A microcontroller as the open data set describes it: package pins, what each can do."""

from typing import Literal

from loquet.core.plain.frozen import Frozen

PinKind = Literal[
    "port",
    "supply",
    "ground",
    "gives",
    "regulator",
    "reset",
    "boot",
    "dedicated",
    "unused",
    "unknown",
]


class AlternateFunction(Frozen):
    """A peripheral signal that a pin can carry.

    `peripheral` such as `i2c1`; `signal` such as `scl`; `route` the function number, remap group,
    or `fixed`.
    """

    peripheral: str
    signal: str
    route: str


class ChipPin(Frozen):
    """A package pin; `gives` is a supply that a module makes; `ports` are the port pins bonded to
    it (one, except on very small packages).

    `five_volt` says whether it takes 5 V as an input; None is unknown, and stays so until somebody
    reads the data sheet.
    """

    number: str
    name: str
    kind: PinKind
    ports: tuple[str, ...] = ()
    functions: tuple[AlternateFunction, ...] = ()
    is_reset: bool = False
    is_boot: bool = False
    rail: str = ""
    one_way: Literal["", "input", "output"] = ""
    five_volt: bool | None = None


class Chip(Frozen):
    """A microcontroller in one package, or a ready module.

    Supply limits, and the least supply of its converter, are None where nobody has told us.

    `usb_clock` says whether its USB runs without a crystal, `usb_pull_up` whether the pull-up that
    tells a host of it is inside. `core_capacitor` is the value that each core or reference
    pin wants, where that is known; `pins_from` says how we know which function lies on which pin.
    `uncovered` says why no board can be made with it, where that is so, and behind a semicolon the
    way out; its pins can be planned all the same.
    """

    name: str
    family: str
    package: str
    pins: tuple[ChipPin, ...]
    supply_min_mv: int | None = None
    supply_max_mv: int | None = None
    supply_source: str = ""
    converter_min_mv: int | None = None
    core_capacitor: str = ""
    usb_clock: Literal["inside", "crystal", "unknown"] = "unknown"
    usb_pull_up: Literal["inside", "outside", "unknown"] = "unknown"
    module: bool = False
    pins_from: Literal["data set", "memory", "measurement", "own table"] = "data set"
    uncovered: str = ""
    data_source: str

    def __hash__(self) -> int:
        """By name alone, which is quick; two chips are still equal only where every pin is."""
        return hash((self.name, self.package, self.data_source))

    @property
    def by_hand(self) -> bool:
        """Whether it is put on by hand: what goes through the board or into a socket, and ready
        modules.
        """
        return self.module or self.package.startswith("DIP")

    def pin(self, number: str) -> ChipPin:
        """The pin of that number; raises KeyError."""
        for pin in self.pins:
            if pin.number == number:
                return pin
        raise KeyError(number)

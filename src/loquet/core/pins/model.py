"""Needs of the device, and the plan that meets them."""

from dataclasses import dataclass, replace
from typing import Any, Literal

from loquet.core.plain.frozen import Frozen
from loquet.core.provenance import Working

NeedKind = Literal[
    "input",
    "output",
    "high drive",
    "analogue",
    "timer",
    "converter output",
    "touch",
    "touch sample",
    "wake-up",
    "interrupt",
    "two-wire clock",
    "two-wire data",
    "serial clock",
    "serial out",
    "serial in",
    "port transmit",
    "port receive",
    "sound clock",
    "sound word",
    "sound data",
    "usb minus",
    "usb plus",
    "debug data",
    "debug clock",
    "program in",
    "program out",
    "program clock",
    "crystal in",
    "crystal out",
    "slow crystal in",
    "slow crystal out",
]
Load = Literal["key", "sounder", "light", ""]
PLAIN_KINDS: tuple[NeedKind, ...] = ("input", "output", "high drive", "interrupt")


@dataclass(frozen=True)
class Need:
    """A signal that wants a pin: what kind, which net it drives, and where on the board it goes
    (nm), if known.

    `bus` names the group whose signals must be on one instance. `rate` names what a timer runs at;
    needs of different rates cannot share a timer. `reads` marks the lines that are read together
    when keys are scanned. `level_v` is the highest voltage that the signal brings to the pin, where
    it is above the rail. `extra` marks what the device could do without. `thing` names the thing
    that asks, and `load` what hangs on the pin, for the sharing rules.
    """

    signal: str
    kind: NeedKind
    net: str
    title: str
    target: tuple[int, int] | None = None
    bus: str = ""
    rate: str = ""
    reads: bool = False
    level_v: float | None = None
    extra: bool = False
    thing: str = ""
    load: Load = ""

    def but(self, **changes: Any) -> "Need":
        """The same need with some fields changed."""
        return replace(self, **changes)


class Assignment(Frozen):
    """A signal on a pin: the port and the function it uses there (`gpio` where none)."""

    signal: str
    kind: NeedKind
    title: str
    net: str
    pin: str
    port: str
    peripheral: str = "gpio"
    function: str = ""
    route: str = ""
    locked: bool = False


class KindBudget(Frozen):
    """How many pins can do something, how many do, and how many are left that still could."""

    kind: str
    able: int
    used: int
    left: int


class PinPlan(Frozen):
    """The pin plan of a chip.

    `proven` says that no better plan exists; else `bound_gap` is the most (in cost) that a better
    plan could save. `length_um` is the estimated track length, `crossings` how many straight links
    cross, `short_of` what would be good to keep free and is not.
    """

    chip: str
    package: str
    assignments: tuple[Assignment, ...]
    free: tuple[str, ...]
    reserved: tuple[tuple[str, str], ...]
    proven: bool
    bound_gap: int = 0
    risk: int
    length_um: int
    crossings: int = 0
    short_of: tuple[str, ...] = ()
    budget: tuple[KindBudget, ...] = ()
    workings: tuple[Working, ...]

    def of(self, signal: str) -> Assignment | None:
        """The assignment of a signal, or None."""
        return next((a for a in self.assignments if a.signal == signal), None)

"""Needs of the device, and the plan that meets them."""

from dataclasses import dataclass
from typing import Literal

from loquet.core.frozen import Frozen
from loquet.core.provenance import Working

NeedKind = Literal["input", "output", "timer", "two-wire clock", "two-wire data", "debug data", "debug clock"]


@dataclass(frozen=True)
class Need:
    """A signal that wants a pin: what kind, which net it drives, and where on the board it goes (nm), if known."""

    signal: str
    kind: NeedKind
    net: str
    title: str
    target: tuple[int, int] | None = None


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


class PinPlan(Frozen):
    """The pin plan of a chip. `proven` says that no better plan exists; `length_um` is the estimated track length."""

    chip: str
    package: str
    assignments: tuple[Assignment, ...]
    free: tuple[str, ...]
    reserved: tuple[tuple[str, str], ...]
    proven: bool
    risk: int
    length_um: int
    workings: tuple[Working, ...]

    def of(self, signal: str) -> Assignment | None:
        """The assignment of a signal, or None."""
        return next((a for a in self.assignments if a.signal == signal), None)

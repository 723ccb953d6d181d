"""The document: the brief, what a person chose, and the slices made from them."""

from typing import Generic, Literal, TypeVar

from loquet.core.board import Placement, Pour, Routing
from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.frozen import Frozen
from loquet.core.pins import PinPlan

SliceName = Literal["pins", "circuit", "placement", "routing", "pour"]
SLICES: tuple[SliceName, ...] = ("pins", "circuit", "placement", "routing", "pour")
T = TypeVar("T")


class Made(Frozen, Generic[T]):
    """A derived slice, with the digest of the inputs it was made from."""

    made_from: str
    value: T


class PartSeat(Frozen):
    """A part that a person put somewhere (mm, quarter turns, near side unless `far`)."""

    role: str
    x_mm: float
    y_mm: float
    turn_deg: Literal[0, 90, 180, 270] = 0
    far: bool = False


class Choices(Frozen):
    """Everything a person decided after the brief; running a stage again never loses any of it.

    `pin_targets` are places (nm) of signals as they were placed, taken over so that the pins are solved again for them.
    """

    pin_locks: dict[str, str] = {}
    pin_targets: dict[str, tuple[int, int]] = {}
    part_seats: dict[str, PartSeat] = {}
    house: str = "millrace"
    finish: str = "lead-free solder"
    colour: str = "green"
    thickness_um: int = 1600
    shipping: str = "parcel"


class Design(Frozen):
    """A whole design at one moment."""

    brief: Brief
    choices: Choices = Choices()
    pins: Made[PinPlan] | None = None
    circuit: Made[Circuit] | None = None
    placement: Made[Placement] | None = None
    routing: Made[Routing] | None = None
    pour: Made[Pour] | None = None

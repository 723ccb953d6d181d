"""A chip as the search shows it."""

from typing import Literal

from loquet.core.plain.frozen import Frozen

Soldering = Literal["hand iron", "hot plate", "assembly house"]


class ListedChip(Frozen):
    """A row of the chip index.

    `covered` says that a whole board can be made with it, not only a pin plan.
    """

    name: str
    family: str
    package: str
    ports: int
    analogue: int
    timers: int
    two_wire: int
    serial: int
    usb: int
    touch: int
    covered: bool

    @property
    def ready_made(self) -> bool:
        """Whether it is a ready module and no bare chip."""
        return self.family == "module"

    @property
    def soldering(self) -> Soldering:
        """The least that it takes to solder the package (common practice)."""
        return soldering_of(self.package)


def soldering_of(package: str) -> Soldering:
    """What it takes to solder a package: leads by hand, pads under the body on a hot plate, balls
    at an assembly house (common practice).
    """
    if package.startswith(
        ("LQFP", "TQFP", "TSSOP", "SO", "DIP", "CASTELLATED", "HEADER", "module")
    ):
        return "hand iron"
    return "hot plate" if "QFN" in package or "QFPN" in package else "assembly house"


class Stock(Frozen):
    """What a (simulated) supplier says of a part: price of one, pieces on the shelf, days to the
    bench, and days until more comes in.
    """

    supplier: str
    price_cents: int
    pieces: int
    days: int
    back_days: int = 0

    def days_for(self, count: int) -> int:
        """Days until so many are here."""
        return self.days if self.pieces >= count else max(self.days, self.back_days)

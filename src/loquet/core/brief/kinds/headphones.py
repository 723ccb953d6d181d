"""A headphone socket."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Service, Thing


class Headphones(Thing):
    """A headphone socket; detection takes a pin."""

    GROUP = "sounds"
    TITLE = "Headphone socket"
    WORD = "headphones"
    MARK = "socket"
    EDGE = True
    DRAWS = ("headphone-amplifier",)
    LEFT_OUT_CENTS = 150.0

    kind: Literal["headphones"] = "headphones"
    part: PartId = "headphone-socket"
    detection: bool = True

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("plugging in the headphones", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """A socket of 3.5 mm."""
        return (Body(part=self.part, kinds=("headphone socket",), size_mm=(6.5, 12.0)),)

"""A memory card."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Duty, KitItem, Service, Thing


class MemoryCard(Thing):
    """A memory card on a serial bus of its own, with a select and a detect line."""

    GROUP = "ports"
    TITLE = "Memory card"
    WORD = "link"
    MARK = "card"
    EDGE = True
    DUTY = Duty(
        0.05, 0.002, 0.002, "written and read for a twentieth of the time; asleep 0.2 mA; assumed"
    )

    kind: Literal["memory-card"] = "memory-card"
    part: PartId = "card-socket"
    detect: bool = True

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("changing the card", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """A small socket."""
        return (Body(part=self.part, kinds=("card socket",), size_mm=(14.0, 14.6)),)

    def kit(self) -> tuple[KitItem, ...]:
        """A card."""
        return (KitItem("ports", "memory card, small size", 1, f"goes into {self.name}"),)

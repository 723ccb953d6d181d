"""A nine-way port for an outside stick."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Contact, KitItem, Thing

WAYS = ("up", "down", "left", "right", "press")


class StickPort(Thing):
    """A nine-way port for an outside stick: four directions and a press, each a contact to
    ground.
    """

    GROUP = "ports"
    TITLE = "9-way stick port"
    WORD = "stick port"
    MARK = "plug"
    EDGE = True

    kind: Literal["stick-port"] = "stick-port"
    part: PartId = "stick-port-9"

    def bodies(self) -> tuple[Body, ...]:
        """A connector of nine ways in two rows."""
        return (Body(part=self.part, kinds=("stick port",), size_mm=(31.0, 12.5)),)

    def contacts(self) -> tuple[Contact, ...]:
        """What the outside stick closes."""
        return tuple(
            Contact(way, f"{self.name} {way}", way=way, ends=(way, "ground")) for way in WAYS
        )

    def kit(self) -> tuple[KitItem, ...]:
        """The stick."""
        return (
            KitItem("ports", "outside stick with a nine-way socket", 1, f"goes into {self.name}"),
        )

"""A spare two-wire port."""

from typing import Literal

from loquet.core.brief.thing import Body, KitItem, OnBus, Thing

CABLE_PF = 50.0  # half a metre of cable: from memory


class SpareBus(Thing):
    """A spare two-wire port on a connector, on the same bus as everything else on two wires."""

    GROUP = "ports"
    TITLE = "Spare two-wire port"
    WORD = "link"
    MARK = "header"
    EDGE = True
    LEFT_OUT_CENTS = 80.0

    kind: Literal["spare-bus"] = "spare-bus"

    def bodies(self) -> tuple[Body, ...]:
        """Four posts."""
        return (Body(part="posts-4", size_mm=(10.16, 2.54)),)

    def on_bus(self) -> OnBus:
        """No address, and what a cable brings."""
        return OnBus(0, CABLE_PF)

    def kit(self) -> tuple[KitItem, ...]:
        """A lead."""
        return (
            KitItem("leads and cables", "lead with 4 sockets at 2.54 mm", 1, f"at {self.name}"),
        )

"""Power that comes from a host over a cable of its own."""

from typing import Literal

from loquet.core.brief.regulated import USB, RegulatedFeed
from loquet.core.brief.thing import Body, KitItem, Supply


class HostFeed(RegulatedFeed):
    """Fed with 5 V by the host over two wires; the place is the plug.

    A USB port can feed the device by itself.
    """

    GROUP = "feeds"
    TITLE = "Power from the host"
    WORD = "feed"
    MARK = "plug"
    FED_BY = "power from the host"
    EDGE = True

    kind: Literal["host-feed"] = "host-feed"

    def bodies(self) -> tuple[Body, ...]:
        """A plug for two wires."""
        return (Body(part="wire-plug-2.0-2", size_mm=(6.9, 6.6)),)

    def source(self) -> Supply:
        """5 V of the host."""
        return USB

    def kit(self) -> tuple[KitItem, ...]:
        """The lead to the host."""
        return (
            KitItem(
                "leads and cables",
                "lead with a plug half for 2 pins at 2.0 mm (sockets, keyed), 5 V at pin 1",
                1,
                f"brings power to {self.name}",
            ),
        )

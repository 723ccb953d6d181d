"""A port for a debug probe."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, KitItem, Service, Thing


class Programming(Thing):
    """A five-way header for a debug probe: supply sense, clock, ground, data, reset."""

    GROUP = "ports"
    TITLE = "Programming port"
    WORD = "port"
    MARK = "header"

    kind: Literal["programming"] = "programming"
    part: PartId = "header-5-way"

    def service(self) -> Service:
        """Reached with the shell open."""
        return Service("programming", closed=False)

    def bodies(self) -> tuple[Body, ...]:
        """One header."""
        return (Body(part=self.part, kinds=("header",)),)

    @property
    def label(self) -> str:
        """Its plain name says little."""
        return "programming port" if self.name == self.WORD else self.name

    def kit(self) -> tuple[KitItem, ...]:
        """The lead of the probe."""
        return (
            KitItem(
                "leads and cables",
                "lead for a debug probe, 5 sockets at 2.54 mm",
                1,
                "programs the device; one for all",
            ),
        )

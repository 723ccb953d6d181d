"""A port through which a brain gets its program."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, KitItem, Service, Thing


class Programming(Thing):
    """A header or bare pads for a probe: five ways for a chip with two debug lines, six for one
    that is loaded over four lines.
    """

    GROUP = "ports"
    TITLE = "Programming port"
    WORD = "port"
    MARK = "header"
    PROGRAMS = True

    kind: Literal["programming"] = "programming"
    part: PartId = "header-5-way"

    def service(self) -> Service:
        """Reached with the shell open."""
        return Service("programming", closed=False)

    def bodies(self) -> tuple[Body, ...]:
        """One header, or its pads."""
        return (Body(part=self.part, kinds=("header",)),)

    @property
    def label(self) -> str:
        """Its plain name says little."""
        return "programming port" if self.name == self.WORD else self.name

    def kit(self) -> tuple[KitItem, ...]:
        """What joins the probe to it."""
        ways = 6 if "-6" in self.part else 5
        clip = f"clip for a probe, {ways} sprung pins at 2.54 mm"
        lead = f"lead for a probe, {ways} sockets at 2.54 mm"
        what = clip if self.part.startswith("clip-pads") else lead
        return (KitItem("leads and cables", what, 1, "programs the device; one for all"),)

"""The slide switch that turns a device on and off."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Service, Thing


class PowerSwitch(Thing):
    """The slide switch in the line from the cells to the rail."""

    GROUP = "controls"
    TITLE = "Power slide switch"
    WORD = "switch"
    MARK = "slide"
    SWITCHES = True

    kind: Literal["power-switch"] = "power-switch"
    part: PartId = "switch-slide-surface"

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("turning it on and off", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """One switch."""
        return (Body(part=self.part, kinds=("slide switch",)),)

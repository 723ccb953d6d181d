"""A push button with a soft latch: it turns a device on, and the brain turns it off when it has put
its things in order.
"""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Service, Thing


class PowerButton(Thing):
    """A push button and the latch behind it: a press feeds the brain, which holds itself on by a
    line of its own and reads the button by another.

    While it is off it draws nothing but the leakage of a transistor. A brain that is to be turned
    off is asked by a press, and lets go when it is ready.
    """

    GROUP = "controls"
    TITLE = "Power button with latch"
    WORD = "power button"
    MARK = "round"
    SWITCHES = True
    ASKS_FIRST = True

    kind: Literal["power-button"] = "power-button"
    part: PartId = "button-6x6-surface"

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("turning it on and off", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """The button."""
        return (Body(part=self.part, kinds=("button",)),)

"""The USB socket that a ready module has on itself, as a port to a host and as a source."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.regulated import CURRENT_MA, Current, offered
from loquet.core.brief.thing import Feed, KitItem, Service, Thing


class ModulePort(Thing):
    """The socket on a ready module: what comes in through it stands at the module's supply pin, as
    a rail of 5 V that the module takes and others may take too.

    Nothing of it is on the board: fuse, guards and lines to the chip are the module's own.
    """

    GROUP = "ports"
    TITLE = "USB socket on a module"
    WORD = "socket"
    MARK = "plug"

    kind: Literal["module-port"] = "module-port"
    asks: Annotated[Current, Field(description="what the module's own resistors ask for")] = (
        "500 mA"
    )

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("plugging in the cable", closed=True)

    def feed(self) -> Feed:
        """5 V of the host, as it comes in."""
        given = offered(self.asks)
        volts = (given.empty_v, given.usual_v, given.fresh_v)
        return Feed(
            *volts, "the USB socket of a module", given.source, limit_ma=CURRENT_MA[self.asks]
        )

    def kit(self) -> tuple[KitItem, ...]:
        """The cable to the host."""
        what = "USB cable with data, its plug as the module's socket"
        return (KitItem("leads and cables", what, 1, f"joins {self.name} to the host"),)

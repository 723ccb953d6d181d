"""Sources whose rail is made by a converter, and what a person may choose of it."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from loquet.core.brief.thing import Feed, Supply, Thing, only
from loquet.core.provenance import Source

ConverterName = Literal["auto", "linear", "buck", "boost", "buck-boost"]
RailVolts = Annotated[float, Field(ge=1.2, le=5.5, description="V of the rail that it makes")]
USB_LIMIT = Source(
    kind="standard", text="USB 2.0: 4.40 to 5.25 V at the device, 500 mA after configuration"
)
USB = Supply(4.4, 5.0, 5.25, "outside", 1, 0, 0.2, 500, USB_LIMIT)


class RegulatedFeed(Thing):
    """A source behind a converter."""

    FED_BY: ClassVar[str]

    gives_v: RailVolts = 3.3
    converter: ConverterName = "auto"

    def feed(self) -> Feed | None:
        """The rail behind its converter."""
        supply = self.source()
        if supply is None:
            return None
        v, most = self.gives_v, supply.most_ma
        source = Source(kind="brief", text=f"regulated to {v:g} V; {supply.source.text}")
        return Feed(v, v, v, self.FED_BY, source, limit_ma=most)

    def made_by(self) -> str:
        """As was chosen."""
        return self.converter


FEEDING = only(feeds=("true",))


class UsbPower(RegulatedFeed):
    """A USB port from which the device may be fed."""

    FED_BY = "a USB port"

    feeds: Annotated[bool, Field(description="the device runs on this port's power")] = False
    gives_v: RailVolts = Field(default=3.3, json_schema_extra=FEEDING)
    converter: ConverterName = Field(default="auto", json_schema_extra=FEEDING)

    def source(self) -> Supply | None:
        """5 V of the host, where it feeds the device."""
        return USB if self.feeds else None

    def five_volts(self) -> bool:
        """A cell may be charged from it."""
        return True

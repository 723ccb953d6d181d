"""Sources whose rail is made by a converter, and what a person may choose of it."""

from typing import Annotated, ClassVar, Literal, get_args

from pydantic import Field

from loquet.core.brief.thing import Feed, Supply, Thing, only
from loquet.core.provenance import Source

ConverterName = Literal["auto", "linear", "buck", "boost", "buck-boost"]
RailVolts = Annotated[float, Field(ge=1.2, le=5.5, description="V of the rail that it makes")]
USB_LIMIT = Source(
    kind="standard", text="USB 2.0: 4.40 to 5.25 V at the device, 500 mA after configuration"
)
USB = Supply(4.4, 5.0, 5.25, "outside", 1, 0, 0.2, 500, USB_LIMIT)
Current = Literal["500 mA", "1.5 A", "3 A"]
Offer = Literal["500 mA", "1.5 A", "3 A", "9 V", "12 V", "15 V", "20 V"]
OFFERS: tuple[Offer, ...] = get_args(Offer)
TYPE_C = Source(
    kind="standard", text="USB Type-C 2.1 section 4.6: 1.5 A or 3 A at 5 V, as the host says on CC"
)
DELIVERY = Source(
    kind="standard",
    text=(
        "USB Power Delivery 3.1: fixed supplies of 9, 15 and 20 V within 5 %, 12 V where the source"
        " has it; 3 A without a marked cable"
    ),
)
CURRENT_MA = {"500 mA": 500.0, "1.5 A": 1500.0, "3 A": 3000.0}
VOLTS = {"9 V": 9.0, "12 V": 12.0, "15 V": 15.0, "20 V": 20.0}


def offered(offer: Offer) -> Supply:
    """A port that gives what is asked for, as a source."""
    if offer in VOLTS:
        volts = VOLTS[offer]
        return Supply(0.95 * volts, volts, 1.05 * volts, "outside", 1, 0, 0.2, 3000, DELIVERY)
    if offer == "500 mA":
        return USB
    return Supply(4.4, 5.0, 5.5, "outside", 1, 0, 0.2, CURRENT_MA[offer], TYPE_C)


class RegulatedFeed(Thing):
    """A source behind a converter.

    One whose `rail` names that of another source has none of its own: the higher one of both feeds
    it.
    """

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
    """A USB port from which the device may be fed; it `asks` a host for a current at 5 V, or for
    higher volts.
    """

    FED_BY = "a USB port"

    feeds: Annotated[bool, Field(description="the device runs on this port's power")] = False
    asks: Offer = "500 mA"
    gives_v: RailVolts = Field(default=3.3, json_schema_extra=FEEDING)
    converter: ConverterName = Field(default="auto", json_schema_extra=FEEDING)

    def source(self) -> Supply | None:
        """What the host gives, where it feeds the device."""
        return offered(self.asks) if self.feeds else None

    def plug_v(self) -> float:
        """What the host gives at the most."""
        return offered(self.asks).fresh_v

    def five_volts(self) -> bool:
        """A cell may be charged from it while it gives 5 V."""
        return self.asks in CURRENT_MA

    def port_gives_ma(self) -> float:
        """Its limit at 5 V."""
        return CURRENT_MA.get(self.asks, 0.0)

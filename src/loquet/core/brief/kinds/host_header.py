"""The header of a host computer that reads or feeds the board."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.regulated import FEEDING, USB, ConverterName, RailVolts, RegulatedFeed
from loquet.core.brief.thing import Body, Fault, KitItem, Supply

POWER_WAYS = 2


class HostHeader(RegulatedFeed):
    """Two rows of posts on to which a host computer, or its ribbon, is put: 5 V of the host at the
    first, ground at the second, lines after them, ground at the rest.
    """

    GROUP = "ports"
    TITLE = "Host header"
    WORD = "host header"
    MARK = "header"
    FED_BY = "the host"

    kind: Literal["host-header"] = "host-header"
    ways: Annotated[int, Field(ge=2, le=40, multiple_of=2)] = 40
    lines: Annotated[int, Field(ge=0, le=38, description="plain lines between host and brain")] = 0
    feeds: Annotated[bool, Field(description="the device runs on 5 V of the host")] = False
    gives_v: RailVolts = Field(default=3.3, json_schema_extra=FEEDING)
    converter: ConverterName = Field(default="auto", json_schema_extra=FEEDING)

    def bodies(self) -> tuple[Body, ...]:
        """Two rows at 2.54 mm."""
        size = (2.54 * (self.ways // 2), 5.08)
        return (Body(part=f"posts-two-{self.ways}", size_mm=size),)

    def source(self) -> Supply | None:
        """5 V of the host, where it feeds the device."""
        return USB if self.feeds else None

    def faults(self) -> tuple[Fault, ...]:
        """More lines than the header has ways for."""
        if self.lines <= self.ways - POWER_WAYS:
            return ()
        words = f"{self.ways} ways carry {self.ways - POWER_WAYS} lines beside 5 V and ground"
        return (Fault("lines", words, "Take more ways, or fewer lines."),)

    def kit(self) -> tuple[KitItem, ...]:
        """The ribbon to the host."""
        what = f"ribbon with two sockets, 2 x {self.ways // 2} ways at 2.54 mm, marked at way 1"
        return (KitItem("leads and cables", what, 1, f"joins {self.name} to the host"),)

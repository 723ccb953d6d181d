"""A jack for a mains adapter."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.brief.thing import Body, KitItem, Service, Supply
from loquet.core.provenance import Source

SPREAD = 0.05  # a regulated adapter: common practice
ADAPTER = Source(
    kind="common practice", text="regulated adapter, 5 % either way, 1 A; its label counts"
)


class BarrelJack(RegulatedFeed):
    """A barrel jack for a mains adapter."""

    GROUP = "feeds"
    TITLE = "Barrel jack"
    WORD = "jack"
    MARK = "plug"
    FED_BY = "a barrel jack"
    EDGE = True
    CAUTION = (
        "A mains adapter must be one that is approved where it is used; local codes come first. "
        "Check its polarity with a meter before it is plugged in."
    )

    kind: Literal["barrel-jack"] = "barrel-jack"
    part: PartId = "jack-barrel-55"
    adapter_v: Annotated[float, Field(ge=3, le=24)] = 5.0

    def service(self) -> Service:
        """Reached with the shell closed."""
        return Service("plugging in the adapter", closed=True)

    def bodies(self) -> tuple[Body, ...]:
        """A jack of 5.5 mm."""
        return (Body(part=self.part, kinds=("barrel jack",), size_mm=(9.0, 14.0)),)

    def source(self) -> Supply:
        """What the adapter gives."""
        v = self.adapter_v
        return Supply(v * (1 - SPREAD), v, v * (1 + SPREAD), "outside", 1, 0, 0.1, 1000, ADAPTER)

    def kit(self) -> tuple[KitItem, ...]:
        """The adapter."""
        return (
            KitItem(
                "power",
                f"mains adapter {self.adapter_v:g} V, 1 A, plug 5.5 / 2.1 mm, plus inside, approved"
                " where it is used",
                1,
                f"feeds {self.name}",
            ),
        )

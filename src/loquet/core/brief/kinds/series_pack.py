"""Lithium cells in series."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.brief.thing import Body, KitItem, Supply
from loquet.core.provenance import Source

PACK = Source(
    kind="common practice",
    text="3.0 to 4.2 V a cell, 0.08 ohm a cell, 2 A; the pack maker's limits come first",
)


class SeriesPack(RegulatedFeed):
    """Lithium cells in series on a plug, charged and balanced outside the device."""

    GROUP = "feeds"
    TITLE = "Series pack"
    WORD = "pack"
    MARK = "cell"
    FED_BY = "a series pack"
    EDGE = True
    CAUTION = (
        "Lithium cells in series drift apart: charge them only with a balancing charger, "
        "outside the device, under the pack maker's limits."
    )

    kind: Literal["series-pack"] = "series-pack"
    cells: Annotated[int, Field(ge=2, le=4)] = 2
    capacity_mah: Annotated[int, Field(ge=50, le=20_000)] = 2000

    def bodies(self) -> tuple[Body, ...]:
        """Its plug on the board."""
        return (Body(part="wire-plug-2.5-2", size_mm=(7.4, 6.6)),)

    def source(self) -> Supply:
        """The sum of its cells."""
        n = self.cells
        volts = 3.0 * n, 3.7 * n, 4.2 * n
        return Supply(*volts, "lithium", n, self.capacity_mah, 0.08 * n, 2000, PACK)

    def kit(self) -> tuple[KitItem, ...]:
        """The pack, its lead, and what charges it."""
        return (
            KitItem(
                "power",
                f"lithium pack, {self.cells} cells in series, {self.capacity_mah} mAh, with its own"
                " protection",
                1,
                f"feeds {self.name}",
            ),
            KitItem(
                "leads and cables",
                "lead with a plug half for 2 pins at 2.5 mm (sockets, keyed), plus at pin 1",
                1,
                f"lead of {self.name}; measure its polarity before plugging in",
            ),
            KitItem(
                "power",
                f"balancing charger for {self.cells} cells in series",
                1,
                f"charges {self.name}, outside the device",
            ),
        )

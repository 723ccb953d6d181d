"""A coin cell."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Feed, KitItem, Lack, Service, Supply, Thing
from loquet.core.provenance import Source

COIN = Source(
    kind="standard",
    text="IEC 60086-2 cell CR2032: 3 V nominal, 2 V end point; 220 mAh and 20 ohm from memory",
)


class CoinCell(Thing):
    """A coin cell in a holder."""

    GROUP = "feeds"
    TITLE = "Coin cell"
    WORD = "cell"
    MARK = "cell"
    CAUTION = (
        "A coin cell that is swallowed burns from inside within hours: "
        "close its lid with a screw where children may come near."
    )

    kind: Literal["coin-cell"] = "coin-cell"
    part: PartId = "coin-holder-20"

    def service(self) -> Service:
        """Reached with the shell open."""
        return Service("changing the cell", closed=False)

    def bodies(self) -> tuple[Body, ...]:
        """A holder of a 20 mm cell."""
        return (Body(part=self.part, kinds=("coin holder",), size_mm=(23.4, 16.0)),)

    def feed(self) -> Feed:
        """3 V of a lithium coin."""
        return Feed(2.0, 3.0, 3.3, "a coin cell", COIN, direct=True, limit_ma=15.0)

    def source(self) -> Supply:
        """A 2032: 220 mAh at small loads, some 20 ohm inside when half empty."""
        return Supply(2.0, 3.0, 3.3, "coin", 1, 220, 20, 15, COIN)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A sign that it runs low."""
        way = "Let the firmware measure its own supply and show it on the screen or the light."
        return (Lack("There is no low-battery sign.", way),)

    def kit(self) -> tuple[KitItem, ...]:
        """Its cell."""
        return (KitItem("power", "coin cell 2032, lithium, 3 V", 1, f"feeds {self.name}"),)

"""A nine-volt block."""

from typing import Literal

from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.brief.thing import Body, KitItem, Lack, Loose, Supply
from loquet.core.provenance import Source

BLOCK = Source(
    kind="standard",
    text=(
        "IEC 60086-2 block 6LR61: six cells of 1.5 V, 0.9 V end point; 550 mAh and 2 ohm from"
        " memory"
    ),
)


class NineVolt(RegulatedFeed):
    """A nine-volt block on leads; the place is the block, its plug finds one."""

    GROUP = "feeds"
    TITLE = "Nine-volt block"
    WORD = "block"
    MARK = "cell"
    FED_BY = "a nine-volt block"
    CAUTION = (
        "The two snaps of a nine-volt block touch one another easily: keep loose blocks capped, "
        "and take it out before soldering."
    )

    kind: Literal["nine-volt"] = "nine-volt"

    def bodies(self) -> tuple[Body, ...]:
        """The block."""
        return (Body(size_mm=(48.5, 26.5)),)

    def loose(self) -> Loose:
        """A block 6LR61 (IEC 60086-2)."""
        return Loose(f"the {self.name}", (48.5, 26.5), 17.5)

    def source(self) -> Supply:
        """Six alkaline cells."""
        return Supply(5.4, 9.0, 9.6, "alkaline", 6, 550, 2.0, 200, BLOCK)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A sign that it runs low."""
        way = "Let the firmware measure its own supply and show it on the screen or the light."
        return (Lack("There is no low-battery sign.", way),)

    def kit(self) -> tuple[KitItem, ...]:
        """The block and its snaps."""
        return (
            KitItem("power", "nine-volt block, alkaline", 1, f"feeds {self.name}"),
            KitItem(
                "leads and cables",
                "lead with a plug half for 2 pins at 2.5 mm (sockets, keyed), snaps for a nine-volt"
                " block, plus at pin 1",
                1,
                f"snaps of {self.name}",
            ),
        )

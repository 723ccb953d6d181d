"""A slow crystal for a clock."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Thing


class ClockCrystal(Thing):
    """The slow crystal, for a clock that goes on in sleep."""

    GROUP = "brains"
    TITLE = "Clock crystal"
    WORD = "clock crystal"
    MARK = "crystal"
    FIXED = False

    kind: Literal["clock-crystal"] = "clock-crystal"
    part: PartId = "crystal-3215"

    def bodies(self) -> tuple[Body, ...]:
        """A small one."""
        return (Body(part=self.part, kinds=("clock crystal",)),)

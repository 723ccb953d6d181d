"""A crystal at the chip."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Thing


class Crystal(Thing):
    """The fast crystal, for exact timing."""

    GROUP = "brains"
    TITLE = "Crystal"
    WORD = "crystal"
    MARK = "crystal"
    FIXED = False

    kind: Literal["crystal"] = "crystal"
    part: PartId = "crystal-3225"

    def bodies(self) -> tuple[Body, ...]:
        """A small one."""
        return (Body(part=self.part, kinds=("crystal",)),)

"""A crystal at the chip."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class Crystal(Thing):
    """The fast crystal, for exact timing."""

    GROUP = "brains"
    TITLE = "Crystal"
    WORD = "crystal"
    MARK = "crystal"
    FIXED = False

    kind: Literal["crystal"] = "crystal"

    def bodies(self) -> tuple[Body, ...]:
        """A small one."""
        return (Body(part="crystal-3225"),)

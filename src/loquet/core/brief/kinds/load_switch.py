"""A switch of a rail that a brain turns on."""

from typing import Literal

from loquet.core.brief.thing import Body, Thing


class LoadSwitch(Thing):
    """A part of a rail that a brain turns on and off: what is named to take it draws nothing while
    it sleeps.
    """

    GROUP = "feeds"
    TITLE = "Switched rail"
    WORD = "switched"
    MARK = "box"
    FIXED = False
    LOWER_FEED = True
    PASSES = True

    kind: Literal["load-switch"] = "load-switch"

    def bodies(self) -> tuple[Body, ...]:
        """The room of two transistors and what stands around them."""
        return (Body(size_mm=(6.0, 6.0)),)

"""A touch electrode."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Worked


class Touch(Worked):
    """A touch electrode: bare copper under the mask."""

    GROUP = "controls"
    TITLE = "Touch pad"
    WORD = "touch"
    MARK = "ring"

    kind: Literal["touch"] = "touch"
    part: PartId = "touch-electrode-10"

    def bodies(self) -> tuple[Body, ...]:
        """One electrode."""
        return (Body(part=self.part, kinds=("touch electrode",)),)

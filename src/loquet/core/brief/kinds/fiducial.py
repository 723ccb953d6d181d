"""A mark for the eye of a placing machine."""

from typing import Literal

from loquet.core.brief.thing import Body, NoPart


class Fiducial(NoPart):
    """A bare copper dot of 1 mm."""

    GROUP = "marks"
    TITLE = "Fiducial"
    WORD = "fiducial"
    MARK = "dot"

    kind: Literal["fiducial"] = "fiducial"

    def bodies(self) -> tuple[Body, ...]:
        """The dot with its free ring."""
        return (Body(size_mm=(2.0, 2.0)),)

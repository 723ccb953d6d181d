"""A mark for the eye of a placing machine."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class Fiducial(Thing):
    """A bare copper dot of 1 mm in a ring free of mask and copper, by which a placing machine finds
    the board.
    """

    GROUP = "marks"
    TITLE = "Fiducial"
    WORD = "fiducial"
    MARK = "dot"
    CORNER = True

    kind: Literal["fiducial"] = "fiducial"
    part: Annotated[str, Field(max_length=60)] = "fiducial-round"

    def bodies(self) -> tuple[Body, ...]:
        """The dot with its ring."""
        return (Body(part=self.part, kinds=("fiducial",)),)

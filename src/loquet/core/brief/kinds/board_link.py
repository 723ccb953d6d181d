"""An end of a link between two boards."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Name, PartId
from loquet.core.brief.thing import Body, Thing


class BoardLink(Thing):
    """One end of a cable between two boards: a header. Both ends name the same link, and pin n is pin n at both."""

    GROUP = "ports"
    TITLE = "Link to another board"
    WORD = "link"
    MARK = "header"
    DRAWN_BY_BOARD = True

    kind: Literal["board-link"] = "board-link"
    part: PartId = "header-8-way"
    link: Annotated[Name, Field(description="the same word at both ends")] = "a"

    def bodies(self) -> tuple[Body, ...]:
        """One header."""
        return (Body(part=self.part, kinds=("header",)),)

"""An end of a link between two boards."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Name, PartId
from loquet.core.brief.thing import Body, Joint, Thing


class BoardLink(Thing):
    """One end of a link between two boards: a header.

    Both ends name the same link.

    Over a cable pin n is pin n at both ends. Where one end is plugged straight into the other, the
    posts that meet are on one net, whatever their numbers: ends on opposite sides leave both boards
    the same way up, ends on one side turn them face to face.
    """

    GROUP = "ports"
    TITLE = "Link to another board"
    WORD = "link"
    MARK = "header"
    DRAWN_BY_BOARD = True

    kind: Literal["board-link"] = "board-link"
    part: PartId = "header-8-way"
    link: Annotated[Name, Field(description="the same word at both ends")] = "a"
    joined: Annotated[
        Literal["cable", "plugged"],
        Field(description="by a cable, or one end plugged into the other"),
    ] = "cable"

    def bodies(self) -> tuple[Body, ...]:
        """One header."""
        return (Body(part=self.part, kinds=("header",)),)

    def joint(self) -> Joint:
        """Its link."""
        return Joint(self.link, self.joined == "plugged")

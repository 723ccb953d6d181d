"""A part of one's own."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.on_posts import OnPosts
from loquet.core.brief.thing import Body


class OwnPart(OnPosts):
    """A part of one's own on a row of posts, which asks the brain for plain lines, named 1, 2 and so on."""

    GROUP = "own"
    TITLE = "Part of one's own"
    WORD = "part"
    MARK = "box"

    kind: Literal["own-part"] = "own-part"
    lines: Annotated[int, Field(ge=0, le=24)] = 0
    width_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0

    def line_names(self) -> tuple[str, ...]:
        """Numbers from 1."""
        return tuple(str(i + 1) for i in range(self.lines))

    def bodies(self) -> tuple[Body, ...]:
        """Its posts, and as large as it is said to be."""
        return self.on_board(self.width_mm, self.height_mm)

"""A part of one's own."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class OwnPart(Thing):
    """A part of one's own that asks the brain for plain lines."""

    GROUP = "own"
    TITLE = "Part of one's own"
    WORD = "part"
    MARK = "box"

    kind: Literal["own-part"] = "own-part"
    lines: Annotated[int, Field(ge=0, le=24)] = 0
    width_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=0.5, le=200)] = 10.0

    def bodies(self) -> tuple[Body, ...]:
        """As large as it is said to be."""
        return (Body(size_mm=(self.width_mm, self.height_mm)),)

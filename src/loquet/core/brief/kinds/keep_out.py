"""An area kept free."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, NoPart


class KeepOut(NoPart):
    """An area where no part may stand."""

    GROUP = "marks"
    TITLE = "Area kept free"
    WORD = "free"
    MARK = "free"

    kind: Literal["keep-out"] = "keep-out"
    width_mm: Annotated[float, Field(ge=1, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=1, le=200)] = 10.0

    def bodies(self) -> tuple[Body, ...]:
        """The area."""
        return (Body(size_mm=(self.width_mm, self.height_mm)),)

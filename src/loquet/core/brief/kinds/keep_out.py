"""An area kept free."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Kept, NoPart


class KeepOut(NoPart):
    """An area where no part may stand on its side, or none above a height; for an antenna no copper
    either, on both.
    """

    GROUP = "marks"
    TITLE = "Area kept free"
    WORD = "free"
    MARK = "free"
    DRAWN_BY_BOARD = True

    kind: Literal["keep-out"] = "keep-out"
    width_mm: Annotated[float, Field(ge=1, le=200)] = 10.0
    height_mm: Annotated[float, Field(ge=1, le=200)] = 10.0
    keeps_off: Literal["parts", "copper", "parts and copper"] = "parts"
    parts_up_to_mm: Annotated[
        float, Field(ge=0, le=50, description="parts up to this height may stand there; 0: none")
    ] = 0.0

    def bodies(self) -> tuple[Body, ...]:
        """The area."""
        return (Body(size_mm=(self.width_mm, self.height_mm)),)

    def keeps(self) -> Kept:
        """What a person wants kept off."""
        return Kept(
            self.width_mm,
            self.height_mm,
            parts="parts" in self.keeps_off,
            copper="copper" in self.keeps_off,
            up_to_mm=self.parts_up_to_mm,
        )

"""Words on the legend."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, NoPart, Printed


class Words(NoPart):
    """Words that are printed on the legend."""

    GROUP = "marks"
    TITLE = "Words on the legend"
    WORD = "words"
    MARK = "words"
    DRAWN_BY_BOARD = True

    kind: Literal["words"] = "words"
    text: Annotated[str, Field(pattern=r"^[ -~]{1,40}$")] = "Larkfield"
    high_mm: Annotated[float, Field(ge=0.8, le=10)] = 1.5

    def bodies(self) -> tuple[Body, ...]:
        """About as wide as the letters are."""
        return (Body(size_mm=(round(0.9 * self.high_mm * len(self.text), 2), self.high_mm)),)

    def printed(self) -> Printed:
        """Its words."""
        return Printed(self.text, self.high_mm)

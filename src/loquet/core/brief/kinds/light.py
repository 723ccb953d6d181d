"""An indicator light."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Thing


class Light(Thing):
    """An indicator light: lit by a brain, or for as long as its rail is up."""

    GROUP = "shows"
    TITLE = "Indicator light"
    WORD = "light"
    MARK = "lamp"
    LEFT_OUT_CENTS = 40.0

    kind: Literal["light"] = "light"
    lit_by: Literal["a brain", "its rail"] = "a brain"
    part: PartId = "light-2012-amber"
    light_ma: Annotated[float, Field(gt=0, le=20, title="Current (mA)")] = 2.0

    def bodies(self) -> tuple[Body, ...]:
        """One lamp."""
        return (Body(part=self.part, kinds=("light",)),)

    def current_ma(self) -> float:
        """As the brief says."""
        return self.light_ma

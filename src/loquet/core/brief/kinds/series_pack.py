"""A pack of series cells that is charged outside."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.kinds.lithium_cell import LITHIUM_SOURCE
from loquet.core.brief.thing import Body, Feed, Thing


class SeriesPack(Thing):
    """Lithium cells in series on a plug, charged and balanced outside the device."""

    GROUP = "feeds"
    TITLE = "Series pack"
    WORD = "pack"
    MARK = "cell"
    EDGE = True
    CAUTION = (
        "Lithium cells in series drift apart: charge them only with a balancing charger, "
        "outside the device, under the pack maker's limits."
    )

    kind: Literal["series-pack"] = "series-pack"
    cells: Annotated[int, Field(ge=2, le=4)] = 2

    def bodies(self) -> tuple[Body, ...]:
        """Its plug on the board."""
        return (Body(size_mm=(8.0, 8.0)),)

    def feed(self) -> Feed:
        """The rail behind its regulator."""
        return Feed(3.3, 3.3, 3.3, "a series pack", LITHIUM_SOURCE)

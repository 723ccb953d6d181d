"""What a person decides about the panel: several boards made, filled and soldered as one plate, and
broken apart afterwards.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.plain.frozen import Frozen

Parting = Literal["tabs", "score"]
Rank = Annotated[int, Field(ge=1, le=20)]


class PanelChoice(Frozen):
    """So many `columns` and `rows` of one board between two rails `rail_mm` wide, parted by milled
    slots with `tabs` or by `score` lines; each board of a device gets a panel of its own.
    """

    by: Parting = "tabs"
    columns: Rank = 2
    rows: Rank = 2
    rail_mm: Annotated[float, Field(ge=5, le=20)] = 7.0

    @property
    def copies(self) -> int:
        """Boards on a panel."""
        return self.columns * self.rows

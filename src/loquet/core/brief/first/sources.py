"""What feeds the device.

Lithium cells want the usual care: charging within the cell maker's limits, local codes first.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PlaceMm
from loquet.core.plain.frozen import Frozen


class PlacedSource(Frozen):
    """What all sources have: the middle of the cells, or the connector."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: Literal[0, 90] = 0


class CellPair(PlacedSource):
    """Two AAA cells in series, in holders on pads on the far side; the place is the middle of the
    pair.
    """

    kind: Literal["two-aaa-cells"] = "two-aaa-cells"


class LithiumCell(PlacedSource):
    """One lithium cell with a charger; `sense` measures it on an analogue channel."""

    kind: Literal["lithium-cell"] = "lithium-cell"
    capacity_mah: Annotated[int, Field(ge=50, le=20_000)] = 1000
    sense: bool = True


class CoinCell(PlacedSource):
    """A coin cell in a holder."""

    kind: Literal["coin-cell"] = "coin-cell"


class NineVolt(PlacedSource):
    """A nine-volt block on leads."""

    kind: Literal["nine-volt"] = "nine-volt"


class FromHost(PlacedSource):
    """Fed by the host over its cable; the place is the connector."""

    kind: Literal["from-host"] = "from-host"


Power = Annotated[
    CellPair | LithiumCell | CoinCell | NineVolt | FromHost, Field(discriminator="kind")
]

"""One lithium cell with a charger."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.brief.thing import Body, KitItem, Lack, Loose, Supply
from loquet.core.provenance import Source

LITHIUM_SOURCE = Source(
    kind="common practice",
    text=(
        "4.20 V full, 3.0 V empty unless its maker says otherwise; 0.1 ohm inside and 2 C at the"
        " most from memory"
    ),
)
COOL_MA = 280.0
"""What the charger carries at 3.7 V from a port of 5 V before it holds itself back: 70 K over 190
K/W and 1.3 V.
"""
HOLDER = "holder-18650"


class LithiumCell(RegulatedFeed):
    """One lithium cell; it is charged where the device has a port with 5 V, and `sense` measures it
    on an analogue channel. The place is the cell, its plug finds one.
    """

    GROUP = "feeds"
    TITLE = "Lithium cell"
    WORD = "cell"
    MARK = "cell"
    FED_BY = "a lithium cell"
    CAUTION = (
        "A lithium cell can burn when it is shorted, pierced, bent, overcharged or heated: "
        "use one with its own protection, and keep it away from screws and heat."
    )

    kind: Literal["lithium-cell"] = "lithium-cell"
    capacity_mah: Annotated[int, Field(ge=50, le=20_000)] = 1000
    charge_ma: Annotated[
        int, Field(ge=0, le=800, description="0 is half its capacity in an hour, 280 mA at most")
    ] = 0
    charge_light: bool = False
    sense: bool = True
    holder: Annotated[bool, Field(description="a round 18650 in a holder on the board")] = False

    def bodies(self) -> tuple[Body, ...]:
        """A usual pouch of that size class, or the holder of a round cell."""
        if self.holder:
            return (Body(part=HOLDER, kinds=("18650 holder",)),)
        return (Body(size_mm=(50.0, 34.0)),)

    def loose(self) -> Loose | None:
        """A pouch of the class 503450, 5 mm for 1000 mAh (IEC 61960 naming), as thick as its
        capacity asks; a tenth more when it is old (common practice). A round cell lies in its
        holder.
        """
        if self.holder:
            return None
        thick = max(3.0, round(5.0 * self.capacity_mah / 1000, 1))
        return Loose(f"the {self.name}", (50.0, 34.0), thick, 0.1, soft=True)

    def source(self) -> Supply:
        """One cell."""
        most = 2.0 * self.capacity_mah
        return Supply(3.0, 3.7, 4.2, "lithium", 1, self.capacity_mah, 0.1, most, LITHIUM_SOURCE)

    def measured(self) -> bool:
        """As the brief says."""
        return self.sense

    def charging_ma(self) -> float:
        """As the brief says, or half its capacity in an hour and no more than leaves its charger
        cool.
        """
        return float(self.charge_ma) or min(self.capacity_mah / 2, COOL_MA)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A low-battery sign and a charge light."""
        lit = {"kind": "change-thing", "name": self.name, "changes": {"charge_light": True}}
        sentence = "Nothing shows that the cell is being charged."
        light = Lack(sentence, "Add a light to its charger.", "Add a charge light", lit)
        found = () if self.charge_light else (light,)
        if self.sense or "gauge" in kinds:
            return found
        edit = {"kind": "change-thing", "name": self.name, "changes": {"sense": True}}
        sentence = "There is no low-battery sign: the cell is not measured."
        return (Lack(sentence, "Measure it.", "Measure the cell", edit), *found)

    def kit(self) -> tuple[KitItem, ...]:
        """The cell with its own protection, and its lead with the polarity of the plug where it has
        one.
        """
        shape = "round 18650" if self.holder else "one cell"
        cell = KitItem(
            "power",
            f"lithium cell, {shape}, {self.capacity_mah} mAh, with its own protection",
            1,
            f"feeds {self.name}",
        )
        if self.holder:
            return (cell,)
        return (
            cell,
            KitItem(
                "leads and cables",
                "lead with a plug half for 2 pins at 2.0 mm (sockets, keyed), plus at pin 1",
                1,
                f"lead of {self.name}; measure its polarity before plugging in",
            ),
        )

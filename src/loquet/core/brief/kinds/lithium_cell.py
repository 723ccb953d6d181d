"""One lithium cell with a charger."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Feed, Lack, Thing
from loquet.core.provenance import Source

LITHIUM_SOURCE = Source(
    kind="common practice",
    text="4.20 V full, 3.0 V empty unless its maker says otherwise; the rail is regulated to 3.3 V",
)


class LithiumCell(Thing):
    """One lithium cell with a charger; `sense` measures it on an analogue channel."""

    GROUP = "feeds"
    TITLE = "Lithium cell"
    WORD = "cell"
    MARK = "cell"
    CAUTION = (
        "A lithium cell can burn when it is shorted, pierced, bent, overcharged or heated: "
        "use one with its own protection, and keep it away from screws and heat."
    )

    kind: Literal["lithium-cell"] = "lithium-cell"
    capacity_mah: Annotated[int, Field(ge=50, le=20_000)] = 1000
    sense: bool = True

    def bodies(self) -> tuple[Body, ...]:
        """A usual pouch of that size class."""
        return (Body(size_mm=(50.0, 34.0)),)

    def feed(self) -> Feed:
        """The rail behind its regulator."""
        return Feed(3.3, 3.3, 3.3, "a lithium cell", LITHIUM_SOURCE)

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A low-battery sign and a charge light."""
        way = "Most chargers have an output for one; plan it at the Power station."
        light = Lack("A charge light is not in the brief.", way)
        if self.sense:
            return (light,)
        edit = {"kind": "change-thing", "name": self.name, "changes": {"sense": True}}
        sentence = "There is no low-battery sign: the cell is not measured."
        return (Lack(sentence, "Measure it.", "Measure the cell", edit), light)

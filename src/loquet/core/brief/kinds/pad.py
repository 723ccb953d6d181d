"""A directional pad: four buttons, or one five-way part."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Contact, Worked
from loquet.core.quantities.lengths import nm_from_mm

STEPS = {"up": (0, 1), "down": (0, -1), "left": (-1, 0), "right": (1, 0)}


class Pad(Worked):
    """Four directions, as four buttons `spread_mm` from the middle or as one five-way part with a
    press.
    """

    GROUP = "controls"
    TITLE = "Directional pad"
    WORD = "pad"
    MARK = "cross"

    kind: Literal["pad"] = "pad"
    form: Literal["four buttons", "five-way part"] = "four buttons"
    part: PartId = "button-6x6-surface"
    spread_mm: Annotated[float, Field(ge=7, le=20)] = 9.0

    def bodies(self) -> tuple[Body, ...]:
        """Four switches, or one part."""
        if self.form == "five-way part":
            return (Body(part=self.part, kinds=("five-way",)),)
        spread = nm_from_mm(self.spread_mm)
        return tuple(
            Body(way, self.part, ("button",), x * spread, y * spread)
            for way, (x, y) in STEPS.items()
        )

    def contacts(self) -> tuple[Contact, ...]:
        """A key a direction; a five-way part has a press too."""
        if self.form == "five-way part":
            return tuple(
                Contact(way, f"{self.name} {way}", way=way, ends=(way, "common"))
                for way in (*STEPS, "press")
            )
        spread = nm_from_mm(self.spread_mm)
        return tuple(
            Contact(way, f"{self.name} {way}", way, x * spread, y * spread, way)
            for way, (x, y) in STEPS.items()
        )

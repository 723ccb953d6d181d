"""A fixing hole."""

from typing import Literal

from loquet.core.brief.thing import Body, Drilled, KitItem, NoPart

CLEARANCE_MM = {"M1.6": 1.8, "M2": 2.4, "M2.5": 2.9, "M3": 3.4}  # ISO 273, medium
HEAD_MM = {"M1.6": 3.2, "M2": 4.0, "M2.5": 5.0, "M3": 5.6}


class Hole(NoPart):
    """An unplated hole for a screw; the medium clearance hole of ISO 273."""

    GROUP = "marks"
    TITLE = "Fixing hole"
    WORD = "hole"
    MARK = "hole"
    DRAWN_BY_BOARD = True

    kind: Literal["hole"] = "hole"
    screw: Literal["M1.6", "M2", "M2.5", "M3"] = "M2"

    def bodies(self) -> tuple[Body, ...]:
        """The area under the screw's head."""
        head = HEAD_MM[self.screw] + 0.4
        return (Body(size_mm=(head, head)),)

    def drilled(self) -> Drilled:
        """A clearance hole, with the head of a pan-head screw about it."""
        return Drilled(CLEARANCE_MM[self.screw], HEAD_MM[self.screw])

    def kit(self) -> tuple[KitItem, ...]:
        """Screw and nut."""
        return (
            KitItem(
                "mechanics", f"screw {self.screw} x 10 mm, pan head, with nut", 1, "fixes the board"
            ),
        )

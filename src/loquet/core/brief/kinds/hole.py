"""A fixing hole."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Drilled, Fault, NoPart

Screw = Literal["none", "M1.6", "M2", "M2.5", "M3", "M4"]
CLEARANCE_MM = {"none": 1.5, "M1.6": 1.8, "M2": 2.4, "M2.5": 2.9, "M3": 3.4, "M4": 4.5}
"""ISO 273, medium; a hole without a screw is for a peg or for tooling."""
FINE_MM = {"none": 0.5, "M1.6": 1.7, "M2": 2.2, "M2.5": 2.7, "M3": 3.2, "M4": 4.3}
"""ISO 273, fine: a screw does not go through less."""
HEAD_MM = {"none": 0.0, "M1.6": 3.2, "M2": 4.0, "M2.5": 5.0, "M3": 5.6, "M4": 8.0}
"""Pan heads of ISO 7045."""


def screw_for(d_mm: float) -> Screw:
    """The largest screw that goes through a hole."""
    sizes: tuple[Screw, ...] = ("M4", "M3", "M2.5", "M2", "M1.6")
    return next((screw for screw in sizes if FINE_MM[screw] <= d_mm), "none")


class Hole(NoPart):
    """An unplated hole for a screw, a peg or tooling; the medium clearance hole of ISO 273 unless
    its diameter is said.
    """

    GROUP = "marks"
    TITLE = "Fixing hole"
    WORD = "hole"
    MARK = "hole"
    DRAWN_BY_BOARD = True

    kind: Literal["hole"] = "hole"
    screw: Screw = "M2"
    diameter_mm: Annotated[
        float | None,
        Field(ge=0.5, le=6.3, description="drilled to this; none: the clearance of its screw"),
    ] = None

    def bodies(self) -> tuple[Body, ...]:
        """The area under the screw's head."""
        head = self.drilled().head_mm + 0.4
        return (Body(size_mm=(head, head)),)

    def drilled(self) -> Drilled:
        """A clearance hole, with the head of a pan-head screw about it."""
        d = self.diameter_mm or CLEARANCE_MM[self.screw]
        return Drilled(d, max(HEAD_MM[self.screw], d))

    def faults(self) -> tuple[Fault, ...]:
        """A screw goes through its hole and does not fall through with its head."""
        d, fine = self.drilled().d_mm, FINE_MM[self.screw]
        if d < fine:
            problem = f"is {d:g} mm, through which {self.screw} does not go"
            return (Fault("diameter_mm", problem, f"Make it {fine:g} mm at least (ISO 273)."),)
        if self.screw != "none" and d >= HEAD_MM[self.screw]:
            problem = f"is {d:g} mm, and the head of {self.screw} falls through"
            return (Fault("diameter_mm", problem, "Take a larger screw, or a smaller hole."),)
        return ()

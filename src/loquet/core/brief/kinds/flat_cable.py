"""A flat cable connector."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, KitItem, Thing

SOCKETS = ("flat-cable connector",)


class FlatCable(Thing):
    """A flat cable connector with plain lines."""

    GROUP = "ports"
    TITLE = "Flat cable"
    WORD = "cable"
    MARK = "header"
    EDGE = True

    kind: Literal["flat-cable"] = "flat-cable"
    lines: Annotated[int, Field(ge=1, le=40)] = 6
    pitch_mm: Annotated[float, Field(ge=0.3, le=1.27)] = 0.5
    contact: Annotated[
        Literal["top", "bottom"],
        Field(description="the side of the cable that the contacts touch"),
    ] = "bottom"

    part: Annotated[
        PartId, Field(description="a connector of one's own in place of the usual one")
    ] = ""

    def bodies(self) -> tuple[Body, ...]:
        """Its lines with two of ground."""
        ways = self.lines + 2
        if self.part:
            return (Body(part=self.part, kinds=SOCKETS),)
        pitch = 0.5 if self.pitch_mm < 0.75 else 1.0
        part = f"flat-cable-{pitch}-{ways}-{self.contact}"
        return (Body(part=part, kinds=SOCKETS, size_mm=(round(pitch * (ways - 1) + 6.0, 2), 5.6)),)

    def kit(self) -> tuple[KitItem, ...]:
        """The cable, by the side that the contacts touch."""
        return (
            KitItem(
                "leads and cables",
                f"flat cable, {self.lines + 2} ways, {0.5 if self.pitch_mm < 0.75 else 1.0:g} mm,"
                f" contacts on the {self.contact} side at this end",
                1,
                f"at {self.name}",
            ),
        )

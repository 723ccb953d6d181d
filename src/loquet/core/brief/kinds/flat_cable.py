"""A flat cable connector."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


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

    def bodies(self) -> tuple[Body, ...]:
        """Its lines with two of ground."""
        return (Body(size_mm=(self.pitch_mm * (self.lines + 2) + 4.0, 6.0)),)

"""A test point."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class TestPoint(Thing):
    """A bare pad on a net, for the meter."""

    GROUP = "marks"
    TITLE = "Test point"
    WORD = "test"
    MARK = "dot"

    kind: Literal["test-point"] = "test-point"
    part: Annotated[str, Field(max_length=60)] = "test-point-round"
    net: Annotated[str, Field(pattern=r"^[A-Z0-9_]{1,60}$")] = "GROUND"

    def bodies(self) -> tuple[Body, ...]:
        """One pad."""
        return (Body(part=self.part, kinds=("test point",)),)

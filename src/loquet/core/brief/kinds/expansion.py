"""An expansion connector."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class Expansion(Thing):
    """An expansion connector with plain lines."""

    GROUP = "ports"
    TITLE = "Expansion connector"
    WORD = "link"
    MARK = "header"
    EDGE = True

    kind: Literal["expansion"] = "expansion"
    lines: Annotated[int, Field(ge=1, le=40)] = 8

    def bodies(self) -> tuple[Body, ...]:
        """A row of ways at 2.54 mm with supply and ground."""
        ways = self.lines + 2
        return (Body(part=f"posts-{ways}", size_mm=(2.54 * ways, 2.54)),)

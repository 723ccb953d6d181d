"""Screw terminals."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class ScrewTerminals(Thing):
    """Screw terminals with plain lines."""

    GROUP = "ports"
    TITLE = "Screw terminals"
    WORD = "terminals"
    MARK = "header"
    EDGE = True

    kind: Literal["screw-terminals"] = "screw-terminals"
    lines: Annotated[int, Field(ge=1, le=12)] = 2

    def bodies(self) -> tuple[Body, ...]:
        """Ways of 5.08 mm, ground among them."""
        ways = self.lines + 1
        return (Body(part=f"terminals-{ways}", size_mm=(5.08 * ways, 8.0)),)

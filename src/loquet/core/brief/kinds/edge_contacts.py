"""Contacts at the board's own edge."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.thing import Body, Thing


class EdgeContacts(Thing):
    """Gold contacts at the board's own edge, with plain lines."""

    GROUP = "ports"
    TITLE = "Edge contacts"
    WORD = "edge"
    MARK = "header"
    EDGE = True

    kind: Literal["edge-contacts"] = "edge-contacts"
    lines: Annotated[int, Field(ge=1, le=40)] = 8

    def bodies(self) -> tuple[Body, ...]:
        """Contacts of 2.54 mm with supply and ground."""
        ways = self.lines + 2
        return (Body(part=f"edge-{ways}", size_mm=(2.54 * ways, 8.0)),)

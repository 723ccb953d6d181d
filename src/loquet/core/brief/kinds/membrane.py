"""A membrane socket."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, KitItem, Thing

SOCKETS = ("flat-cable connector", "post row")


class Membrane(Thing):
    """The socket of a membrane with keys of its own: rows and columns come in as plain lines."""

    GROUP = "ports"
    TITLE = "Membrane socket"
    WORD = "membrane"
    MARK = "header"
    EDGE = True

    kind: Literal["membrane"] = "membrane"
    lines: Annotated[int, Field(ge=2, le=24)] = 8

    part: Annotated[
        PartId, Field(description="a socket of one's own in place of posts at 2.54 mm")
    ] = ""

    def bodies(self) -> tuple[Body, ...]:
        """Ways of 2.54 mm, or a socket of one's own."""
        if self.part:
            return (Body(part=self.part, kinds=SOCKETS),)
        return (Body(part=f"posts-{self.lines}", kinds=SOCKETS, size_mm=(2.54 * self.lines, 2.54)),)

    def kit(self) -> tuple[KitItem, ...]:
        """The membrane."""
        return (KitItem("ports", f"membrane with {self.lines} ways at 2.54 mm", 1, f"{self.name}"),)

"""A block of one's own: a chip with what belongs around it, used as one thing."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.on_posts import OnPosts
from loquet.core.brief.thing import Body, OnBus

LOAD_PF = 10.0


class OwnBlock(OnPosts):
    """A chip with its application circuit on a small board of its own, as one thing on a row of
    posts: what it asks of the brain, and the room that it takes.
    """

    GROUP = "own"
    TITLE = "Block of one's own"
    WORD = "block"
    MARK = "box"

    kind: Literal["own-block"] = "own-block"
    block: Annotated[str, Field(max_length=40, description="its name on the shelf")] = ""
    bus: Literal["none", "two-wire"] = "none"
    address: Annotated[int, Field(ge=0, le=119, description="on two wires; 0 is not known")] = 0
    inputs: Annotated[int, Field(ge=0, le=16)] = 0
    outputs: Annotated[int, Field(ge=0, le=16)] = 0
    width_mm: Annotated[float, Field(ge=1, le=200)] = 12.0
    height_mm: Annotated[float, Field(ge=1, le=200)] = 12.0

    def on_bus(self) -> OnBus | None:
        """A load like that of a sensor, where it is on two wires; its address is its own matter."""
        return OnBus(self.address, LOAD_PF) if self.bus == "two-wire" else None

    def line_names(self) -> tuple[str, ...]:
        """The bus where it is on one, then what it gives and what it takes."""
        bus = ("clock", "data") if self.bus == "two-wire" else ()
        gives = (f"gives {i + 1}" for i in range(self.inputs))
        takes = (f"takes {i + 1}" for i in range(self.outputs))
        return (*bus, *gives, *takes)

    def bodies(self) -> tuple[Body, ...]:
        """Its posts, and the room that it takes."""
        return self.on_board(self.width_mm, self.height_mm)

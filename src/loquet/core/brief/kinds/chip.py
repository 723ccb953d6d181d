"""A microcontroller."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Compared
from loquet.core.brief.thing import Body, Duty, Thing


class Chip(Thing):
    """The microcontroller, by its exact name in the open data set; its seat is found where none is
    given.

    A part called `own` is the table of that name on the shelf.
    """

    GROUP = "brains"
    BRAIN = True
    TITLE = "Microcontroller"
    WORD = "chip"
    MARK = "chip"
    DUTY = Duty(1.0, 0.25, 0.0005, "waits at a quarter, sleeps at some µA; from memory")
    FIXED = False

    kind: Literal["chip"] = "chip"
    part: Annotated[str, Field(min_length=3, max_length=40)] = "stm32l051c8t6"
    table: Annotated[str, Field(max_length=40)] = ""
    compared: Compared = ""
    socket: Annotated[bool, Field(description="put into a socket, for chips in two rows")] = False
    programmed: Annotated[
        Literal["on the board", "before it is soldered"],
        Field(description="how its program gets in; before it is soldered, once and for all"),
    ] = "on the board"

    def programmed_apart(self) -> str:
        """In a socket, or as was decided."""
        if self.socket:
            return "it is programmed out of its socket"
        return "it is programmed before it is soldered" if self.programmed != "on the board" else ""

    def compared_with(self) -> str:
        """The drawing named in the brief."""
        return self.compared.strip()

    def bodies(self) -> tuple[Body, ...]:
        """One package."""
        return (Body(part=f"chip:{self.table or self.part}", kinds=("chip",)),)

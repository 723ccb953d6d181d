"""A ready module: a small board with a microcontroller and its own regulator, soldered on as one
part.
"""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Compared
from loquet.core.brief.thing import Body, Duty, Feed, Thing
from loquet.core.provenance import Source


class ReadyModule(Thing):
    """A module on castellations or on two rows of posts; it makes a rail of its own, which others
    may take.
    """

    GROUP = "brains"
    BRAIN = True
    TITLE = "Ready module"
    WORD = "module"
    MARK = "chip"
    DUTY = Duty(1.0, 0.25, 0.002, "waits at a quarter, sleeps at some 10 µA; from memory")
    FIXED = False
    READY_MADE = True
    LOWER_FEED = True

    kind: Literal["ready-module"] = "ready-module"
    part: Annotated[str, Field(min_length=3, max_length=40)] = "fellbeck-c20"
    table: Annotated[str, Field(max_length=40)] = ""
    compared: Compared = ""
    gives_v: Annotated[float, Field(ge=1.2, le=5.5)] = 3.3
    gives_ma: Annotated[float, Field(ge=10, le=1000)] = 250.0

    def programmed_apart(self) -> str:
        """As such a thing is."""
        return "it is programmed over its own plug"

    def compared_with(self) -> str:
        """The drawing named in the brief."""
        return self.compared.strip()

    def bodies(self) -> tuple[Body, ...]:
        """One module."""
        return (Body(part=f"chip:{self.table or self.part}", kinds=("chip",)),)

    def feed(self) -> Feed:
        """The rail behind its own regulator."""
        source = Source(kind="brief", text="the module's own regulator, as its table says")
        volts = self.gives_v
        return Feed(volts, volts, volts, "the module's own rail", source, False, self.gives_ma)

    def logic_v(self) -> float:
        """Its lines live on the rail that it makes."""
        return self.gives_v

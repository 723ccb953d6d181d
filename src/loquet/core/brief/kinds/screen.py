"""A screen module on a header."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Display, Duty, KitItem, Lack, OnBus, Thing

HEADERS = {
    "two-wire": "header-4-way",
    "one-way serial": "header-8-way",
    "parallel colour": "header-16-way",
}


class Screen(Thing):
    """A screen module on a header: on two wires, on a one-way serial bus, or on a parallel colour
    bus with chosen bits.

    What is wanted of it (whole frames a second, rows and columns of text) is checked where it is
    said.
    """

    GROUP = "shows"
    TITLE = "Screen"
    WORD = "screen"
    MARK = "glass"
    DUTY = Duty(1.0, 1.0, 0.001, "lit in play and while it waits; assumed")
    MODULE_PF: ClassVar[float] = 0.0

    kind: Literal["screen"] = "screen"
    part: PartId = "screen-128x32-two-wire"
    bus: Literal["two-wire", "one-way serial", "parallel colour"] = "two-wire"
    address: Annotated[int, Field(ge=8, le=119)] = 60
    bus_khz: Literal[100, 400] = 400
    serial_mhz: Annotated[float, Field(ge=0.5, le=80)] = 8.0
    colour_bits: Literal[3, 6, 9, 12, 15, 16, 18] = 6
    wanted_rate_hz: Annotated[float, Field(ge=1, le=120)] | None = None
    wanted_rows: Annotated[int, Field(ge=1, le=60)] | None = None
    wanted_columns: Annotated[int, Field(ge=1, le=120)] | None = None

    def bodies(self) -> tuple[Body, ...]:
        """The header; the module lies over it and is drawn from its own data."""
        return (Body(part=HEADERS[self.bus], kinds=("header",)),)

    def on_bus(self) -> OnBus | None:
        """Its address, where it is on two wires; the load is the module's."""
        return OnBus(self.address, 0.0, self.bus_khz) if self.bus == "two-wire" else None

    def display(self) -> Display:
        """How it is written to, and what is wanted."""
        return Display(
            self.part,
            self.bus,
            self.bus_khz,
            self.serial_mhz,
            self.colour_bits,
            self.wanted_rate_hz,
            self.wanted_rows,
            self.wanted_columns,
        )

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """A way to set the brightness of a bright one."""
        if self.bus != "parallel colour" or "slider" in kinds:
            return ()
        way = "Add a thumb-wheel, or set it from a menu."
        return (Lack("Nothing sets the brightness of the screen.", way),)

    def kit(self) -> tuple[KitItem, ...]:
        """The module."""
        return (
            KitItem(
                "sound and shows", f"screen module {self.part}", 1, f"{self.name}, on its header"
            ),
        )

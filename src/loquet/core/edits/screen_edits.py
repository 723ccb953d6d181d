"""Edits of the screen: its part, its colour bits, what is wanted of it."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import Screen
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.brief_edits import with_brief
from loquet.core.frozen import Frozen


def screen_of(design: Design) -> Screen:
    """The screen; raises EditRefused where there is none."""
    if design.brief.screen is None:
        raise EditRefused("There is no screen.", "Add one first.")
    return design.brief.screen


class SetScreen(Frozen):
    """Another screen part, with the bus that it speaks."""

    kind: Literal["set-screen"] = "set-screen"
    part: Annotated[str, Field(max_length=60)]
    bus: Literal["two-wire", "one-way serial", "parallel colour"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Screen {self.part}"

    def apply(self, design: Design) -> Design:
        """Change part and bus."""
        return with_brief(
            design, screen=screen_of(design).model_copy(update={"part": self.part, "bus": self.bus})
        )


class SetScreenBits(Frozen):
    """How many bits of colour a parallel screen gets."""

    kind: Literal["set-screen-bits"] = "set-screen-bits"
    bits: int

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.bits} colour bits"

    def apply(self, design: Design) -> Design:
        """Change the bits."""
        return with_brief(
            design, screen={**screen_of(design).model_dump(mode="json"), "colour_bits": self.bits}
        )


class SetScreenWish(Frozen):
    """Speed of the screen's bus, and what is wanted of the screen: frames a second, rows and columns of text."""

    kind: Literal["set-screen-wish"] = "set-screen-wish"
    serial_mhz: Annotated[float, Field(ge=0.5, le=80)] | None = None
    wanted_rate_hz: Annotated[float, Field(ge=1, le=120)] | None = None
    wanted_rows: Annotated[int, Field(ge=1, le=60)] | None = None
    wanted_columns: Annotated[int, Field(ge=1, le=120)] | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return "What the screen must do"

    def apply(self, design: Design) -> Design:
        """Change what is given."""
        given = {k: v for k, v in self.model_dump(exclude={"kind"}).items() if v is not None}
        return with_brief(design, screen={**screen_of(design).model_dump(mode="json"), **given})

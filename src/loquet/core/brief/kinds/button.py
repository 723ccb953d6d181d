"""A push button: clicky, soft, carbon contact, low key or side-pushed, as its part decides."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Contact, Worked


class Button(Worked):
    """A push button; its part decides the feel.

    `duty` says what it is for: a power button wakes the chip, a hot key is held with others.
    """

    GROUP = "controls"
    TITLE = "Button"
    WORD = "button"
    MARK = "round"

    kind: Literal["button"] = "button"
    part: PartId = "button-6x6-surface"
    duty: Literal["play", "menu", "hot key", "power"] = "play"
    sends: (
        Annotated[
            int,
            Field(ge=0x04, le=0xE7, description="usage on the key page of HID, for a keyboard"),
        ]
        | None
    ) = None

    def bodies(self) -> tuple[Body, ...]:
        """One switch."""
        return (Body(part=self.part, kinds=("button",)),)

    def contacts(self) -> tuple[Contact, ...]:
        """Diagonal legs, which are never joined inside whichever way the pairs are remembered."""
        return (Contact("", f"button {self.name}", duty=self.duty, sends=self.sends),)

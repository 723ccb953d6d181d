"""A knob that turns without end."""

from typing import Literal

from loquet.core.brief.places import PartId
from loquet.core.brief.thing import Body, Contact, Worked


class Encoder(Worked):
    """A knob that turns without end, with or without a press."""

    GROUP = "controls"
    TITLE = "Encoder"
    WORD = "encoder"
    MARK = "knob"

    kind: Literal["encoder"] = "encoder"
    press: bool = True
    part: PartId = "encoder-11"

    def bodies(self) -> tuple[Body, ...]:
        """One knob."""
        return (Body(part=self.part, kinds=("encoder",)),)

    def contacts(self) -> tuple[Contact, ...]:
        """Its press, where it has one; turns are no keys."""
        if not self.press:
            return ()
        return (Contact("press", f"{self.name} press", ends=("press", "press common")),)

    def turns(self) -> bool:
        """It does."""
        return True

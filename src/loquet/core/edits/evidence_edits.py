"""Edits of what is known of parts."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.design import Confirmed, Design
from loquet.core.edits.applying import EditRefused
from loquet.core.parts.mating import Half

MOST = 100
PadNumber = Annotated[str, Field(pattern=r"^[A-Z0-9]{1,4}$")]
PinName = Annotated[str, Field(max_length=40)]


class ConfirmPart(Counted):
    """How somebody made sure of the pins of a part; no words take it back."""

    kind: Literal["confirm-part"] = "confirm-part"
    part: Annotated[str, Field(min_length=1, max_length=60)]
    how: Literal["drawing", "measured"]
    words: Annotated[
        str, Field(max_length=120, description="drawing with page and date, or who and when")
    ] = ""

    @property
    def label(self) -> str:
        """Words for the history."""
        if not self.words.strip():
            return f"Pins of {self.part} are not made sure of"
        return f"Pins of {self.part} made sure of: {self.how}, {self.words.strip()}"

    def apply(self, design: Design) -> Design:
        """Keep it by the part; raises EditRefused where far too much is kept."""
        kept = {part: row for part, row in design.choices.confirmed.items() if part != self.part}
        if self.words.strip():
            kept[self.part] = Confirmed(how=self.how, words=self.words.strip())
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} parts are made sure of.", "Take some back.")
        choices = design.choices.model_copy(update={"confirmed": kept})
        return design.model_copy(update={"choices": choices})


class SayHalf(Counted):
    """What somebody has for the other end of a connector; nothing takes it back."""

    kind: Literal["say-half"] = "say-half"
    connector: Annotated[str, Field(min_length=1, max_length=80)]
    half: Half | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"The other half of {self.connector}"

    def apply(self, design: Design) -> Design:
        """Keep it by the connector's role; raises EditRefused where far too much is kept."""
        kept = {
            role: half for role, half in design.choices.halves.items() if role != self.connector
        }
        if self.half is not None:
            kept[self.connector] = self.half
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} halves are named.", "Take some back.")
        choices = design.choices.model_copy(update={"halves": kept})
        return design.model_copy(update={"choices": choices})


class SetPinOrder(Counted):
    """The pin order of a part as it was measured, pad by pad; nothing goes back to the
    catalogue's.
    """

    kind: Literal["set-pin-order"] = "set-pin-order"
    part: Annotated[str, Field(min_length=1, max_length=60)]
    order: Annotated[dict[PadNumber, PinName], Field(max_length=60)] | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Pin order of {self.part} {'as measured' if self.order else 'as in the catalogue'}"

    def apply(self, design: Design) -> Design:
        """Keep it by the part; raises EditRefused where far too much is kept."""
        kept = {
            part: order for part, order in design.choices.pin_orders.items() if part != self.part
        }
        if self.order:
            kept[self.part] = self.order
        if len(kept) > MOST:
            raise EditRefused(f"More than {MOST} orders are kept.", "Take some back.")
        choices = design.choices.model_copy(update={"pin_orders": kept})
        return design.model_copy(update={"choices": choices})

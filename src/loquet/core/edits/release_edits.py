"""Edits of the release: house and what is ordered there."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.design import Design
from loquet.core.frozen import Frozen

Words = Annotated[str, Field(max_length=40)]


class ChooseHouse(Frozen):
    """House, finish, colour, thickness and shipping."""

    kind: Literal["choose-house"] = "choose-house"
    house: Words
    finish: Words
    colour: Words
    thickness_um: Annotated[int, Field(ge=400, le=3200)]
    shipping: Words

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Order at {self.house}: {self.finish}, {self.colour}, {self.thickness_um / 1000:.1f} mm"

    def apply(self, design: Design) -> Design:
        """Change the choices; a rule says what the house does not offer."""
        changed = self.model_dump(exclude={"kind"})
        return design.model_copy(update={"choices": design.choices.model_copy(update=changed)})

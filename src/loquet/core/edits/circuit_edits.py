"""Edits of the circuit beside its recipes."""

from typing import Literal

from loquet.core.brief.counted import Counted
from loquet.core.circuit.by_hand import AddPart, ConnectPin, CutPin, HandChange, LeaveOut
from loquet.core.circuit.protecting import is_protection
from loquet.core.design import Design, slice_of
from loquet.core.edits.applying import EditRefused

MOST = 200


class ChangeCircuit(Counted):
    """One change beside the recipes; it comes after those that are there.

    Of one pin the last change counts, so that the earlier one goes.
    """

    kind: Literal["change-circuit"] = "change-circuit"
    change: HandChange

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"By hand: {self.change.words}"

    def apply(self, design: Design) -> Design:
        """Keep it; raises EditRefused before there is a circuit, and where it names nothing that is
        there.
        """
        if not design.circuit:
            raise EditRefused("There is no circuit yet.", "Make it first.")
        circuit, change = slice_of(design.circuit), self.change
        kept = [c for c in design.choices.by_hand if not same_pin(c, change)]
        if isinstance(change, AddPart):
            if change.role in {c.role for c in circuit.components}:
                raise EditRefused(f"There is a part '{change.role}' already.", "Name it otherwise.")
            if change.board not in {b.name for b in design.brief.boards}:
                raise EditRefused(f"There is no board '{change.board}'.", "Choose one of the list.")
        elif isinstance(change, ConnectPin | CutPin):
            roles = {c.role for c in circuit.components}
            added = {c.role for c in kept if isinstance(c, AddPart)}
            if change.role not in roles | added:
                raise EditRefused(f"There is no part '{change.role}'.", "Press one on the sheet.")
        elif isinstance(change, LeaveOut):
            if change.role not in {c.role for c in circuit.components if is_protection(c)}:
                raise EditRefused(
                    f"'{change.role}' is no protection that is there.", "Choose one at Power."
                )
        elif change.net not in {n.name for n in circuit.nets}:
            raise EditRefused(f"There is no net {change.net}.", "Choose one of the list.")
        if len(kept) >= MOST:
            raise EditRefused(f"More than {MOST} changes by hand.", "Take some back.")
        return with_kept(design, (*kept, change))


class DropCircuitChange(Counted):
    """Take back one of the changes beside the recipes, by its place in their list."""

    kind: Literal["drop-circuit-change"] = "drop-circuit-change"
    index: int

    @property
    def label(self) -> str:
        """Words for the history."""
        return "A change by hand taken back"

    def apply(self, design: Design) -> Design:
        """All but that; raises EditRefused where there is none."""
        changes = design.choices.by_hand
        if not 0 <= self.index < len(changes):
            raise EditRefused("That change is gone already.", "Look at the list again.")
        return with_kept(design, (*changes[: self.index], *changes[self.index + 1 :]))


def same_pin(one: HandChange, other: HandChange) -> bool:
    """Whether two changes are about the same pin."""
    pins = (ConnectPin, CutPin)
    return (
        isinstance(one, pins)
        and isinstance(other, pins)
        and (one.role, one.pad) == (other.role, other.pad)
    )


def with_kept(design: Design, changes: tuple[HandChange, ...]) -> Design:
    """The design with these changes."""
    choices = design.choices.model_copy(update={"by_hand": changes})
    return design.model_copy(update={"choices": choices})

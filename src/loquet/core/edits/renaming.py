"""Giving a thing or a board another name; everything that names it goes with it."""

from typing import Any, Literal

from loquet.core.brief import Brief
from loquet.core.brief.counted import Counted
from loquet.core.brief.places import Name
from loquet.core.circuit.by_hand import ConnectPin, CutPin, HandChange, LeaveOut
from loquet.core.design import Choices, Design
from loquet.core.edits.applying import EditRefused, found


class RenameThing(Counted):
    """Give a thing another name; locks, seats, schemes, chords, and what it feeds or reads go with
    it.
    """

    kind: Literal["rename-thing"] = "rename-thing"
    name: Name
    new_name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Rename {self.name} to {self.new_name}"

    def apply(self, design: Design) -> Design:
        """Change the name everywhere."""
        brief, thing = design.brief, found(design.brief, self.name)
        taken = {other.name.lower() for other in brief.things if other is not thing}
        if self.new_name.lower() in taken:
            raise EditRefused(f"There is a '{self.new_name}' already.", "Give it another name.")
        new = thing.model_copy(update={"name": self.new_name})
        before, after = thing.role(), new.role()
        things = tuple(new if other is thing else other for other in brief.things)
        changed = brief.model_copy(
            update={
                "things": tuple(self.following(other) for other in things),
                **keys_renamed(brief, before, after),
            }
        )
        pins = {self.new_name if k == self.name else k: v for k, v in design.pins.items()}
        return design.model_copy(
            update={
                "brief": changed,
                "pins": pins,
                "choices": choices_renamed(design.choices, before, after),
            }
        )

    def following(self, thing: Any) -> Any:
        """A thing that takes or is read by the renamed one, under its new name."""
        update = {
            field: self.new_name
            for field in ("rail", *thing.BRAIN_FIELDS)
            if getattr(thing, field) == self.name
        }
        return thing.model_copy(update=update) if update else thing


def keys_renamed(brief: Brief, before: str, after: str) -> dict[str, Any]:
    """Scheme and chords with keys under their new names."""
    scheme, chords = brief.key_scheme, brief.chords

    def renamed(keys: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(moved(key, before, after) for key in keys)

    lists = {"direct": renamed(scheme.direct), "diodes": renamed(scheme.diodes)}
    groups = tuple(renamed(group) for group in chords.groups)
    return {
        "key_scheme": scheme.model_copy(update=lists),
        "chords": chords.model_copy(update={"groups": groups}),
    }


def choices_renamed(choices: Choices, before: str, after: str) -> Choices:
    """Locks, targets, seats and changes of the circuit under their new names."""
    seats = {
        moved(role, before, after): seat.model_copy(update={"role": moved(role, before, after)})
        for role, seat in choices.part_seats.items()
    }
    return choices.model_copy(
        update={
            "pin_locks": {moved(s, before, after): p for s, p in choices.pin_locks.items()},
            "pin_targets": {moved(s, before, after): t for s, t in choices.pin_targets.items()},
            "part_seats": seats,
            "by_hand": tuple(followed(change, before, after) for change in choices.by_hand),
        }
    )


def followed(change: HandChange, before: str, after: str) -> HandChange:
    """A change by hand, at the part under its new name."""
    if isinstance(change, ConnectPin | CutPin | LeaveOut):
        return change.model_copy(update={"role": moved(change.role, before, after)})
    return change


def moved(text: str, before: str, after: str) -> str:
    """A signal, key or role under its new name: the thing itself, its pieces, what stands around
    it.
    """
    if text == before or text.startswith((f"{before}:", f"{before} ")):
        return after + text[len(before) :]
    if text.endswith(f" {before}"):
        return text[: -len(before)] + after
    return text

"""Edits of the controls: add, change, remove, rename, arrange, mirror, group."""

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import Control
from loquet.core.brief.keys import middle_of_outline, role_of
from loquet.core.brief.places import Name
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.brief_edits import index_of, with_brief
from loquet.core.frozen import Frozen

Names = Annotated[tuple[Name, ...], Field(min_length=1, max_length=120)]
OTHER_SIDE = {"left": "right", "right": "left", "west": "east", "east": "west"}


def with_controls(design: Design, controls: list[Control]) -> Design:
    """The design with other controls."""
    return with_brief(design, controls=tuple(controls))


class AddControl(Frozen):
    """Add a control of any kind."""

    kind: Literal["add-control"] = "add-control"
    control: Control

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Add {self.control.kind} {self.control.name}"

    def apply(self, design: Design) -> Design:
        """Put it behind the others."""
        return with_controls(design, [*design.brief.controls, self.control])


class ChangeControl(Frozen):
    """Give a control another part, form, place or digit; its name and kind stay."""

    kind: Literal["change-control"] = "change-control"
    name: Name
    control: Control

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Change {self.name}"

    def apply(self, design: Design) -> Design:
        """Put the changed one in the old one's place."""
        index, controls = index_of(design.brief, self.name), list(design.brief.controls)
        if role_of(controls[index]) != role_of(self.control):
            raise EditRefused(
                f"'{self.name}' is a {controls[index].kind}.",
                "Remove it and add another one, or rename it.",
            )
        controls[index] = self.control
        return with_controls(design, controls)


class RemoveControl(Frozen):
    """Remove a control; keys that a scheme or a chord names go with it."""

    kind: Literal["remove-control"] = "remove-control"
    name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Remove {self.name}"

    def apply(self, design: Design) -> Design:
        """Take it out; the last one stays."""
        index, controls = index_of(design.brief, self.name), list(design.brief.controls)
        if len(controls) == 1:
            raise EditRefused("The last control cannot be removed.", "Add another one first.")
        role = role_of(controls.pop(index))
        scheme, chords = design.brief.key_scheme, design.brief.chords
        return with_brief(
            design,
            controls=tuple(controls),
            key_scheme=scheme.model_copy(
                update={
                    "direct": without(scheme.direct, role),
                    "diodes": without(scheme.diodes, role),
                }
            ),
            chords=chords.model_copy(
                update={"groups": tuple(without(group, role) for group in chords.groups)}
            ),
        )


def without(keys: tuple[str, ...], role: str) -> tuple[str, ...]:
    """Keys that do not belong to a role."""
    return tuple(key for key in keys if key != role and not key.startswith(f"{role}:"))


class RenameControl(Frozen):
    """Give a control another name; locks, seats and chords go with it."""

    kind: Literal["rename-control"] = "rename-control"
    name: Name
    new_name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Rename {self.name} to {self.new_name}"

    def apply(self, design: Design) -> Design:
        """Change the name everywhere."""
        index, controls = index_of(design.brief, self.name), list(design.brief.controls)
        before = role_of(controls[index])
        controls[index] = controls[index].model_copy(update={"name": self.new_name})
        after, choices = role_of(controls[index]), design.choices
        scheme, chords = design.brief.key_scheme, design.brief.chords
        changed = with_brief(
            design,
            controls=tuple(controls),
            key_scheme=scheme.model_copy(
                update={
                    f: tuple(moved(k, before, after) for k in getattr(scheme, f))
                    for f in ("direct", "diodes")
                }
            ),
            chords=chords.model_copy(
                update={
                    "groups": tuple(
                        tuple(moved(k, before, after) for k in g) for g in chords.groups
                    )
                }
            ),
        )
        seats = {
            moved(r, before, after): s.model_copy(update={"role": moved(r, before, after)})
            for r, s in choices.part_seats.items()
        }
        locks = {moved(s, before, after): pin for s, pin in choices.pin_locks.items()}
        return changed.model_copy(
            update={"choices": choices.model_copy(update={"pin_locks": locks, "part_seats": seats})}
        )


def moved(key: str, before: str, after: str) -> str:
    """A signal, key or role under its new name."""
    return after + key[len(before) :] if key == before or key.startswith(f"{before}:") else key


class MoveControls(Frozen):
    """Move a group of controls together."""

    kind: Literal["move-controls"] = "move-controls"
    names: Names
    dx_mm: Annotated[float, Field(ge=-500, le=500)]
    dy_mm: Annotated[float, Field(ge=-500, le=500)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Move {len(self.names)} controls by {self.dx_mm:.2f}, {self.dy_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """Shift each of them."""
        return replaced(design, self.names, lambda c: (c.x_mm + self.dx_mm, c.y_mm + self.dy_mm))


class ArrangeControls(Frozen):
    """Line controls up in a row or a column, or spread them evenly between the outer two."""

    kind: Literal["arrange-controls"] = "arrange-controls"
    names: Annotated[tuple[Name, ...], Field(min_length=2, max_length=120)]
    how: Literal["row", "column", "spread across", "spread up"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Arrange {len(self.names)} controls: {self.how}"

    def apply(self, design: Design) -> Design:
        """New places; the first named one gives the line."""
        controls = [design.brief.controls[index_of(design.brief, name)] for name in self.names]
        first = controls[0]
        match self.how:
            case "row":
                return replaced(design, self.names, lambda c: (c.x_mm, first.y_mm))
            case "column":
                return replaced(design, self.names, lambda c: (first.x_mm, c.y_mm))
            case "spread across" | "spread up":
                across = self.how == "spread across"
                order = sorted(controls, key=lambda c: c.x_mm if across else c.y_mm)
                low, high = (
                    (order[0].x_mm, order[-1].x_mm) if across else (order[0].y_mm, order[-1].y_mm)
                )
                places = {
                    c.name: low + (high - low) * i / (len(order) - 1) for i, c in enumerate(order)
                }
                return replaced(
                    design,
                    self.names,
                    lambda c: (places[c.name], c.y_mm) if across else (c.x_mm, places[c.name]),
                )


def replaced(
    design: Design, names: tuple[str, ...], place: Callable[[Control], tuple[float, float]]
) -> Design:
    """Controls of these names at new places, to a micrometre."""
    for name in names:
        index_of(design.brief, name)
    controls = []
    for control in design.brief.controls:
        if control.name in names:
            x, y = place(control)
            control = control.model_copy(update={"x_mm": round(x, 3), "y_mm": round(y, 3)})
        controls.append(control)
    return with_controls(design, controls)


class MirrorControls(Frozen):
    """Put a copy of each control at the mirrored place on the other half; names change left to right and west to east."""

    kind: Literal["mirror-controls"] = "mirror-controls"
    names: Names

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Mirror {len(self.names)} controls"

    def apply(self, design: Design) -> Design:
        """Add the copies."""
        middle = middle_of_outline(design.brief)
        taken = {c.name.lower() for c in design.brief.controls}
        copies: list[Control] = []
        for name in self.names:
            control = design.brief.controls[index_of(design.brief, name)]
            other = mirrored_name(name, taken)
            taken.add(other.lower())
            side, _, digit = control.digit.partition(" ")
            update = {
                "name": other,
                "x_mm": round(2 * middle - control.x_mm, 3),
                "digit": f"{OTHER_SIDE[side]} {digit}" if digit else control.digit,
            }
            copies.append(control.model_copy(update=update))
        return with_controls(design, [*design.brief.controls, *copies])


def mirrored_name(name: str, taken: set[str]) -> str:
    """The name with left and right, west and east exchanged; numbered where that is taken or the same."""
    found = " ".join(OTHER_SIDE.get(word, word) for word in name.split(" "))
    number = 2
    wanted = found
    while wanted.lower() in taken:
        wanted = f"{found[:20]} {number}"
        number += 1
    return wanted

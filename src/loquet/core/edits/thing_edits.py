"""Edits of things of any kind: one adds, one changes any field, one removes, one moves."""

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from loquet.core.brief import Brief, Place, Thing
from loquet.core.brief.any_thing import AnyThing
from loquet.core.brief.counted import Counted
from loquet.core.brief.edges import at_edge
from loquet.core.brief.places import Name
from loquet.core.design import Design
from loquet.core.edits.applying import (
    EditRefused,
    changed,
    found,
    keys_of_things,
    refused_value,
    with_brief,
    with_choices,
    without_keys,
)
from loquet.core.pins.needing import needs_of

Names = Annotated[tuple[Name, ...], Field(min_length=1, max_length=200)]


class AddThing(Counted):
    """Add a thing of any kind."""

    kind: Literal["add-thing"] = "add-thing"
    thing: AnyThing

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Add {self.thing.TITLE.lower()} {self.thing.name}"

    def apply(self, design: Design) -> Design:
        """Put it behind the others; on the main board where it names one that is not there, at the
        edge where it belongs there.
        """
        brief, thing = design.brief, self.thing
        if any(other.name.lower() == thing.name.lower() for other in brief.things):
            raise EditRefused(f"There is a '{thing.name}' already.", "Give it another name.")
        if thing.board not in {board.name for board in brief.boards}:
            thing = thing.model_copy(update={"board": brief.boards[0].name})
        if thing.place is not None:
            thing = thing.model_copy(
                update={"place": at_edge(brief.board(thing.board), thing, thing.place)}
            )
        return with_brief(design, things=(*brief.things, thing))


class ChangeThing(Counted):
    """Change fields of a thing, by the validation of its own kind; name and kind stay."""

    kind: Literal["change-thing"] = "change-thing"
    name: Name
    changes: Annotated[dict[str, Any], Field(min_length=1, max_length=40)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Change {self.name}: {', '.join(sorted(self.changes))[:80]}"

    def apply(self, design: Design) -> Design:
        """Put the changed one in the old one's place; another part of a brain drops the locks,
        which belong to its pins.
        """
        if {"name", "kind"} & self.changes.keys():
            raise EditRefused("Name and kind are not changed this way.", "Rename it, or add one.")
        old = found(design.brief, self.name)
        refuse_in_shell(design.brief, old.name, "place" in self.changes)
        new = changed(old, self.changes)
        lost = keys_of_things(design.brief, {old.name})
        brief = design.brief.with_things(new)
        lost -= keys_of_things(brief, {new.name})
        if lost:
            brief = brief.model_copy(update=without_keys(brief, lost))
        design = design.model_copy(update={"brief": brief})
        if old.BRAIN and old.part != new.part:
            own = {need.signal for need in needs_of(design.brief, new.name)}
            locks = {s: p for s, p in design.choices.pin_locks.items() if s not in own}
            design = with_choices(design, pin_locks=locks)
        return design


class RemoveThings(Counted):
    """Remove things; keys that a scheme or a chord names go with them."""

    kind: Literal["remove-things"] = "remove-things"
    names: Names

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Remove {and_more(self.names)}"

    def apply(self, design: Design) -> Design:
        """Take them out."""
        brief = design.brief
        for name in self.names:
            found(brief, name)
            refuse_in_shell(brief, name, True)
        rest = tuple(
            without_named(thing, self.names)
            for thing in brief.things
            if thing.name not in self.names
        )
        changes = without_keys(brief, keys_of_things(brief, set(self.names)))
        return with_brief(design, things=rest, **changes)


def without_named(thing: Thing, gone: tuple[str, ...]) -> Thing:
    """A thing that a removed brain read or a removed source fed, left to the first one again."""
    fields = ("rail", *thing.BRAIN_FIELDS)
    lost = {field: "" for field in fields if getattr(thing, field) in gone}
    return thing.model_copy(update=lost) if lost else thing


class MoveThing(Counted):
    """Put a thing somewhere: its middle, and its turn and side where they are given; to another
    board where one is named.
    """

    kind: Literal["move-thing"] = "move-thing"
    name: Name
    x_mm: float
    y_mm: float
    turn_deg: int | None = None
    far: bool | None = None
    board: Name | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Move {self.name} to {self.x_mm:.2f}, {self.y_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """The new place; a micrometre is the least step, and what belongs at an edge settles there
        unless its turn is given.
        """
        thing = found(design.brief, self.name)
        refuse_in_shell(design.brief, self.name, True)
        place = thing.place or Place(x_mm=0, y_mm=0)
        put = {
            "x_mm": round(self.x_mm, 3),
            "y_mm": round(self.y_mm, 3),
            "turn_deg": place.turn_deg if self.turn_deg is None else self.turn_deg % 360,
            "far": place.far if self.far is None else self.far,
        }
        board = next(
            (b for b in design.brief.boards if b.name == (self.board or thing.board)), None
        )
        if board is not None and self.turn_deg is None:
            try:
                spot = Place.model_validate({"x_mm": 0, "y_mm": 0, **put})
            except ValidationError as error:
                raise refused_value(thing.name, error) from None
            put = at_edge(board, thing, spot).model_dump(mode="json")
        changes: dict[str, Any] = {"place": put}
        if self.board is not None:
            changes["board"] = self.board
        return design.model_copy(
            update={"brief": design.brief.with_things(changed(thing, changes))}
        )


class ReleaseThing(Counted):
    """Let Loquet find the place of a thing."""

    kind: Literal["release-thing"] = "release-thing"
    name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Let {self.name} be placed"

    def apply(self, design: Design) -> Design:
        """Drop the place; what hands touch or shells meet keeps it."""
        thing = found(design.brief, self.name)
        if thing.contacts() or thing.drilled() or thing.axes():
            way = "Move it where it should be."
            raise EditRefused(f"{thing.label} is worked by hand, so it needs a place.", way)
        free = thing.model_copy(update={"place": None})
        return design.model_copy(update={"brief": design.brief.with_things(free)})


def refuse_in_shell(brief: Brief, name: str, moves: bool) -> None:
    """Holes of an existing shell are met exactly; raises EditRefused."""
    if moves and brief.shell.kind == "existing" and found(brief, name).drilled():
        raise EditRefused(
            "The holes are those of an existing shell, which must be met exactly.",
            "Make the shell one's own first.",
        )


def and_more(names: tuple[str, ...]) -> str:
    """`menu`, or `menu and 2 more`."""
    return names[0] if len(names) == 1 else f"{names[0]} and {len(names) - 1} more"

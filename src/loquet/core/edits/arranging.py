"""Edits of several things at once: move, line up, spread, mirror, paste."""

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import Place, Thing
from loquet.core.brief.any_thing import AnyThing
from loquet.core.brief.counted import Counted
from loquet.core.brief.keys import middle_of_outline
from loquet.core.brief.places import Name, OtherName
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, found
from loquet.core.edits.thing_edits import Names, and_more, refuse_in_shell
from loquet.core.power import rails_of

Delta = Annotated[float, Field(ge=-500, le=500)]
Spot = tuple[float, float]
OTHER_SIDE = {"left": "right", "right": "left", "west": "east", "east": "west"}


def placed(design: Design, name: str) -> tuple[Thing, Place]:
    """A thing with its place; raises EditRefused where it has none."""
    thing = found(design.brief, name)
    if thing.place is None:
        raise EditRefused(f"'{name}' has no place yet.", "Put it somewhere first.")
    return thing, thing.place


def put(thing: Thing, place: Place, spot: Spot) -> Thing:
    """A thing at another spot, to a micrometre."""
    x, y = round(spot[0], 3), round(spot[1], 3)
    return thing.model_copy(update={"place": place.model_copy(update={"x_mm": x, "y_mm": y})})


def replaced(
    design: Design, names: tuple[str, ...], spot: Callable[[Thing, Place], Spot]
) -> Design:
    """Things of these names at new spots."""
    moved = []
    for name in names:
        refuse_in_shell(design.brief, name, True)
        thing, place = placed(design, name)
        moved.append(put(thing, place, spot(thing, place)))
    return design.model_copy(update={"brief": design.brief.with_things(*moved)})


class MoveThings(Counted):
    """Move things together."""

    kind: Literal["move-things"] = "move-things"
    names: Names
    dx_mm: Delta
    dy_mm: Delta

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Move {and_more(self.names)} by {self.dx_mm:.2f}, {self.dy_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """Shift each of them."""
        return replaced(design, self.names, lambda _, p: (p.x_mm + self.dx_mm, p.y_mm + self.dy_mm))


class ArrangeThings(Counted):
    """Line things up in a row or a column, or spread them evenly between the outer two."""

    kind: Literal["arrange-things"] = "arrange-things"
    names: Annotated[tuple[Name, ...], Field(min_length=2, max_length=200)]
    how: Literal["row", "column", "spread across", "spread up"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Arrange {len(self.names)} things: {self.how}"

    def apply(self, design: Design) -> Design:
        """New places; the first named one gives the line."""
        places = {name: placed(design, name)[1] for name in self.names}
        first = places[self.names[0]]
        match self.how:
            case "row":
                return replaced(design, self.names, lambda _, p: (p.x_mm, first.y_mm))
            case "column":
                return replaced(design, self.names, lambda _, p: (first.x_mm, p.y_mm))
            case "spread across":
                xs = spread({name: place.x_mm for name, place in places.items()})
                return replaced(design, self.names, lambda t, p: (xs[t.name], p.y_mm))
            case "spread up":
                ys = spread({name: place.y_mm for name, place in places.items()})
                return replaced(design, self.names, lambda t, p: (p.x_mm, ys[t.name]))


def spread(values: dict[str, float]) -> dict[str, float]:
    """Values at even steps between the least and the greatest, in their order."""
    order = sorted(values, key=lambda name: values[name])
    low, high = values[order[0]], values[order[-1]]
    return {name: low + (high - low) * i / (len(order) - 1) for i, name in enumerate(order)}


class MirrorThings(Counted):
    """Put a copy of each thing at the mirrored place on the other half; names change left to right
    and west to east.
    """

    kind: Literal["mirror-things"] = "mirror-things"
    names: Names

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Mirror {and_more(self.names)}"

    def apply(self, design: Design) -> Design:
        """Add the copies."""
        taken = {thing.name.lower() for thing in design.brief.things}
        copies: list[Thing] = []
        for name in self.names:
            thing, place = placed(design, name)
            middle = middle_of_outline(design.brief, thing.board)
            other = free_name(other_side(name), taken)
            copy = put(thing, place, (2 * middle - place.x_mm, place.y_mm))
            side, _, digit = str(getattr(thing, "digit", "")).partition(" ")
            update: dict[str, str] = {"name": other}
            if digit:
                update["digit"] = f"{OTHER_SIDE[side]} {digit}"
            copies.append(copy.model_copy(update=update))
        return design.model_copy(update={"brief": design.brief.with_things(*copies)})


class PasteThings(Counted):
    """Put copies of things, of this project or of another one, so far from where they lay."""

    kind: Literal["paste-things"] = "paste-things"
    things: Annotated[tuple[AnyThing, ...], Field(min_length=1, max_length=200)]
    dx_mm: Delta = 10.0
    dy_mm: Delta = 0.0
    board: OtherName = ""

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Copy {and_more(tuple(thing.name for thing in self.things))}"

    def apply(self, design: Design) -> Design:
        """Add them under names of their own, on the named board or their own one; brains, rails and
        boards that are not here are left out.
        """
        brief = design.brief
        boards = {board.name for board in brief.boards}
        known = {thing.name for thing in brief.things} | {rail.name for rail in rails_of(brief)}
        taken = {thing.name.lower() for thing in brief.things}
        copies = []
        for thing in self.things:
            wanted = self.board or thing.board
            board = wanted if wanted in boards else brief.boards[0].name
            fields = ("rail", *thing.BRAIN_FIELDS)
            lost = {field: "" for field in fields if getattr(thing, field) not in known}
            copy = thing.model_copy(
                update={**lost, "name": free_name(thing.name, taken), "board": board}
            )
            if copy.place is not None:
                spot = (copy.place.x_mm + self.dx_mm, copy.place.y_mm + self.dy_mm)
                copy = put(copy, copy.place, spot)
            copies.append(copy)
        return design.model_copy(update={"brief": brief.with_things(*copies)})


def other_side(name: str) -> str:
    """The name with left and right, west and east exchanged."""
    return " ".join(OTHER_SIDE.get(word, word) for word in name.split(" "))


def free_name(wanted: str, taken: set[str]) -> str:
    """The wanted name, numbered where it is taken; it is taken from now on."""
    found_name, number = wanted, 2
    while found_name.lower() in taken:
        found_name = f"{wanted[:20]} {number}"
        number += 1
    taken.add(found_name.lower())
    return found_name

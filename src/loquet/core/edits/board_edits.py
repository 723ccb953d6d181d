"""Edits of boards: add, remove, rename, outline, holes at the corners."""

from typing import Literal

from loquet.core.brief import Board, Outline, Place, outline_polygon_mm
from loquet.core.brief.counted import Counted
from loquet.core.brief.kinds.hole import Hole, Screw
from loquet.core.brief.model import RoomMm
from loquet.core.brief.places import Name
from loquet.core.circuit.by_hand import AddPart
from loquet.core.design import Arrangement, Design
from loquet.core.edits.applying import (
    EditRefused,
    keys_of_things,
    with_brief,
    with_choices,
    without_keys,
)

INSET_MM = 4.0
BY_BOARD = ("wires", "arrangements", "pours")
"""Choices that are kept by board."""


def board_of(design: Design, name: str) -> Board:
    """The board of that name; raises EditRefused."""
    try:
        return design.brief.board(name)
    except KeyError:
        raise EditRefused(f"There is no board '{name}'.", "It may have been removed.") from None


class AddBoard(Counted):
    """Add a board."""

    kind: Literal["add-board"] = "add-board"
    board: Board

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Add the board {self.board.name}"

    def apply(self, design: Design) -> Design:
        """Put it behind the others; eight are the most."""
        if any(b.name.lower() == self.board.name.lower() for b in design.brief.boards):
            raise EditRefused(
                f"There is a board '{self.board.name}' already.", "Name it otherwise."
            )
        if len(design.brief.boards) == 8:
            raise EditRefused("A device has eight boards at the most.", "Remove one first.")
        return with_brief(design, boards=(*design.brief.boards, self.board))


class RemoveBoard(Counted):
    """Remove a board with everything on it."""

    kind: Literal["remove-board"] = "remove-board"
    name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Remove the board {self.name}"

    def apply(self, design: Design) -> Design:
        """Take it out; the last one stays."""
        board_of(design, self.name)
        brief = design.brief
        if len(brief.boards) == 1:
            raise EditRefused("The last board cannot be removed.", "Add another one first.")
        gone = {thing.name for thing in brief.on(self.name)}
        kept = {
            field: {
                b: value for b, value in getattr(design.choices, field).items() if b != self.name
            }
            for field in BY_BOARD
        }
        return with_brief(
            with_choices(design, **kept),
            boards=tuple(board for board in brief.boards if board.name != self.name),
            things=tuple(thing for thing in brief.things if thing.name not in gone),
            **without_keys(brief, keys_of_things(brief, gone)),
        )


class RenameBoard(Counted):
    """Give a board another name."""

    kind: Literal["rename-board"] = "rename-board"
    name: Name
    new_name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Rename the board {self.name} to {self.new_name}"

    def apply(self, design: Design) -> Design:
        """Change the name everywhere; what was made of it stays."""
        board = board_of(design, self.name)
        boards = tuple(
            b.model_copy(update={"name": self.new_name}) if b is board else b
            for b in design.brief.boards
        )
        things = tuple(
            t.model_copy(update={"board": self.new_name}) if t.board == self.name else t
            for t in design.brief.things
        )
        kept = {
            name: {self.new_name if k == self.name else k: v for k, v in made.items()}
            for name in ("placement", "routing", "pour")
            for made in (getattr(design, name),)
        }
        by_hand = tuple(
            (
                c.model_copy(update={"board": self.new_name})
                if isinstance(c, AddPart) and c.board == self.name
                else c
            )
            for c in design.choices.by_hand
        )
        by_board = {
            field: {
                self.new_name if board == self.name else board: value
                for board, value in getattr(design.choices, field).items()
            }
            for field in BY_BOARD
        }
        choices = design.choices.model_copy(update={"by_hand": by_hand, **by_board})
        return with_brief(design, boards=boards, things=things).model_copy(
            update={**kept, "choices": choices}
        )


class SetOutline(Counted):
    """The outline of a board (the main one where none is named); an existing shell keeps its own.

    Holes near the corners keep their distance from the corners, where the outline is upright and
    rounded before and after.
    """

    kind: Literal["set-outline"] = "set-outline"
    outline: Outline
    board: Name | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Change the outline"

    def apply(self, design: Design) -> Design:
        """Change it, and bring corner holes along."""
        brief = design.brief
        if brief.shell.kind == "existing":
            raise EditRefused(
                "The outline is that of an existing shell, which must be met exactly.",
                "Make the shell one's own first.",
            )
        board = board_of(design, self.board or "")
        new = board.model_copy(update={"outline": self.outline})
        boards = tuple(new if b is board else b for b in brief.boards)
        before, after = (outline_polygon_mm(b.outline).bounds for b in (board, new))
        things = tuple(
            (
                t.model_copy(update={"place": brought(t.place, before, after)})
                if t.place and t.board == board.name and t.drilled()
                else t
            )
            for t in brief.things
        )
        return with_brief(design, boards=boards, things=things)


Bounds = tuple[float, float, float, float]


def brought(place: Place, before: Bounds, after: Bounds) -> Place:
    """A place that keeps its distance from the nearer side each way."""
    x, y = place.x_mm, place.y_mm
    if x - before[0] > before[2] - x:
        x += after[2] - before[2]
    if y - before[1] > before[3] - y:
        y += after[3] - before[3]
    return place.model_copy(update={"x_mm": round(x, 3), "y_mm": round(y, 3)})


class AddCornerHoles(Counted):
    """Four fixing holes near the corners of a board's outline."""

    kind: Literal["add-corner-holes"] = "add-corner-holes"
    board: Name | None = None
    screw: Screw = "M2"

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Add fixing holes"

    def apply(self, design: Design) -> Design:
        """Put them 4 mm from both edges; names that are taken stay as they are."""
        board = board_of(design, self.board or "")
        left, bottom, right, top = outline_polygon_mm(board.outline).bounds
        prefix = "post" if board is design.brief.boards[0] else f"{board.name[:8].rstrip()} post"
        spots = {
            "south west": (left + INSET_MM, bottom + INSET_MM),
            "south east": (right - INSET_MM, bottom + INSET_MM),
            "north west": (left + INSET_MM, top - INSET_MM),
            "north east": (right - INSET_MM, top - INSET_MM),
        }
        there = {thing.name for thing in design.brief.things}
        added = tuple(
            Hole(
                name=f"{prefix} {corner}",
                board=board.name,
                place=Place(x_mm=round(x, 3), y_mm=round(y, 3)),
                screw=self.screw,
            )
            for corner, (x, y) in spots.items()
            if f"{prefix} {corner}" not in there
        )
        return with_brief(design, things=(*design.brief.things, *added))


class SetBuild(Counted):
    """How a board is built: its layers of copper (four bring inner planes of ground and of the
    widest supply), and whether parts may go behind where the front is full.
    """

    kind: Literal["set-build"] = "set-build"
    board: Name
    copper_layers: Literal[2, 4]
    both_sides: bool

    @property
    def label(self) -> str:
        """Words for the history."""
        behind = ", parts on both sides" if self.both_sides else ""
        return f"Build {self.board} on {self.copper_layers} layers{behind}"

    def apply(self, design: Design) -> Design:
        """Change it; the board is placed, routed and poured again."""
        board = board_of(design, self.board)
        built = {"copper_layers": self.copper_layers, "both_sides": self.both_sides}
        new = board.model_copy(update=built)
        boards = tuple(new if b is board else b for b in design.brief.boards)
        return with_brief(design, boards=boards)


class ChooseArrangement(Counted):
    """Which of several arrangements of its parts a board takes."""

    kind: Literal["choose-arrangement"] = "choose-arrangement"
    board: Name
    number: Arrangement

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Take arrangement {self.number} of {self.board}"

    def apply(self, design: Design) -> Design:
        """Want it; placing makes it."""
        return design.with_arrangement(board_of(design, self.board).name, self.number)


class SetRoom(Counted):
    """How much room there is above a board on both sides; None is not known."""

    kind: Literal["set-room"] = "set-room"
    board: Name
    near_room_mm: RoomMm | None = None
    far_room_mm: RoomMm | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Room above {self.board}"

    def apply(self, design: Design) -> Design:
        """Keep both; raises EditRefused where there is no such board."""
        before = board_of(design, self.board)
        room = {"near_room_mm": self.near_room_mm, "far_room_mm": self.far_room_mm}
        after = before.model_copy(update=room)
        return with_brief(
            design, boards=tuple(after if b is before else b for b in design.brief.boards)
        )

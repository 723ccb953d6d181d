"""The brief as frozen models: boards, things, wishes.

Places are millimetres from the lower left corner of a board's outline, seen from the near side.
"""

from collections.abc import Iterator
from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.any_thing import AnyThing
from loquet.core.brief.counted import Counted
from loquet.core.brief.making import Making
from loquet.core.brief.outline_shapes import Outline
from loquet.core.brief.pin_table import PinTable
from loquet.core.brief.places import Name
from loquet.core.brief.reading_keys import Chords, KeyScheme
from loquet.core.brief.thing import Group, Thing
from loquet.core.plain.frozen import Frozen

MAIN = "main"


RoomMm = Annotated[float, Field(gt=0, le=100, description="mm between board and shell")]


class Board(Counted):
    """A board of the device: its name and outline, and the room above its two sides where somebody
    has measured it. Copper lies on two layers, or on four with inner planes of ground and of the
    widest supply; on `both_sides` small parts may go behind where the front is full; how all
    boards are made is said in the brief's `making`.
    """

    name: Name = MAIN
    outline: Outline
    near_room_mm: RoomMm | None = None
    far_room_mm: RoomMm | None = None
    copper_layers: Literal[2, 4] = 2
    both_sides: bool = False

    @property
    def folder(self) -> str:
        """Its name as a folder of the package: `left half` as `left-half`."""
        return self.name.lower().replace(" ", "-")


class Shell(Frozen):
    """The shell: of one's own, or an existing one whose outline and holes must be met exactly and
    are not moved.
    """

    kind: Literal["own", "existing"] = "own"
    name: Annotated[str, Field(max_length=60)] = ""


class Shelf(Frozen):
    """What this project knows of parts: tables of its own chips and modules, by name."""

    pin_tables: Annotated[tuple[PinTable, ...], Field(max_length=12)] = ()

    def pin_table(self, name: str) -> PinTable | None:
        """The table of that name."""
        return next((table for table in self.pin_tables if table.name == name), None)


class Brief(Counted):
    """Everything the maker decides before the first pin is counted."""

    format: Literal["loquet-brief-2"] = "loquet-brief-2"
    name: Name
    purpose: Annotated[str, Field(max_length=300)] = ""
    role: Literal["stand-alone", "usb-controller", "usb-keyboard", "host-key-reader"] = (
        "stand-alone"
    )
    boards: Annotated[tuple[Board, ...], Field(min_length=1, max_length=8)]
    things: Annotated[tuple[AnyThing, ...], Field(max_length=400)] = ()
    key_scheme: KeyScheme = KeyScheme()
    chords: Chords = Chords()
    analogue_by: Literal["chip", "converter", "multiplexer"] = "chip"
    button_reading: Literal["internal-pull-up", "pull-down-resistors"] = "internal-pull-up"
    shell: Shell = Shell()
    making: Making = Making()
    shelf: Shelf = Shelf()
    quantity: Annotated[int, Field(ge=1, le=10_000)]
    wanted_by: date

    def board(self, name: str = "") -> Board:
        """The board of that name, the main one where none is named; raises KeyError."""
        if not name:
            return self.boards[0]
        for board in self.boards:
            if board.name == name:
                return board
        raise KeyError(name)

    def thing(self, name: str) -> Thing:
        """The thing of that name; raises KeyError."""
        for thing in self.things:
            if thing.name == name:
                return thing
        raise KeyError(name)

    def table_of(self, brain: Thing) -> PinTable | None:
        """The pin table of one's own that a brain is; nothing for one of the library."""
        named = str(getattr(brain, "table", ""))
        return self.shelf.pin_table(named) if named else None

    def find(self, name: str) -> Thing | None:
        """The thing of that name, or nothing: a board that was made may still name what the brief
        has lost.
        """
        return next((thing for thing in self.things if thing.name == name), None)

    def group(self, group: Group) -> tuple[Thing, ...]:
        """The things of a group, in the order of the brief."""
        return tuple(thing for thing in self.things if group == thing.GROUP)

    def on(self, board: str) -> Iterator[Thing]:
        """The things of a board."""
        return (thing for thing in self.things if thing.board == board)

    def with_things(self, *changed: Thing) -> "Brief":
        """The brief with these things in place of those of the same names, or behind the others;
        not checked.
        """
        by_name = {thing.name: thing for thing in changed}
        kept = tuple(by_name.pop(thing.name, thing) for thing in self.things)
        return self.model_copy(update={"things": (*kept, *by_name.values())})

    def without(self, name: str) -> "Brief":
        """The brief without the thing of that name."""
        rest = tuple(thing for thing in self.things if thing.name != name)
        return self.model_copy(update={"things": rest})

    @property
    def kinds(self) -> frozenset[str]:
        """The kinds that stand in this brief."""
        return frozenset(thing.kind for thing in self.things)

    @property
    def brains(self) -> tuple[Thing, ...]:
        """All brains, in the order of the brief."""
        return tuple(thing for thing in self.things if thing.BRAIN)

    @property
    def brain(self) -> Thing | None:
        """The first brain."""
        return next((thing for thing in self.things if thing.BRAIN), None)

"""Edits of a board's outline by mouse and calipers, and the taking of one from a drawing."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import Outline, Place, Thing
from loquet.core.brief.counted import Counted
from loquet.core.brief.kinds.cut_out import CutOut
from loquet.core.brief.kinds.free_cut_out import FreeCutOut
from loquet.core.brief.kinds.hole import Hole, screw_for
from loquet.core.brief.kinds.slot import Slot
from loquet.core.brief.places import Name
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_brief
from loquet.core.edits.board_edits import SetOutline, board_of
from loquet.core.outlining import FoundFree, FoundHole, FoundOpening, shaping

Index = Annotated[int, Field(ge=0, lt=400)]
Mm = Annotated[float, Field(ge=-50, le=350)]
LengthMm = Annotated[float, Field(gt=0, le=350)]
LARGEST_HOLE_MM = 6.3
SHARP_MM = 0.5  # what a cutter leaves where a drawing has a sharp inside corner


class MoveCorner(Counted):
    """Put a corner of the outline elsewhere, in mm."""

    kind: Literal["move-corner"] = "move-corner"
    index: Index
    x_mm: Mm
    y_mm: Mm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.corner_moved(outline, self.index, self.x_mm, self.y_mm)


class AddCorner(Counted):
    """Put a new corner on a side."""

    kind: Literal["add-corner"] = "add-corner"
    side: Index
    x_mm: Mm
    y_mm: Mm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.corner_added(outline, self.side, self.x_mm, self.y_mm)


class RemoveCorner(Counted):
    """Take a corner out."""

    kind: Literal["remove-corner"] = "remove-corner"
    index: Index

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.corner_removed(outline, self.index)


class RoundCorner(Counted):
    """Cut a corner round."""

    kind: Literal["round-corner"] = "round-corner"
    index: Index
    radius_mm: LengthMm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.corner_rounded(outline, self.index, self.radius_mm)


class MakeSide(Counted):
    """Make a side as long as calipers say."""

    kind: Literal["make-side"] = "make-side"
    side: Index
    length_mm: LengthMm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.side_made(outline, self.side, self.length_mm)


class BendSide(Counted):
    """Bend a side outwards, or inwards below zero."""

    kind: Literal["bend-side"] = "bend-side"
    side: Index
    rise_mm: Mm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.side_bent(outline, self.side, self.rise_mm)


class CutNotch(Counted):
    """Cut a rectangular notch into a side."""

    kind: Literal["cut-notch"] = "cut-notch"
    side: Index
    from_mm: Annotated[float, Field(ge=0, le=300)]
    width_mm: LengthMm
    depth_mm: LengthMm

    def shape(self, outline: Outline) -> Outline:
        """The new outline."""
        return shaping.notched(outline, self.side, self.from_mm, self.width_mm, self.depth_mm)


Shaping = Annotated[
    MoveCorner | AddCorner | RemoveCorner | RoundCorner | MakeSide | BendSide | CutNotch,
    Field(discriminator="kind"),
]
WORDS = {
    "move-corner": "Move a corner of the outline",
    "add-corner": "Add a corner to the outline",
    "remove-corner": "Remove a corner of the outline",
    "round-corner": "Round a corner of the outline",
    "make-side": "Length of a side",
    "bend-side": "Bend a side",
    "cut-notch": "Cut a notch",
}


class ShapeOutline(Counted):
    """A change of a board's outline by hand; an existing shell keeps its own."""

    kind: Literal["shape-outline"] = "shape-outline"
    board: Name
    by: Shaping

    @property
    def label(self) -> str:
        """Words for the history."""
        return WORDS[self.by.kind]

    def apply(self, design: Design) -> Design:
        """Shape it; raises EditRefused where the outline does not allow it."""
        board = board_of(design, self.board)
        try:
            outline = self.by.shape(board.outline)
        except shaping.NotShaped as error:
            raise EditRefused(error.why, error.way_out) from None
        return SetOutline(outline=outline, board=self.board).apply(design)


class TakeOutline(Counted):
    """Take the outline, holes and openings of a drawing; those that the board had before are
    replaced. `existing` locks it all as that of a shell which must be met.
    """

    kind: Literal["take-outline"] = "take-outline"
    board: Name
    outline: Outline
    holes: Annotated[tuple[FoundHole, ...], Field(max_length=100)] = ()
    openings: Annotated[tuple[FoundOpening, ...], Field(max_length=100)] = ()
    free: Annotated[tuple[FoundFree, ...], Field(max_length=100)] = ()
    existing: bool = False

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Take the outline of a drawing"

    def apply(self, design: Design) -> Design:
        """Replace outline, holes, slots and cut-outs of the board."""
        after = SetOutline(outline=self.outline, board=self.board).apply(design)
        brief = after.brief
        kept = tuple(
            thing
            for thing in brief.things
            if thing.board != self.board
            or thing.kind not in ("hole", "slot", "cut-out", "free-cut-out")
        )
        taken = {thing.name.lower() for thing in kept}
        added = []
        for word, made in self.made():
            number = 1
            while f"{word} {number}".lower() in taken:
                number += 1
            taken.add(f"{word} {number}")
            added.append(made.model_copy(update={"name": f"{word} {number}"}))
        shell = (
            brief.shell.model_copy(update={"kind": "existing"}) if self.existing else brief.shell
        )
        return with_brief(after, things=(*kept, *added), shell=shell)

    def made(self) -> list[tuple[str, Thing]]:
        """The things of the drawing, with the word they are named by."""
        things: list[tuple[str, Thing]] = []
        for hole in self.holes:
            place = Place(x_mm=round(hole.x_mm, 3), y_mm=round(hole.y_mm, 3))
            if hole.d_mm > LARGEST_HOLE_MM:
                d = hole.d_mm
                round_one = CutOut(
                    name="new",
                    board=self.board,
                    place=place,
                    width_mm=d,
                    height_mm=d,
                    corner_mm=d / 2,
                )
                things.append(("opening", round_one))
                continue
            screw = screw_for(hole.d_mm)
            drilled = Hole(
                name="new", board=self.board, place=place, screw=screw, diameter_mm=hole.d_mm
            )
            things.append(("post" if screw != "none" else "peg", drilled))
        for opening in self.openings:
            place = Place(
                x_mm=round(opening.x_mm, 3), y_mm=round(opening.y_mm, 3), turn_deg=opening.turn_deg
            )
            w, h = opening.width_mm, opening.height_mm
            if opening.corner_mm >= h / 2 - 0.02 and w > h:
                slot = Slot(name="new", board=self.board, place=place, length_mm=w, width_mm=h)
                things.append(("slot", slot))
            else:
                corner = min(max(opening.corner_mm, SHARP_MM), w / 2, h / 2)
                cut = CutOut(
                    name="new",
                    board=self.board,
                    place=place,
                    width_mm=w,
                    height_mm=h,
                    corner_mm=corner,
                )
                things.append(("opening", cut))
        for one in self.free:
            place = Place(x_mm=round(one.x_mm, 3), y_mm=round(one.y_mm, 3))
            shaped = FreeCutOut(name="new", board=self.board, place=place, line=one.line)
            things.append(("opening", shaped))
        return things

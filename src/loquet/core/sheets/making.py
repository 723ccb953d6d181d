"""The areas of a circuit: its blocks, each with its parts arranged."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from loquet.core.circuit.model import Circuit
from loquet.core.library import Library
from loquet.core.sheets.boxes import draw_boxes, draw_transistor
from loquet.core.sheets.drawn import UNIT_MM, Area, Pen, in_mm
from loquet.core.sheets.faces import Face, Nets, face_of, nets_of
from loquet.core.sheets.packing import Place, pack
from loquet.core.sheets.strands import Pool, Strand
from loquet.core.sheets.titles import place_of

GAP = 1.6


@dataclass(frozen=True)
class Room:
    """What an area may take, in units: the widths that are tried, and the greatest height."""

    widths: tuple[float, ...]
    tallest: float


PAGE = Room((53.0, 82.0, 109.0), 66.0)
SCREEN = Room((53.0,), float("inf"))


def areas_of(circuit: Circuit, library: Library, room: Room = SCREEN) -> tuple[Area, ...]:
    """Every block of every board as a drawn area (as several where the room is too small for one),
    in the order in which they are read; raises PartError.
    """
    nets = nets_of(circuit)
    refs = {c.role: c.ref for c in circuit.components}
    groups: dict[tuple[str, str], list[Face]] = {}
    for component in circuit.components:
        near = refs.get(component.near_role, "") if component.near_pad else ""
        face = replace(
            face_of(component, library), near=f"at {near}.{component.near_pad}" if near else ""
        )
        groups.setdefault((component.board, component.block), []).append(face)
    boards = list(dict.fromkeys(board for board, _ in groups))
    made = []
    for board, block in sorted(groups, key=lambda k: (boards.index(k[0]), place_of(k[1]))):
        faces = groups[board, block]
        for pen in arranged(cells_of(faces, nets), room):
            made.append(area(block, board, pen, faces))
    return tuple(made)


def area(block: str, board: str, pen: Pen, faces: Sequence[Face]) -> Area:
    """What a pen drew as an area in mm."""
    shown = {ref for ref, _ in pen.pads}
    workings = {f.component.working: None for f in faces if f.ref in shown and f.component.working}
    return Area(
        block=block,
        board=board,
        width_mm=round(pen.width * UNIT_MM, 2),
        height_mm=round(pen.height * UNIT_MM, 2),
        marks=tuple(in_mm(mark) for mark in pen.marks),
        pads=tuple(pen.pads),
        workings=tuple(workings),
    )


def cells_of(faces: Sequence[Face], nets: Nets) -> list[Pen]:
    """What can be moved about as one: boxes with their strands, then strands without a box.

    Large ones come first.
    """
    pool = Pool([f for f in faces if f.ends or (f.symbol == "box" and len(f.rows) == 1)], nets)
    single = {f.ref for f in pool.faces}
    cells = []
    many = sorted((f for f in faces if f.ref not in single), key=lambda f: -len(f.rows))
    for face in many:
        if face.symbol == "box":
            cells += draw_boxes(face, pool)
        else:
            cells.append(draw_transistor(face, pool))
    loose = [Strand(pool).from_part(face).pen for face in pool.faces if face.ref not in pool.taken]
    return cells + in_columns(loose)


def in_columns(cells: list[Pen]) -> list[Pen]:
    """Strands of much the same width as one width, so that they stand in columns."""
    if cells and max(c.width for c in cells) < 2 * min(c.width for c in cells):
        right = max(c.width for c in cells)
        for cell in cells:
            cell.reach((cell.left + right, 0.0))
    return cells


def arranged(cells: Sequence[Pen], room: Room) -> list[Pen]:
    """Cells packed in one area of the least width that holds them all, or the widest of them; in as
    many as they need where the greatest does not.
    """
    sizes = [(cell.width + GAP, cell.height + GAP) for cell in cells]
    least = max(wide for wide, _ in sizes)
    widths = [max(least, width) for width in room.widths]
    for width in widths:
        if None not in (places := pack(sizes, width, room.tallest)):
            return [put(cells, places)]
    pens, rest = [], list(cells)
    while rest:
        places = pack([(c.width + GAP, c.height + GAP) for c in rest], widths[-1], room.tallest)
        if places[0] is None:
            places = [(0.0, 0.0), *[None] * (len(rest) - 1)]
        pens.append(put(rest, places))
        rest = [cell for cell, place in zip(rest, places, strict=True) if place is None]
    return pens


def put(cells: Sequence[Pen], places: Sequence[Place | None]) -> Pen:
    """The cells that have a place, on it."""
    pen = Pen()
    for cell, place in zip(cells, places, strict=True):
        if place is not None:
            pen.put(cell, *place)
    return pen

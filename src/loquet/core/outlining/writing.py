"""A board's outline with its holes and openings as DXF and SVG, at true size in millimetres, from
the near side.
"""

import io
from math import atan2, degrees, hypot

from loquet.core.board.openings import board_profile
from loquet.core.board.outline import Arc, Line, Piece
from loquet.core.brief import Board, Brief, outline_polygon_mm

Hole = tuple[float, float, float]


def holes_of(brief: Brief, board: Board) -> list[Hole]:
    """Middle and diameter in mm of the holes for screws and pegs."""
    found = []
    for thing in brief.on(board.name):
        drilled = thing.drilled()
        if drilled and thing.place:
            found.append((thing.place.x_mm, thing.place.y_mm, drilled.d_mm))
    return found


def outline_as_dxf(brief: Brief, board: Board) -> bytes:
    """DXF R2000 in mm: the cut lines on the layer OUTLINE, drilled holes on HOLES."""
    from ezdxf import filemanagement, units  # loaded when first asked for

    file = filemanagement.new("R2000", units=units.MM)
    file.layers.add("OUTLINE")
    file.layers.add("HOLES")
    space = file.modelspace()
    for piece in board_profile(brief, board):
        on = {"layer": "OUTLINE"}
        if isinstance(piece, Line):
            first, last = (piece.x1 / 1e6, piece.y1 / 1e6), (piece.x2 / 1e6, piece.y2 / 1e6)
            space.add_line(first, last, dxfattribs=on)
            continue
        begin, end = angles_of(piece)
        if piece.clockwise:
            begin, end = end, begin
        radius = hypot(piece.x1 - piece.cx, piece.y1 - piece.cy) / 1e6
        space.add_arc((piece.cx / 1e6, piece.cy / 1e6), radius, begin, end, dxfattribs=on)
    for x, y, d in holes_of(brief, board):
        space.add_circle((x, y), d / 2, dxfattribs={"layer": "HOLES"})
    text = io.StringIO()
    file.write(text)
    return text.getvalue().encode()


def angles_of(arc: Arc) -> tuple[float, float]:
    """The directions in degrees from the middle of an arc to its ends."""
    return (
        degrees(atan2(arc.y1 - arc.cy, arc.x1 - arc.cx)),
        degrees(atan2(arc.y2 - arc.cy, arc.x2 - arc.cx)),
    )


def outline_as_svg(brief: Brief, board: Board) -> bytes:
    """SVG whose user unit is a millimetre; lines of 0.1 mm, y turned down."""
    area = outline_polygon_mm(board.outline)
    left, bottom, right, top = area.bounds
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{right - left:.4f}mm"'
            f' height="{top - bottom:.4f}mm" viewBox="0 0 {right - left:.4f} {top - bottom:.4f}">'
        ),
        '<g fill="none" stroke="#000" stroke-width="0.1">',
    ]
    lines += [f'<path d="{d}"/>' for d in paths_of(board_profile(brief, board), top)]
    lines += [
        f'<circle cx="{x:.4f}" cy="{top - y:.4f}" r="{d / 2:.4f}"/>'
        for x, y, d in holes_of(brief, board)
    ]
    return "\n".join([*lines, "</g>", "</svg>", ""]).encode()


def paths_of(pieces: tuple[Piece, ...], top: float) -> list[str]:
    """Each closed line as path data."""
    found: list[str] = []
    at: tuple[int, int] | None = None
    for piece in pieces:
        if at != (piece.x1, piece.y1):
            found.append(f"M{piece.x1 / 1e6:.4f} {top - piece.y1 / 1e6:.4f}")
        at = (piece.x2, piece.y2)
        end = f"{piece.x2 / 1e6:.4f} {top - piece.y2 / 1e6:.4f}"
        if isinstance(piece, Line):
            found[-1] += f"L{end}"
        else:
            radius = hypot(piece.x1 - piece.cx, piece.y1 - piece.cy) / 1e6
            found[-1] += f"A{radius:.4f} {radius:.4f} 0 0 {int(piece.clockwise)} {end}"
    return [f"{data}Z" for data in found]

"""Writing Gerber X2 (Ucamco Gerber Layer Format Specification 2023.08), in millimetres to the
nanometre.

Apertures are numbered in the order of their first use after sorting, so the same layer gives the
same bytes.
"""

from loquet import __version__
from loquet.core.board.model import PourPiece, Ring
from loquet.core.board.outline import Line, Piece
from loquet.core.fabrication.layers import Drawn, Layer, drawing_order
from loquet.core.geometry import Bar, Box, Round, Shape


def write_layer(layer: Layer, project: str, project_id: str, part: str = "Single") -> bytes:
    """A layer as Gerber text: pour first (holes cleared), then pads and strokes with their
    attributes; `part` says whether it is one board or an `Array` of them.
    """
    lines = header(layer.function, project, project_id, layer.negative, part)
    lines += macro_lines(layer.objects)
    apertures = number_apertures(layer.objects)
    function = ""
    for (name, definition), number in apertures.items():
        if name != function:
            lines.append(f"%TA.AperFunction,{name}*%")
            function = name
        lines.append(f"%ADD{number}{definition}*%")
    lines += ["%TD*%", "G01*"]
    if layer.pieces:
        lines += pour_lines(layer.pieces)
    lines += object_lines(layer.objects, apertures)
    lines += ["%TD*%", "M02*", ""]
    return "\n".join(lines).encode("ascii")


def write_profile(
    pieces: tuple[Piece, ...], project: str, project_id: str, part: str = "Single"
) -> bytes:
    """The board's outline and its openings, with true arcs at their corners."""
    lines = header("Profile,NP", project, project_id, False, part)
    lines += ["%TA.AperFunction,Profile*%", "%ADD10C,0.100000*%", "%TD*%", "G75*", "D10*"]
    at: tuple[int, int] | None = None
    for piece in pieces:
        if at != (piece.x1, piece.y1):
            lines.append(f"{place(piece.x1, piece.y1)}D02*")
        at = (piece.x2, piece.y2)
        if isinstance(piece, Line):
            lines.append(f"G01{place(piece.x2, piece.y2)}D01*")
        else:
            way = "G02" if piece.clockwise else "G03"
            lines.append(
                f"{way}{place(piece.x2, piece.y2)}I{piece.cx - piece.x1}J{piece.cy - piece.y1}D01*"
            )
    lines += ["G01*", "M02*", ""]
    return "\n".join(lines).encode("ascii")


def header(function: str, project: str, project_id: str, negative: bool, part: str) -> list[str]:
    """File attributes and format; no date, so that the same design gives the same bytes."""
    return [
        f"%TF.GenerationSoftware,Larkfield,Loquet,{__version__}*%",
        f"%TF.ProjectId,{project},{project_id},A*%",
        f"%TF.Part,{part}*%",
        f"%TF.FileFunction,{function}*%",
        f"%TF.FilePolarity,{'Negative' if negative else 'Positive'}*%",
        f"%TF.SameCoordinates,{project_id[:8]}*%",
        "%FSLAX46Y46*%",
        "%MOMM*%",
        "%LPD*%",
    ]


def aperture_of(shape: Shape) -> str:
    """The aperture that flashes or strokes a shape."""
    match shape:
        case Round():
            return f"C,{shape.d / 1e6:.6f}"
        case Box() if shape.turn:
            return f"{macro_name(shape)}"
        case Box():
            return f"R,{shape.w / 1e6:.6f}X{shape.h / 1e6:.6f}"
        case Bar():
            return f"C,{shape.w / 1e6:.6f}"


def macro_name(box: Box) -> str:
    """The name of the macro of a turned rectangle, which says what it draws: width and height in
    nm, degrees.
    """
    return f"TurnedW{box.w}H{box.h}A{box.turn}"


def macro_lines(objects: tuple[Drawn, ...]) -> list[str]:
    """A macro for each turned rectangle: a centre line (primitive 21) with its turn worked out
    beforehand.
    """
    boxes = {d.shape for d in objects if isinstance(d.shape, Box) and d.shape.turn}
    sizes = sorted({(b.w, b.h, b.turn) for b in boxes})
    return [
        f"%AM{macro_name(Box(0, 0, w, h, turn))}*21,1,{w / 1e6:.6f},{h / 1e6:.6f},0,0,{turn}*%"
        for w, h, turn in sizes
    ]


def number_apertures(objects: tuple[Drawn, ...]) -> dict[tuple[str, str], int]:
    """Numbers from 10 up, by function and definition."""
    kinds = sorted({(drawn.function, aperture_of(drawn.shape)) for drawn in objects})
    return {kind: number for number, kind in enumerate(kinds, 10)}


def pour_lines(pieces: tuple[PourPiece, ...]) -> list[str]:
    """Regions, large before small, each followed by its holes in clear polarity; their net is
    written when it changes.
    """
    lines, net = ["%TA.AperFunction,Conductor*%"], ""
    for piece in drawing_order(pieces):
        if piece.net != net:
            net = piece.net
            lines.append(f"%TO.N,{net}*%")
        lines += region(piece.outer)
        if piece.holes:
            lines.append("%LPC*%")
            for hole in piece.holes:
                lines += region(hole)
            lines.append("%LPD*%")
    return [*lines, "%TD*%"]


def region(ring: Ring) -> list[str]:
    """One closed contour."""
    lines = ["G36*", f"{place(*ring[0])}D02*"]
    lines += [f"{place(x, y)}D01*" for x, y in (*ring[1:], ring[0])]
    return [*lines, "G37*"]


def object_lines(objects: tuple[Drawn, ...], apertures: dict[tuple[str, str], int]) -> list[str]:
    """Pads flashed and strokes drawn, grouped by aperture; attributes are written when they
    change.
    """
    lines: list[str] = []
    current, attributes = 0, ("", "", "")
    for drawn in sorted(
        objects,
        key=lambda d: (
            apertures[d.function, aperture_of(d.shape)],
            d.net,
            d.ref,
            d.pad,
            order_key(d.shape),
        ),
    ):
        number = apertures[drawn.function, aperture_of(drawn.shape)]
        if (drawn.net, drawn.ref, drawn.pad) != attributes:
            lines += attribute_lines(drawn, attributes != ("", "", ""))
            attributes = (drawn.net, drawn.ref, drawn.pad)
        if number != current:
            lines.append(f"D{number}*")
            current = number
        match drawn.shape:
            case Bar() as bar:
                lines += [f"{place(bar.x1, bar.y1)}D02*", f"{place(bar.x2, bar.y2)}D01*"]
            case Round() | Box() as pad:
                lines.append(f"{place(pad.x, pad.y)}D03*")
    return lines


def order_key(shape: Shape) -> tuple[int, ...]:
    """A stable order of shapes."""
    match shape:
        case Bar():
            return shape.x1, shape.y1, shape.x2, shape.y2
        case Round() | Box():
            return shape.x, shape.y


def attribute_lines(drawn: Drawn, clear: bool) -> list[str]:
    """Object attributes: pad and component, and net (`N/C` for a pad on none)."""
    lines = ["%TD*%"] if clear else []
    if drawn.ref:
        lines += [
            f"%TO.P,{drawn.ref},{drawn.pad}*%",
            f"%TO.C,{drawn.ref}*%",
            f"%TO.N,{drawn.net or 'N/C'}*%",
        ]
    elif drawn.net:
        lines.append(f"%TO.N,{drawn.net}*%")
    return lines


def place(x: int, y: int) -> str:
    """Coordinates of an operation: whole nanometres are the sixth decimal of a millimetre."""
    return f"X{x}Y{y}"

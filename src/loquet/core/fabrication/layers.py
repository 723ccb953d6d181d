"""What each layer holds, as a plan of objects, before any of it is text."""

from dataclasses import dataclass

from loquet.core.board.copper import FAR, NEAR, BoardView, Copper
from loquet.core.board.model import Plane, PourPiece, Ring
from loquet.core.board.planes import inner_pads
from loquet.core.geometry import Box, Round, Shape, grown, turned
from loquet.core.legend import Legend

WINDOWED_NM = 3_000_000
CROSS_NM = 400_000


@dataclass(frozen=True)
class Drawn:
    """A pad or stroke on a layer with its meaning: aperture function, net, component, pad."""

    shape: Shape
    function: str
    net: str = ""
    ref: str = ""
    pad: str = ""


@dataclass(frozen=True)
class Layer:
    """A layer: file name, file function of the Gerber specification, polarity, poured pieces, then
    objects.
    """

    file: str
    function: str
    objects: tuple[Drawn, ...]
    pieces: tuple[PourPiece, ...] = ()
    negative: bool = False


def plan_layers(view: BoardView, legend: Legend) -> tuple[Layer, ...]:
    """All layers but the profile, near side first."""
    last = view.board.copper_layers
    planes = view.pour.planes if view.pour else ()
    return (
        copper_layer(view, NEAR, "Copper,L1,Top"),
        *(plane_layer(view, plane) for plane in planes),
        copper_layer(view, FAR, f"Copper,L{last},Bot"),
        mask_layer(view, NEAR, "Soldermask,Top"),
        mask_layer(view, FAR, "Soldermask,Bot"),
        legend_layer(legend, NEAR, "Legend,Top"),
        legend_layer(legend, FAR, "Legend,Bot"),
        paste_layer(view, NEAR, "Paste,Top"),
        paste_layer(view, FAR, "Paste,Bot"),
    )


def copper_layer(view: BoardView, side: str, function: str) -> Layer:
    """Pads, then vias, then tracks, above the pour."""
    objects = [
        Drawn(c.shape, copper_function(c), c.net, c.ref, c.pad)
        for c in (*view.pads, *view.wiring)
        if side in c.sides
    ]
    pieces = tuple(p for p in view.poured if p.far == (side == FAR))
    return Layer(f"copper-{side}.gbr", function, tuple(objects), pieces)


def plane_layer(view: BoardView, plane: Plane) -> Layer:
    """An inner plane with the rings of its own leads."""
    rings = inner_pads(view, plane.net)
    return Layer(
        f"copper-inner-{FAR if plane.far else NEAR}.gbr",
        f"Copper,L{3 if plane.far else 2},Inr",
        tuple(Drawn(c.shape, "ComponentPad", c.net, c.ref, c.pad) for c in rings),
        tuple(piece.model_copy(update={"net": plane.net}) for piece in plane.pieces),
    )


def copper_function(copper: Copper) -> str:
    """The aperture function of a piece of copper."""
    if copper.kind == "track":
        return "Conductor"
    if copper.kind == "via":
        return "ViaPad"
    if copper.bare_nm:
        return "FiducialPad,Global"
    return "ComponentPad" if copper.drill_nm else "SMDPad,CuDef"


def mask_layer(view: BoardView, side: str, function: str) -> Layer:
    """Openings over all pads that are soldered or touched bare, and around unplated holes; vias
    stay covered.
    """
    grow = view.rules.mask_grow_nm
    objects = [
        Drawn(grown(c.shape, c.bare_nm or grow), "Material", c.net, c.ref, c.pad)
        for c in view.pads
        if side in c.sides and not c.covered
    ]
    objects += [
        Drawn(Round(h.x, h.y, h.d + 200_000), "Material") for h in view.holes if not h.plated
    ]
    return Layer(f"mask-{side}.gbr", function, tuple(objects), negative=True)


def legend_layer(legend: Legend, side: str, function: str) -> Layer:
    """All strokes of the legend."""
    return Layer(
        f"legend-{side}.gbr",
        function,
        tuple(Drawn(stroke, "Material") for stroke in legend.strokes[side]),
    )


def paste_layer(view: BoardView, side: str, function: str) -> Layer:
    """Stencil openings at surface pads; a large pad, and one with heat holes, gets a window in each
    quarter.
    """
    objects: list[Drawn] = []
    holed = {(c.ref, c.pad) for c in view.pads if c.covered and c.drill_nm}
    for c in view.pads:
        if side in c.sides and c.paste and not c.drill_nm:
            openings = stencil_openings(c.shape, (c.ref, c.pad) in holed)
            objects += [Drawn(shape, "Material", c.net, c.ref, c.pad) for shape in openings]
    return Layer(f"paste-{side}.gbr", function, tuple(objects))


def stencil_openings(shape: Shape, holed: bool = False) -> tuple[Shape, ...]:
    """One opening the size of the pad, or four windows over one wider than 3 mm both ways or with
    heat holes.

    The cross between the windows is wide enough for a heat hole, so that no paste runs down it.
    """
    if isinstance(shape, Box) and (holed or min(shape.w, shape.h) > WINDOWED_NM):
        w, h = (window_nm(side) for side in (shape.w, shape.h))
        steps = [(sx * shape.w // 4, sy * shape.h // 4) for sy in (-1, 1) for sx in (-1, 1)]
        spots = [turned(dx, dy, shape.turn) for dx, dy in steps]
        return tuple(Box(shape.x + dx, shape.y + dy, w, h, shape.turn) for dx, dy in spots)
    return (shape,)


def window_nm(side_nm: int) -> int:
    """The side of a window in a quarter of a pad: 38 % of the pad's, less where a heat hole needs
    more room between two.
    """
    return min(side_nm * 38 // 100, side_nm // 2 - CROSS_NM) // 1000 * 1000


def drawing_order(pieces: tuple[PourPiece, ...]) -> list[PourPiece]:
    """Poured pieces as they must be drawn: large before small, so that a hole never clears a piece
    that lies in it.
    """
    return sorted(pieces, key=lambda piece: (-abs(ring_area(piece.outer)), piece.outer))


def ring_area(ring: Ring) -> int:
    """Twice the signed area of a ring."""
    return sum(
        x1 * y2 - x2 * y1 for (x1, y1), (x2, y2) in zip(ring, (*ring[1:], ring[0]), strict=True)
    )

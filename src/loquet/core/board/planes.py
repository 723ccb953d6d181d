"""Inner planes of a board with four layers of copper: ground under the near side, the widest supply
above the far side.
"""

import shapely
from shapely.geometry import Point
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView, Copper, Hole
from loquet.core.board.model import Plane, PourPiece, Via
from loquet.core.board.pouring import (
    CURVE_NM,
    opening,
    polygons,
    relieved,
    thinned,
    with_relief,
)
from loquet.core.circuit import Circuit
from loquet.core.circuit.model import GROUND
from loquet.core.geometry import Round, polygon_of

INNER_GAP_NM = 250_000  # from the wall of a hole; common practice for inner layers, no source
INNER_RING_NM = 200_000


def plane_net(circuit: Circuit) -> str:
    """The supply that gets a plane: the one with the most contacts; empty where there is none."""
    rails = [net for net in circuit.nets if net.kind == "supply" and net.pads]
    return max(rails, key=lambda net: len(net.pads)).name if rails else ""


def planes_of(view: BoardView, stitches: tuple[Via, ...]) -> tuple[Plane, ...]:
    """Both planes, or none on a board with two layers; `stitches` are vias of the pour that the
    view does not hold yet.
    """
    if view.board.copper_layers == 2:
        return ()
    nets = [(GROUND, False), (plane_net(view.circuit), True)]
    return tuple(plane_of(view, net, far, stitches) for net, far in nets if net)


def plane_of(view: BoardView, net: str, far: bool, stitches: tuple[Via, ...]) -> Plane:
    """The board's area less its edge and all holes of other nets with their gap, with heat relief
    at leads of its own; pieces that no hole of its own meets are left out.
    """
    rules = view.rules
    drilled = tuple(Hole(v.x_nm, v.y_nm, rules.via_hole_nm, True, v.net, "via") for v in stitches)
    holes = (*view.holes, *drilled)
    base = view.wiring_area.buffer(-(rules.edge_nm + CURVE_NM))
    away = [
        Point(h.x, h.y).buffer(h.d / 2 + INNER_GAP_NM + CURVE_NM, quad_segs=32)
        for h in holes
        if not h.plated or h.net != net
    ]
    allowed = base.difference(shapely.union_all(away))
    pads = inner_pads(view, net)
    poured = opening(with_relief(allowed, [pad.shape for pad in pads]))
    own: list[BaseGeometry] = [Point(h.x, h.y) for h in holes if h.plated and h.net == net]
    own += [polygon_of(pad.shape) for pad in pads]
    return Plane(net=net, far=far, pieces=held_pieces(poured, own, far))


def held_pieces(poured: BaseGeometry, own: list[BaseGeometry], far: bool) -> tuple[PourPiece, ...]:
    """The pieces that something of their net meets."""
    tree = shapely.STRtree(own)
    return tuple(
        thinned(piece, far)
        for piece in polygons(poured)
        if len(tree.query(piece, predicate="intersects"))
    )


def inner_pads(view: BoardView, net: str) -> tuple[Copper, ...]:
    """Rings around leads of a net on its plane; vias and heat holes lie in the plane in full, and
    holes of other nets need none.
    """
    return tuple(
        Copper(net, (), ring, "pad", pad.ref, pad.pad, pad.drill_nm, pad.drill_x, pad.drill_y)
        for pad in view.pads
        if pad.net == net and pad.drill_nm and relieved(pad)
        for ring in (Round(pad.drill_x, pad.drill_y, pad.drill_nm + 2 * INNER_RING_NM),)
    )

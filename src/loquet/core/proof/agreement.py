"""Whether the files hold exactly the objects of the design: every pad, stroke, hole, contour and
list row, by place.
"""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

import shapely
from shapely.geometry import Polygon
from shapely.geometry.base import BaseGeometry

from loquet.core.board.copper import BoardView
from loquet.core.board.model import Ring
from loquet.core.board.outline import Arc, Line, Piece
from loquet.core.fabrication.layers import Drawn, Layer, drawing_order
from loquet.core.geometry import Bar, Shape, middle_of
from loquet.core.proof.drill_reader import ReadHole
from loquet.core.proof.gerber_reader import ReadLayer

POUR_TOLERANCE_NM2 = 1e9


@dataclass(frozen=True)
class Fault:
    """Something in the files that is not the design: the file, the net, the place in mm, and a
    sentence.
    """

    file: str
    net: str
    x_mm: float
    y_mm: float
    sentence: str


def fault(file: str, net: str, x: float, y: float, sentence: str) -> Fault:
    """A fault with its place in mm, which the sentence names as well."""
    return Fault(
        file,
        net,
        round(x / 1e6, 3),
        round(y / 1e6, 3),
        f"{sentence} at {x / 1e6:.2f}, {y / 1e6:.2f} mm ({file}).",
    )


def same_way(shape: Shape) -> Shape:
    """A stroke with its ends in a fixed order, since both ways are the same copper."""
    if isinstance(shape, Bar) and (shape.x2, shape.y2) < (shape.x1, shape.y1):
        return Bar(shape.x2, shape.y2, shape.x1, shape.y1, shape.w)
    return shape


def name_of(drawn: Drawn) -> str:
    """What an object is, with its net."""
    if drawn.ref:
        what = f"{drawn.ref} pad {drawn.pad}"
    else:
        what = {"Conductor": "a track", "ViaPad": "a via"}.get(
            drawn.function, "a stroke" if isinstance(drawn.shape, Bar) else "an opening"
        )
    return f"{what} of {drawn.net}" if drawn.net else what


def compare_layer(plan: Layer, read: ReadLayer) -> list[Fault]:
    """Objects missing from the file or not of the design, and pours that differ."""
    file = plan.file
    wanted = {same_way(d.shape): d for d in plan.objects}
    wanted_counts = Counter(same_way(d.shape) for d in plan.objects)
    found_counts = Counter(same_way(o.shape) for o in read.objects)
    nets = {same_way(o.shape): o.net for o in read.objects}
    faults = []
    for shape, count in (wanted_counts - found_counts).items():
        drawn = wanted[shape]
        faults.append(
            fault(
                file,
                drawn.net,
                *middle_of(shape),
                (
                    f"{name_of(drawn)} is missing or changed ({count} fewer)"
                    if count > 1
                    else f"{name_of(drawn)} is missing or changed"
                ),
            )
        )
    for shape in found_counts - wanted_counts:
        label = f" named {nets[shape]}" if nets[shape] else ""
        faults.append(
            fault(
                file, nets[shape], *middle_of(shape), f"an object{label} that is not in the design"
            )
        )
    for o in read.objects:
        drawn = wanted.get(same_way(o.shape))  # type: ignore[assignment]
        if (
            drawn is not None
            and (o.net, o.ref, o.pad) != (drawn.net, drawn.ref, drawn.pad)
            and wanted_counts[same_way(o.shape)] == 1
        ):
            faults.append(
                fault(
                    file,
                    drawn.net,
                    *middle_of(o.shape),
                    f"{name_of(drawn)} is labelled {o.net or 'no net'} {o.ref} {o.pad}".rstrip(),
                )
            )
    if any(not o.dark for o in read.objects):
        faults.append(fault(file, "", 0, 0, "a pad or stroke that clears"))
    faults += [
        fault(file, "", arc.x1, arc.y1, "an arc that is not in the design") for arc in read.arcs
    ]
    return faults + compare_pour(plan, read)


def same_rings(plan: Layer, read: ReadLayer) -> bool:
    """Whether the file has exactly the contours of the plan, dark and clear, in the order in which
    they must be drawn.
    """
    wanted: list[tuple[Ring, bool, str]] = []
    for piece in drawing_order(plan.pieces):
        wanted += [(piece.outer, True, piece.net), *((h, False, piece.net) for h in piece.holes)]
    return wanted == [
        (region.ring, region.dark, region.net)
        for region in sorted(read.regions, key=lambda r: r.order)
    ]


def compare_pour(plan: Layer, read: ReadLayer) -> list[Fault]:
    """The poured areas net by net, by what only one of both has."""
    if same_rings(plan, read):
        return []
    wanted: dict[str, list[Polygon]] = {}
    for piece in plan.pieces:
        wanted.setdefault(piece.net, []).append(Polygon(piece.outer, piece.holes))
    found = poured_by_net(read)
    return [
        fault(
            plan.file,
            net,
            part.representative_point().x,
            part.representative_point().y,
            f"the pour of {net or 'no net'} differs over {part.area / 1e12:.3f} square mm",
        )
        for net in sorted({*wanted, *found})
        for part in shapely.get_parts(
            shapely.symmetric_difference(
                shapely.union_all(wanted.get(net, [])), found.get(net, Polygon())
            )
        )
        if part.area > POUR_TOLERANCE_NM2
    ]


def poured_by_net(read: ReadLayer) -> dict[str, BaseGeometry]:
    """What is left of the regions of every net when all are drawn; one that clears, clears them
    all.
    """
    found: dict[str, BaseGeometry] = {}
    for region in sorted(read.regions, key=lambda r: r.order):
        polygon = shapely.make_valid(Polygon(region.ring))
        if region.dark:
            found[region.net] = shapely.union(found.get(region.net, Polygon()), polygon)
        else:
            found = {net: shapely.difference(area, polygon) for net, area in found.items()}
    return found


def compare_profile(
    pieces: tuple[Piece, ...], read: ReadLayer, file: str = "profile.gbr"
) -> list[Fault]:
    """Lines and arcs of the outline."""
    lines = {same_way(Bar(p.x1, p.y1, p.x2, p.y2, 100_000)) for p in pieces if isinstance(p, Line)}
    arcs = {
        (p.x1, p.y1, p.x2, p.y2, p.cx, p.cy, not p.clockwise) for p in pieces if isinstance(p, Arc)
    }
    found_lines = {same_way(o.shape) for o in read.objects}
    found_arcs = {(a.x1, a.y1, a.x2, a.y2, a.cx, a.cy, a.anticlockwise) for a in read.arcs}
    faults = [
        fault(file, "", *middle_of(s), "a side of the outline differs") for s in lines ^ found_lines
    ]
    return faults + [
        fault(file, "", a[0], a[1], "a corner of the outline differs") for a in arcs ^ found_arcs
    ]


def compare_holes(
    view: BoardView, read: Iterable[ReadHole], file: str, plated: bool
) -> list[Fault]:
    """Holes missing, moved or too many."""
    owners = {(h.x, h.y, h.d): h for h in view.holes if h.plated == plated}
    wanted = Counter((h.x, h.y, h.d) for h in view.holes if h.plated == plated)
    holes = list(read)
    found = Counter((h.x, h.y, h.d) for h in holes)
    faults = []
    for key in wanted - found:
        hole = owners[key]
        faults.append(
            fault(
                file,
                hole.net,
                key[0],
                key[1],
                f"the hole of {hole.owner}{f' ({hole.net})' if hole.net else ''} is missing or"
                " changed",
            )
        )
    for key in found - wanted:
        nearest = min(
            view.holes, key=lambda h: (h.x - key[0]) ** 2 + (h.y - key[1]) ** 2, default=None
        )
        net = nearest.net if nearest else ""
        faults.append(
            fault(
                file,
                net,
                key[0],
                key[1],
                "a hole that is not in the design, nearest to"
                f" {nearest.owner if nearest else 'nothing'}",
            )
        )
    if any(h.plated != plated for h in holes):
        faults.append(
            fault(file, "", 0, 0, f"says that its holes are {'unplated' if plated else 'plated'}")
        )
    return faults

"""Measured again, in another way: `python -m bench.again SET,SET FIRST LAST` makes generated devices up to the release and measures their boards with polygons of shapely and a graph of networkx."""

import sys
import time

import networkx
import numpy as np
import shapely
from shapely.affinity import rotate, translate
from shapely.geometry.base import BaseGeometry

from bench.devices import generated
from loquet.catalogue.library import bundled_library
from loquet.core.board import BoardView
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.pipeline import StageRefused, board_view, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.core.release import release

QUARTER = 90  # chords of a quarter: of a pad of 3 mm some 0.06 micrometre are lost


def polygon(shape: Shape) -> BaseGeometry:
    """A piece of copper as a polygon of chords, by plain geometry."""
    match shape:
        case Round():
            return shapely.Point(shape.x, shape.y).buffer(shape.d / 2, quad_segs=QUARTER)
        case Bar():
            line = shapely.LineString([(shape.x1, shape.y1), (shape.x2, shape.y2)])
            return line.buffer(shape.w / 2, quad_segs=QUARTER)
        case Box():
            box = shapely.box(-shape.w / 2, -shape.h / 2, shape.w / 2, shape.h / 2)
            return translate(rotate(box, shape.turn, origin=(0, 0)), shape.x, shape.y)


def measured(view: BoardView) -> tuple[float, int]:
    """The least gap between copper of two nets in mm, and how many pieces ground falls into."""
    assert view.pour is not None
    least = np.inf
    graph: networkx.Graph[str] = networkx.Graph()
    for far, side in ((False, "near"), (True, "far")):
        rows = [
            (c.net, c.owner, polygon(c.shape))
            for c in (*view.pads, *view.wiring)
            if side in c.sides
        ]
        rows += [
            ("GROUND", f"piece {side} {i}", shapely.Polygon(p.outer, p.holes))
            for i, p in enumerate(view.pour.pieces)
            if p.far is far
        ]
        areas = np.array([row[2] for row in rows], dtype=object)
        tree = shapely.STRtree(areas)
        first, second = tree.query(areas, predicate="dwithin", distance=400_000)
        for a, b in zip(first.tolist(), second.tolist(), strict=True):
            one, other = rows[a], rows[b]
            if a < b and (one[0] != other[0] or not one[0]) and one[1] != other[1]:
                least = min(least, float(shapely.distance(areas[a], areas[b])))
        hits = tree.query(areas, predicate="intersects").T.tolist()
        names = [
            row[1] if row[1] not in ("track", "via") else f"{row[1]} {row[2].bounds}"
            for row in rows
        ]
        for a, b in hits:
            if rows[a][0] == rows[b][0] == "GROUND":
                graph.add_edge(names[a], names[b])
    return least / 1e6, networkx.number_connected_components(graph)


def main(sets: str, first: int, last: int) -> int:
    """A line a device; at the end how many are ready."""
    library = bundled_library()
    ready = count = 0
    for name in sets.split(","):
        for seed in range(first, last):
            began = time.process_time()
            try:
                design = bring_up_to_date(Design(brief=generated(name, seed)), library)
            except (StageRefused, RecipeNotPossible, NoRoom) as error:
                print(f"{name} {seed}: refused: {error}", flush=True)
                count += 1
                continue
            made = release(design, library)
            stops = [f.sentence for f in made.findings if f.severity == "stop"]
            gap, islands = measured(board_view(design, library))
            count, ready = count + 1, ready + (bool(made.files) and islands == 1 and gap > 0.1499)
            print(
                f"{name} {seed}: {'ready' if made.files else stops or 'not proven'}, least gap {gap:.5f} mm, ground in {islands}, {time.process_time() - began:.0f} s",
                flush=True,
            )
    print(f"{ready} of {count} ready, proven, in one island, no gap below 0.1499 mm")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1], int(sys.argv[2]), int(sys.argv[3])))

"""Measured again, in another way: `python -m bench.again SET,SET FIRST LAST` takes generated
devices through `loquet compile` and `loquet verify`, and measures the boards of their packages with
polygons of shapely and a graph of networkx.
"""

import json
import subprocess
import sys
import time
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import networkx
import numpy as np
import shapely
from shapely.affinity import rotate, translate
from shapely.geometry.base import BaseGeometry

from bench.devices import generated
from loquet.catalogue.library import bundled_library
from loquet.core.board import BoardView
from loquet.core.brief import Brief
from loquet.core.design import Design
from loquet.core.geometry import Bar, Box, Round, Shape
from loquet.core.pipeline import board_view

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


def through_the_commands(brief: Brief, folder: Path) -> tuple[Design | None, str]:
    """The design of a package that `loquet compile` made and `loquet verify` proved, or why there
    is none.
    """
    asked = folder / "asked.brief.json"
    asked.write_text(brief.model_dump_json())
    package = folder / "package"
    made = command("compile", str(asked), "--out", str(package), "--json")
    if not made.get("ready"):
        stops = [stop["sentence"] for stop in made.get("stops", [])]
        return None, f"not ready: {made.get('error') or stops}"
    proven = command("verify", str(package), "--json")
    if not proven.get("proven"):
        return None, f"not proven: {proven}"
    return Design.model_validate_json((package / "design.json").read_bytes()), "ready and proven"


def command(*words: str) -> dict[str, Any]:
    """What a command of Loquet says in JSON."""
    ran = subprocess.run(
        [sys.executable, "-m", "loquet.cli", *words], capture_output=True, text=True, check=False
    )
    try:
        return dict(json.loads(ran.stdout))
    except ValueError:
        return {"error": f"code {ran.returncode}: {ran.stderr[-300:]}"}


def main(sets: str, first: int, last: int) -> int:
    """A line a device; at the end how many are ready."""
    library = bundled_library()
    ready = count = 0
    for name in sets.split(","):
        for seed in range(first, last):
            began = time.perf_counter()
            with TemporaryDirectory() as folder:
                design, said = through_the_commands(generated(name, seed), Path(folder))
            count += 1
            if design is None:
                print(f"{name} {seed}: {said}", flush=True)
                continue
            gap, islands = measured(board_view(design, library))
            ready += islands == 1 and gap > 0.1499
            took = time.perf_counter() - began
            print(
                f"{name} {seed}: {said}, least gap {gap:.5f} mm, ground in {islands}, {took:.0f} s",
                flush=True,
            )
    print(f"{ready} of {count} ready, proven, in one island, no gap below 0.1499 mm")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1], int(sys.argv[2]), int(sys.argv[3])))

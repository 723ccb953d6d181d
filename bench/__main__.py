"""`./loquet bench`: every stage on the example boards and on seeded variants of them, warm."""

import random
import statistics
import sys
import time
from math import hypot

from bench.boards import boards_table
from bench.faults import faults_table
from bench.kills import kills_table
from bench.pages import pages_table
from bench.pins import bench_pins
from bench.switched import switched_table
from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief
from loquet.core.design import SLICES, Design, slice_of
from loquet.core.pipeline import run_stage
from loquet.core.release import release
from loquet.demo.scenario import BOARD_BRIEFS, demo_brief

COLUMNS = ("board", "parts", *SLICES, "release", "open", "stops", "track mm", "vias")


def variant(brief: Brief, seed: int) -> Brief:
    """The brief with every button moved by up to 0.5 mm; seed 0 leaves it alone."""
    if seed == 0:
        return brief
    chance = random.Random(seed)
    moved = []
    for thing in brief.group("controls"):
        if thing.place is not None and thing.contacts():
            dx, dy = (round(chance.uniform(-0.4, 0.4), 1) for _ in range(2))
            x, y = thing.place.x_mm + dx, thing.place.y_mm + dy
            place = thing.place.model_copy(update={"x_mm": round(x, 1), "y_mm": round(y, 1)})
            moved.append(thing.model_copy(update={"place": place}))
    return brief.with_things(*moved)


def measure(name: str, brief: Brief) -> list[str]:
    """One row: times in ms, then what came out."""
    library, design, times = bundled_library(), Design(brief=brief), []
    for stage in SLICES:
        began = time.perf_counter()
        design = run_stage(design, stage, library)
        times.append(time.perf_counter() - began)
    began = time.perf_counter()
    result = release(design, library)
    times.append(time.perf_counter() - began)
    routing = slice_of(design.routing)
    length = sum(hypot(t.x2_nm - t.x1_nm, t.y2_nm - t.y1_nm) for t in routing.tracks) / 1e6
    stops = sum(f.severity == "stop" for f in result.findings)
    parts = len(slice_of(design.circuit).components)
    return [
        name,
        str(parts),
        *(f"{t * 1000:.0f}" for t in times),
        str(len(routing.open_links)),
        str(stops),
        f"{length:.0f}",
        str(len(routing.vias)),
    ]


def main() -> int:
    """Print the table; the number of seeds a board may be given, or `board N` for generated boards
    against their targets, `pins N` for the pin solver alone, `faults N` for the fault finder,
    `kills N` for kills while edits are made, `pages` for what a hand waits for, `on`
    for all states of every example.
    """
    number = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    match sys.argv[1:2]:
        case ["pins"]:
            return bench_pins(number or 50)
        case ["kills"]:
            return kills_table(number or 100)
        case ["board"]:
            return boards_table(number or 20)
        case ["faults"]:
            return faults_table(number or 200)
        case ["pages"]:
            return pages_table()
        case ["on"]:
            return switched_table()
    seeds = int(sys.argv[1]) if len(sys.argv) > 1 else 5
    run_stage(
        run_stage(
            run_stage(
                run_stage(Design(brief=demo_brief(BOARD_BRIEFS[0])), "pins", bundled_library()),
                "circuit",
                bundled_library(),
            ),
            "placement",
            bundled_library(),
        ),
        "routing",
        bundled_library(),
    )
    print(" ".join(f"{c:>11}" for c in COLUMNS))
    for name in BOARD_BRIEFS:
        rows = [
            measure(f"{name[:8]}.{seed}", variant(demo_brief(name), seed)) for seed in range(seeds)
        ]
        for row in rows:
            print(" ".join(f"{cell:>11}" for cell in row), flush=True)
        middle = statistics.median(float(row[2 + SLICES.index("routing")]) for row in rows)
        done = sum(row[-4] == "0" and row[-3] == "0" for row in rows)
        print(
            f"{name}: routing {middle:.0f} ms in the middle, {done} of {len(rows)} complete without"
            " a stop",
            flush=True,
        )
    return 0


if __name__ == "__main__":
    sys.exit(main())

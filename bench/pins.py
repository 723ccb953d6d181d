"""`./loquet bench pins`: the pin solver on generated briefs of 45 signals and a 64-pin chip, with a
plain bipartite matching beside it.

The matching (the assignment solver of OR-tools, a general library) minimises length alone: it knows
no buses, blocks or rates. Its length is what a solver that breaks the rules could reach; how many
rules it breaks is counted.
"""

import random
import statistics
import time
from typing import Any

from ortools.graph.python import linear_sum_assignment

from loquet.catalogue.library import bundled_library
from loquet.core.brief import Brief, read_brief
from loquet.core.design import Design
from loquet.core.pins import PinProblem, Solved, solve
from loquet.core.pins.checking import faults_of
from loquet.core.pins.needing import needs_of
from loquet.core.pins.options import Option
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from loquet.core.plain.frozen import canonical

CHIP, SIGNALS = "stm32f072rbt6", 45
COLUMNS = (
    "brief",
    "signals",
    "ms",
    "proof",
    "risk",
    "short",
    "mm",
    "crossings",
    "matching mm",
    "broken rules",
)


def generated(seed: int) -> Brief:
    """A two-hand device: sticks, keys with a pin each, a serial screen, a card, USB, filled up to
    45 signals at random places.
    """
    chance = random.Random(seed)
    width, height = 160.0, 80.0
    spots = [(x, y) for x in range(12, 149, 9) for y in range(10, 71, 9)]
    chance.shuffle(spots)

    def control(kind: str, name: str, **more: Any) -> dict[str, Any]:
        x, y = spots.pop()
        return {"kind": kind, "name": name, "x_mm": x, "y_mm": y, **more}

    controls = [control("stick", "left stick"), control("stick", "right stick")]
    plain: dict[str, Any] = {
        "name": f"Bench {seed}",
        "outline": {
            "kind": "rounded-rectangle",
            "width_mm": width,
            "height_mm": height,
            "corner_mm": 5,
        },
        "controls": controls,
        "role": "usb-controller",
        "links": [{"kind": "usb-device", "name": "usb"}, {"kind": "memory-card", "name": "card"}],
        "screen": {"x_mm": 80, "y_mm": 74, "part": "screen-128x64-serial", "bus": "one-way serial"},
        "buzzer": {"x_mm": 30, "y_mm": 74},
        "light": {"x_mm": 120, "y_mm": 74},
        "sensors": [{"name": "tilt", "interrupt": True}],
        "power": {"kind": "lithium-cell", "x_mm": 80, "y_mm": 40},
        "power_switch": {"x_mm": 10, "y_mm": 76},
        "programming_port": {"x_mm": 80, "y_mm": 5},
        "chip": {"part": CHIP},
        "quantity": 10,
        "wanted_by": "2027-05-01",
    }
    count = len(needs_of(read_brief(canonical(plain).encode())))
    controls += [control("button", f"key {i + 1}") for i in range(SIGNALS - count)]
    return read_brief(canonical(plain).encode())


def matched(problem: PinProblem) -> tuple[float, int]:
    """Length (mm) and broken rules of the plain matching."""
    pins = sorted({o.pin for row in problem.options().values() for o in row})
    solver = linear_sum_assignment.SimpleLinearSumAssignment()
    best: dict[tuple[int, int], Option] = {}
    for i, need in enumerate(problem.needs):
        for option in problem.options()[need.signal]:
            if (i, pins.index(option.pin)) not in best:
                best[i, pins.index(option.pin)] = option
                solver.add_arc_with_cost(
                    i, pins.index(option.pin), problem.length_nm(need, option.pin) // 1000
                )
    for filler in range(len(problem.needs), len(pins)):
        for j in range(len(pins)):
            solver.add_arc_with_cost(filler, j, 0)
    if solver.solve() != solver.OPTIMAL:
        return float("nan"), 0
    picks = {n.signal: best[i, solver.right_mate(i)] for i, n in enumerate(problem.needs)}
    return sum(problem.length_nm(n, picks[n.signal].pin) for n in problem.needs) / 1e6, len(
        faults_of(problem, picks)
    )


def row_of(seed: int) -> tuple[float, list[str]]:
    """Time in ms and one row."""
    problem = pin_problem(Design(brief=generated(seed)), bundled_library())
    began = time.perf_counter()
    answer = solve(problem)
    took = (time.perf_counter() - began) * 1000
    if not isinstance(answer, Solved):
        return took, [f"{seed}", f"{len(problem.needs)}", f"{took:.0f}", "none", *[""] * 6]
    plan = plan_of(problem, answer)
    length, broken = matched(problem)
    figures = [
        f"{answer.score.risk}",
        f"{answer.score.short}",
        f"{plan.length_um / 1000:.0f}",
        f"{plan.crossings}",
        f"{length:.0f}",
        f"{broken}",
    ]
    return took, [
        f"{seed}",
        f"{len(problem.needs)}",
        f"{took:.0f}",
        "proven" if answer.proven else f"gap {answer.gap}",
        *figures,
    ]


def bench_pins(count: int) -> int:
    """Print the table."""
    print(" ".join(f"{c:>12}" for c in COLUMNS))
    times = []
    for seed in range(count):
        took, row = row_of(seed)
        times.append(took)
        print(" ".join(f"{cell:>12}" for cell in row), flush=True)
    print(
        f"median {statistics.median(times):.0f} ms, slowest {max(times):.0f} ms over {count} briefs"
        f" of {SIGNALS} signals on {CHIP}"
    )
    return 0

"""`./loquet bench board`: generated devices through all stages, each figure beside its target, and
the plain alternatives beside them.
"""

import gc
import platform
import resource
import statistics
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from functools import partial
from itertools import combinations
from typing import TypeVar

from bench.devices import SETS, generated, grown
from bench.spanning import spanning_mm, wired_mm
from loquet.catalogue.library import bundled_library
from loquet.core.board import BoardView, Routing
from loquet.core.board.pouring import pour_ground
from loquet.core.brief import Brief
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.measuring import measured_copper, too_close
from loquet.core.checks.rule import run_rules
from loquet.core.design import Design, SliceName, slice_of
from loquet.core.edits import apply
from loquet.core.edits.seat_edits import SeatPart
from loquet.core.geometry import gap_between
from loquet.core.library import Library
from loquet.core.pipeline import board_view, run_stage
from loquet.core.plain.remembering import Remembered
from loquet.core.reviewing import review, subject_of
from loquet.core.routing import RouteInput, negotiation, route
from loquet.demo.scenario import DEMO_BRIEFS, demo_brief

T = TypeVar("T")
TARGETS = {
    "pocket": {
        "place": 1.0,
        "route": 1.0,
        "pour": 0.3,
        "ratio": 1.10,
        "check": 0.05,
        "move": 0.005,
    },
    "handset": {
        "place": 4.0,
        "route": 5.0,
        "pour": 0.6,
        "ratio": 1.06,
        "check": 0.1,
        "move": 0.005,
    },
    "large": {
        "place": 10.0,
        "route": 25.0,
        "pour": 1.5,
        "ratio": 1.06,
        "check": 0.25,
        "move": 0.01,
    },
}
GROWTH = (2, 4, 6, 9, 12, 15)


@dataclass(frozen=True)
class Row:
    """What came of one board; times are CPU seconds."""

    name: str
    parts: int
    nets: int
    times: dict[str, float]
    open_links: int
    islands: int
    stops: int
    ratio: float
    length_mm: float
    vias: int
    bends: int


def cpu(work: Callable[[], T]) -> tuple[float, T]:
    """CPU seconds of some work, and what it gave."""
    began = time.process_time()
    made = work()
    return time.process_time() - began, made


def measured(name: str, brief: Brief, library: Library) -> Row:
    """One board through all stages; the pour that routing tries is counted as pouring."""
    design, times = Design(brief=brief), dict[str, float]()
    for stage in ("pins", "circuit", "placement"):
        times[stage], design = staged(design, stage, library)
    view = board_view(design, library)
    given = RouteInput(
        view.outline, view.wiring_area, view.circuit, view.pads, view.holes, view.rules
    )
    times["route"], _ = cpu(lambda: route(given))
    times["routing"], design = staged(design, "routing", library)
    view = board_view(design, library)
    times["pour"], _ = cpu(lambda: pour_ground(view))
    _, design = staged(design, "pour", library)
    view = board_view(design, library)
    subject = replace(subject_of(design, library), view=view, views=(view,))
    boards = tuple(r for r in RULES if "view" in r.needs)
    forget_all()
    times["check"], _ = cpu(lambda: run_rules(boards, subject))
    times["move"] = after_a_move(design, library)
    routing, circuit = slice_of(design.routing), slice_of(design.circuit)
    span = spanning_mm(view)
    return Row(
        name,
        len(circuit.components),
        len(circuit.nets),
        times,
        len(routing.open_links),
        slice_of(design.pour).islands,
        sum(f.severity == "stop" for f in review(design, library)),
        wired_mm(view) / span if span else 1.0,
        wired_mm(view),
        len(routing.vias),
        len(routing.tracks),
    )


def forget_all() -> None:
    """Nothing that was worked out before helps what comes."""
    gc.collect()
    for kept in gc.get_objects():
        if isinstance(kept, Remembered):
            kept.kept.clear()


MOVED = 8


def after_a_move(design: Design, library: Library) -> float:
    """From the edit that moves a part by half a millimetre to all findings of the whole device, as
    the application does it: the middle of some parts.
    """
    review(design, library)
    free = [p for p in slice_of(design.placement).parts if not p.locked]
    times = []
    gc.collect()
    gc.freeze()
    for part in free[:: max(1, len(free) // MOVED)][:MOVED]:
        move = SeatPart(
            role=part.role,
            x_mm=part.x_nm / 1e6 + 0.5,
            y_mm=part.y_nm / 1e6,
            turn_deg=part.turn_deg,
        )
        times.append(cpu(partial(moved_and_reviewed, design, move, library))[0])
    gc.unfreeze()
    return statistics.median(times) if times else 0.0


def moved_and_reviewed(design: Design, move: SeatPart, library: Library) -> int:
    """An edit and all findings after it; how many."""
    return len(review(apply(design, move), library))


def staged(design: Design, stage: SliceName, library: Library) -> tuple[float, Design]:
    """A stage with its CPU time."""
    began = time.process_time()
    made = run_stage(design, stage, library)
    return time.process_time() - began, made


def say(cells: tuple[object, ...], widths: tuple[int, ...]) -> None:
    """A line of the table."""
    print("".join(str(c).rjust(w) for c, w in zip(cells, widths, strict=True)), flush=True)


WIDTHS = (22, 6, 6, 8, 8, 8, 8, 8, 8, 6, 8, 7, 7, 8, 7, 7)
HEAD = (
    "board",
    "parts",
    "nets",
    "place",
    "route",
    "exact",
    "pour",
    "check",
    "move",
    "open",
    "islands",
    "stops",
    "ratio",
    "mm",
    "vias",
    "pieces",
)


def show(row: Row) -> None:
    """A board as a line."""
    t = row.times
    say(
        (
            row.name,
            row.parts,
            row.nets,
            *(f"{t[k]:.2f}" for k in ("placement", "route", "routing", "pour", "check")),
            f"{t['move']:.3f}",
            row.open_links,
            row.islands,
            row.stops,
            f"{row.ratio:.3f}",
            f"{row.length_mm:.0f}",
            row.vias,
            row.bends,
        ),
        WIDTHS,
    )


def against_targets(name: str, rows: list[Row]) -> None:
    """The middle of a set beside its targets; what is missed is marked."""
    middle = {
        "place": statistics.median(r.times["placement"] for r in rows),
        "route": statistics.median(r.times["route"] for r in rows),
        "pour": statistics.median(r.times["pour"] for r in rows),
        "check": statistics.median(r.times["check"] for r in rows),
        "move": statistics.median(r.times["move"] for r in rows),
        "ratio": statistics.median(r.ratio for r in rows),
    }
    whole = sum(r.open_links == 0 and r.islands == 1 and r.stops == 0 for r in rows)
    words = []
    for key, value in middle.items():
        target = TARGETS.get(name, {}).get(key)
        mark = (
            "" if target is None else f" (target {target:g}{', missed' if value > target else ''})"
        )
        words.append(f"{key} {value:.3f}{mark}")
    print(
        f"{name}: {whole} of {len(rows)} complete, in one island, without a stop;"
        f" {'; '.join(words)}",
        flush=True,
    )


def boards_table(seeds: int) -> int:
    """All sets, the examples, growth, and the plain alternatives; prints as it goes."""
    library = bundled_library()
    measured("warm-up", generated("pocket", 99), library)
    print(
        f"{datetime.now(UTC):%Y-%m-%d}, {platform.machine()}, Python {platform.python_version()};"
        " CPU seconds, warm; ratio is track over spanning length"
    )
    say(HEAD, WIDTHS)
    for name in SETS:
        rows = []
        for seed in range(seeds):
            rows.append(measured(f"{name} {seed}", generated(name, seed), library))
            show(rows[-1])
        against_targets(name, rows)
    for name in DEMO_BRIEFS:
        if name != "ridge-handset":
            show(measured(name, demo_brief(name), library))
    print("growth", flush=True)
    for rows_of_keys in GROWTH:
        show(measured(f"desk of {rows_of_keys} rows", grown(rows_of_keys), library))
    for line in alternatives(library):
        print(line, flush=True)
    print(f"memory at the most {resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024:.0f} MB")
    return 0


def alternatives(library: Library) -> Iterator[str]:
    """The same boards in plain ways: one pass without rip-up, and a loop over all pairs of
    copper.
    """
    for name in ("pocket", "handset"):
        design = Design(brief=generated(name, 0))
        for stage in ("pins", "circuit", "placement"):
            _, design = staged(design, stage, library)
        view = board_view(design, library)
        given = RouteInput(
            view.outline, view.wiring_area, view.circuit, view.pads, view.holes, view.rules
        )
        single, made = cpu(partial(single_pass, given))
        several, whole = cpu(partial(route, given))
        yield (
            f"{name}: one pass {single:.2f} s leaves {len(made.open_links)} open; "
            f"negotiated {several:.2f} s leaves {len(whole.open_links)} open"
        )
        routed = replace(view, routing=whole)
        plain, pairs = cpu(partial(pair_loop, routed))
        tree, found = cpu(partial(by_tree, routed))
        yield (
            f"{name}: pair loop {plain:.2f} s finds {pairs} too close; tree {tree:.3f} s finds"
            f" {found}"
        )


def single_pass(given: RouteInput) -> Routing:
    """Every net once, in order; what is contested then finds a strict way or stays open."""
    rounds, negotiation.MOST_ROUNDS = negotiation.MOST_ROUNDS, 1
    try:
        return route(given)
    finally:
        negotiation.MOST_ROUNDS = rounds


def pair_loop(view: BoardView) -> int:
    """Pairs of copper on the near side that are too close, by measuring all pairs."""
    copper = [c for c in (*view.pads, *view.wiring) if "near" in c.sides]
    return sum(
        a.net != b.net and gap_between(a.shape, b.shape) < view.rules.gap_nm
        for a, b in combinations(copper, 2)
    )


def by_tree(view: BoardView) -> int:
    """The same by the spatial tree that the rule asks."""
    return len(list(too_close(measured_copper(view, "near"), view.rules.gap_nm)))

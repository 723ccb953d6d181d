"""`./loquet bench faults [N]`: random faults set in the simulated bench unit, found by the fault
finder, by tests at random, and by splitting what may be wrong in halves.
"""

import random
import statistics
import time
from collections.abc import Callable

from loquet.catalogue.library import bundled_library
from loquet.core.build.faults import possible_faults
from loquet.core.build.finding import Finder, Suspects, label, near
from loquet.core.build.measuring import Probe
from loquet.core.build.protocol import ask, number, symptom
from loquet.core.design import Design, slice_of
from loquet.core.lookup.switched_on import device_of, planned_of
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.demo.scenario import demo_brief
from loquet.standins.bench_unit import BenchUnit

EXAMPLES = ("dusk-remote", "star-handset", "log-key-pad")
MOST, WITHIN = 8, 5
Way = Callable[[Finder, random.Random], Probe | None]


def by_finder(finder: Finder, _: random.Random) -> Probe | None:
    """The test that tells most for its cost."""
    return finder.best()


def at_random(finder: Finder, chance: random.Random) -> Probe | None:
    """Any test that can have to do with what is left."""
    done = {made.probe for made in finder.made}
    left = [p for p in finder.probes if p not in done and near(p, finder.held)]
    return chance.choice(left) if left else None


def by_halves(finder: Finder, _: random.Random) -> Probe | None:
    """The test whose commonest reading is that of about half of the faults that are left, however
    likely each is.
    """
    done = {made.probe for made in finder.made}
    held = [one for one, w in zip(finder.held, finder.weights, strict=True) if w > 1e-4]
    rows = []
    for probe in finder.probes:
        if probe in done or not near(probe, held):
            continue
        counts: dict[int, int] = {}
        for one in held:
            read = label(probe, one.reading(probe))
            counts[read] = counts.get(read, 0) + 1
        if len(counts) > 1:
            rows.append((abs(max(counts.values()) - len(held) / 2), probe.words, probe))
    return min(rows, key=lambda row: row[:2])[2] if rows else None


def hunt(suspects: Suspects, unit: BenchUnit, way: Way, chance: random.Random) -> tuple[bool, int]:
    """One hunt: whether the cause was named, and after how many tests."""
    finder = Finder(suspects, symptom(unit.line("SYMPTOM")))
    tests = 0
    while not finder.sure() and tests < MOST:
        probe = way(finder, chance)
        if probe is None:
            break
        line = ask(probe)
        finder.tell(probe, number(unit.line(line), line.split()[0]))
        tests += 1
    return finder.sure() and finder.causes()[0].name == unit.fault.cause, tests


def faults_table(count: int) -> int:
    """Print the table for so many faults."""
    library = bundled_library()
    ways: dict[str, Way] = {
        "the finder": by_finder,
        "halves": by_halves,
        "at random": at_random,
    }
    print("| example | faults | way | named within 5 | median of tests | s a hunt |")
    print("|---|---|---|---|---|---|")
    whole: dict[str, list[tuple[bool, int]]] = {name: [] for name in ways}
    for number_, example in enumerate(EXAMPLES):
        design = bring_up_to_date(Design(brief=demo_brief(example)), library, "placement")
        desk = device_of(
            design.brief, slice_of(design.circuit), library, planned_of(design, library)
        )
        views = tuple(board_view(design, library, b.name) for b in design.brief.boards)
        faults = possible_faults(desk, views)
        suspects = Suspects(desk, faults)
        mine = count // len(EXAMPLES) + (number_ < count % len(EXAMPLES))
        for name, way in ways.items():
            chance = random.Random(f"{example} faults")
            set_ = [chance.choices(faults, [f.weight for f in faults])[0] for _ in range(mine)]
            began = time.perf_counter()
            rows = [
                hunt(suspects, BenchUnit(desk, fault, seed), way, random.Random(seed))
                for seed, fault in enumerate(set_)
            ]
            whole[name] += rows
            print(said(example, mine, name, rows, (time.perf_counter() - began) / mine), flush=True)
    for name, rows in whole.items():
        print(said("all", len(rows), name, rows, 0.0))
    return 0


def said(example: str, count: int, way: str, rows: list[tuple[bool, int]], each_s: float) -> str:
    """A row of the table."""
    named = sum(found and tests <= WITHIN for found, tests in rows)
    median = statistics.median(tests for _, tests in rows)
    took = f"{each_s:.2f}" if each_s else ""
    return f"| {example} | {count} | {way} | {100 * named / count:.0f} % | {median:g} | {took} |"

"""The three demo briefs on hundreds of chips of the open data set; every plan is checked again by
code of its own, on the raw data.
"""

from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from functools import lru_cache
from multiprocessing import get_context
from pathlib import Path
from typing import Any

import pytest
from modm_devices.parser import DeviceParser

from loquet.catalogue.chips import DEVICES, files_for
from loquet.catalogue.library import bundled_library
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.parts.listing import ListedChip
from loquet.core.pins import Infeasible, PinPlan, Solved, solve
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from loquet.demo.scenario import demo_brief

BRIEFS = ("dusk-remote", "ridge-handset", "log-key-pad")
EVERY, BATCHES = 18, 8
MAPPED = ("avr", "rp", "sam", "module")


@lru_cache(maxsize=2)
def raw_devices(path: Path) -> dict[str, Any]:
    return {d.partname: d for d in DeviceParser().parse(str(path)).get_devices()}


def raw_gpio(name: str) -> dict[str, Any]:
    for path in files_for(name):
        if name in raw_devices(path):
            found: dict[str, Any] = next(
                d for d in raw_devices(path)[name].properties["driver"] if d["name"] == "gpio"
            )
            return found
    raise KeyError(name)


def raw_faults(plan: PinPlan) -> list[str]:
    """The data set's own rules, read from its own words: the port is bonded to the pin, the
    function is on the port, remaps agree.
    """
    gpio = raw_gpio(plan.chip)
    bonded = Counter(
        (p["position"], p["name"][:4].rstrip("-/( ")) for p in gpio["package"][0]["pin"]
    )
    names = {(p["position"], p["name"]) for p in gpio["package"][0]["pin"]}
    faults = [
        f"pin {pin} twice" for pin, n in Counter(a.pin for a in plan.assignments).items() if n > 1
    ]
    routes: dict[str, set[str]] = {}
    for row in plan.assignments:
        if not any(
            position == row.pin and (name == row.port or name.startswith(row.port))
            for position, name in names
        ):
            faults.append(f"{row.port} is not on pin {row.pin}")
        if not row.function or row.route == "any pin" or row.peripheral in ("debug", "usbd"):
            continue
        instance = row.peripheral.rstrip("0123456789")
        number = row.peripheral[len(instance) :]
        if row.route.startswith("remap"):
            routes.setdefault(row.peripheral, set()).add(row.route)
            group = row.route.split()[1]
            rows = [
                s
                for r in gpio["remap"]
                if r["driver"] == instance and r.get("instance", "") == number
                for g in r["group"]
                if g["id"] == group
                for s in g["signal"]
            ]
            ok = any(
                f"P{s['port'].upper()}{s['pin']}" == row.port and s["name"] == row.function
                for s in rows
            )
        else:
            pin = next(
                p
                for p in gpio["gpio"]
                if f"P{p['port'].upper()}{p['pin']}" == row.port
                or f"P{p['port']}.{int(p['pin']):02d}" == row.port
            )
            ok = any(
                s.get("driver", "") + s.get("instance", "") == row.peripheral
                and s["name"] == row.function
                for s in pin.get("signal", [])
            )
        if not ok:
            faults.append(f"{row.port} has no {row.peripheral}.{row.function} by {row.route}")
    assert bonded
    return faults + [f"{p} in two remap groups" for p, found in routes.items() if len(found) > 1]


def choice(library: Library) -> list[ListedChip]:
    """Every eighteenth chip that has a package map of its own, the tiny packages, and all of the
    second maker's.
    """
    rows = [row for row in library.list_chips() if row.family not in MAPPED]
    return sorted(
        {*rows[::EVERY], *(r for r in rows if r.name.startswith("nrf") or r.ports < 16)},
        key=lambda r: r.name,
    )


def faults_on(names: list[str]) -> tuple[int, int, list[str]]:
    """Solved and refused cases on some chips, and everything that is wrong with any of them."""
    library = bundled_library()
    solved = refused = 0
    faults: list[str] = []
    for index, name in enumerate(names):
        for title in BRIEFS if index % 3 == 0 else BRIEFS[1:2]:
            brief = demo_brief(title)
            assert brief.brain is not None
            changed = brief.with_things(brief.brain.model_copy(update={"part": name}))
            problem = pin_problem(Design(brief=changed), library)
            answer = solve(problem)
            if isinstance(answer, Solved):
                solved += 1
                faults += [
                    f"{name}, {title}: {fault}" for fault in raw_faults(plan_of(problem, answer))
                ]
            elif isinstance(answer, Infeasible) and answer.signals and answer.why.endswith("."):
                refused += 1
            else:
                faults.append(f"{name}, {title}: neither a plan nor a reason")
    return solved, refused, faults


def test_the_choice_is_wide(library: Library) -> None:
    chosen = choice(library)
    assert len(chosen) >= 150
    assert len({c.package.rstrip("0123456789") for c in chosen}) >= 8
    assert len({c.package for c in chosen}) >= 20
    assert DEVICES.exists()


@pytest.mark.timeout(900)
def test_every_chip_carries_the_briefs_or_says_why_not(library: Library) -> None:
    """The handset on all, the other briefs on every third; on two processes, since there are some
    two hundred cases.
    """
    names = [c.name for c in choice(library)]
    size = -(-len(names) // BATCHES)
    with ProcessPoolExecutor(2, mp_context=get_context("spawn")) as pool:
        answers = list(
            pool.map(faults_on, [names[i : i + size] for i in range(0, len(names), size)])
        )
    assert [fault for _, _, faults in answers for fault in faults] == []
    solved, refused = sum(s for s, _, _ in answers), sum(r for _, r, _ in answers)
    assert solved + refused >= len(names) + 2 * (len(names) // 3)
    assert solved > 130
    assert refused > 30

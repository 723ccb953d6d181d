"""What the units' endpoints share: the bench of a design, a unit's simulated device, and the hunt
as its records have it.
"""

import random
from dataclasses import asdict
from typing import Any

from loquet.api.errors import Refused
from loquet.core.build.faults import GOOD, Fault, possible_faults
from loquet.core.build.finding import Finder, Suspects
from loquet.core.build.measuring import Probe, Symptom
from loquet.core.design import Design, slice_of
from loquet.core.energising.device import Device
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.lookup.switched_on import device_of, planned_of
from loquet.core.pipeline import board_view
from loquet.core.plain.remembering import Remembered
from loquet.standins.bench_unit import BenchUnit
from loquet.store.tables import RecordRow, UnitRow

SUSPECTS: Remembered[tuple[Suspects, list[Fault]]] = Remembered(4)


def suspects_of(design: Design, library: Library) -> tuple[Suspects, list[Fault]]:
    """Everything that may be wrong with a device; raises Refused before its boards are placed."""
    boards = [b.name for b in design.brief.boards]
    if not design.circuit or any(name not in design.placement for name in boards):
        raise Refused("The boards are not placed yet.", "Place them at the Board station.", 404)
    circuit = slice_of(design.circuit)
    placed = tuple(design.placement[name] for name in boards)

    def work() -> tuple[Suspects, list[Fault]]:
        own = project_library(design, library)
        desk = device_of(design.brief, circuit, own, planned_of(design, own))
        views = tuple(board_view(design, library, name) for name in boards)
        faults = possible_faults(desk, views)
        return Suspects(desk, faults), faults

    return SUSPECTS.of((design.brief, circuit, *placed), work)


def plain_fault(fault: Fault) -> dict[str, Any]:
    """A fault as JSON values."""
    return asdict(fault)


def fault_from(plain: dict[str, Any] | None) -> Fault:
    """A fault from JSON values; none where there is nothing."""
    if not plain:
        return GOOD
    leads = tuple((str(a), str(b)) for a, b in plain["leads"])
    return Fault(**{**plain, "leads": leads, "nets": tuple(plain["nets"])})


def simulated_unit(row: UnitRow, desk: Device, turn: int) -> BenchUnit:
    """The simulated device of a unit; raises Refused for a real one.

    `turn` lets the meter spread anew at every reading.
    """
    if row.simulated is None:
        raise Refused(
            "This unit is a real one.", "Type the reading in, or say where its bench unit is."
        )
    seed = int(row.simulated.get("seed", 0)) * 1000 + turn
    try:
        return BenchUnit(desk, fault_from(row.simulated.get("fault")), seed)
    except (KeyError, StopIteration, TypeError):
        raise Refused(
            "The fault of the simulated unit does not fit this design any more.",
            "Set another fault.",
        ) from None


def random_fault(faults: list[Fault], seed: int) -> Fault:
    """Any of the faults, the likely ones more often."""
    return random.Random(seed).choices(faults, [f.weight for f in faults])[0]


def hunt_of(records: list[RecordRow], suspects: Suspects) -> tuple[Finder, Symptom] | None:
    """The hunt since the last symptom that was recorded; nothing before the first."""
    last = max((i for i, r in enumerate(records) if r.sort == "symptom"), default=None)
    if last is None:
        return None
    seen = symptom_from(records[last].content)
    finder = Finder(suspects, seen)
    for row in records[last + 1 :]:
        if row.sort == "test":
            finder.tell(probe_from(row.content), float(row.content["reading"]))
    return finder, seen


def symptom_from(plain: dict[str, Any]) -> Symptom:
    """A symptom from JSON values."""
    return Symptom(
        bool(plain["dead"]), bool(plain["hot"]), frozenset(plain["broken"]), plain["manner"]
    )


def plain_symptom(seen: Symptom) -> dict[str, Any]:
    """A symptom as JSON values."""
    return {
        "dead": seen.dead,
        "hot": seen.hot,
        "broken": sorted(seen.broken),
        "manner": seen.manner,
    }


def probe_from(plain: dict[str, Any]) -> Probe:
    """A test from JSON values."""
    one, other = plain["one"], plain["other"]
    return Probe(plain["sort"], (str(one[0]), str(one[1])), (str(other[0]), str(other[1])))

"""Units that are built: the bench unit, the fault finder, and what was read on each."""

from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from loquet.api.building import (
    plain_fault,
    plain_symptom,
    probe_from,
    random_fault,
    simulated_unit,
    suspects_of,
)
from loquet.api.context import ContextNow, SessionNow
from loquet.api.control_tests import stick_content
from loquet.api.errors import Refused
from loquet.api.unit_views import (
    ProbeView,
    UnitRowView,
    UnitView,
    describe_unit,
    design_of,
    known_of,
    meter_words,
    plainly,
)
from loquet.core.build.expected import Expected, first_power
from loquet.core.build.faults import Fault
from loquet.core.build.finding import Suspects
from loquet.core.build.measuring import Symptom
from loquet.core.build.protocol import ProtocolFault, ask, keys, number, samples, symptom
from loquet.core.build.sticks import BadSamples, stick_result
from loquet.core.lookup.switched_on import power_with
from loquet.instruments import Bench, BenchUnreachable, name_of, serial_ports, wired_bench
from loquet.store.designs import head_of
from loquet.store.tables import UnitRow
from loquet.store.units import Taken, add_unit, record, records_of, unit, units_of

router = APIRouter(prefix="/api", tags=["units"])
Serial = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{1,24}$")]
Short = Annotated[str, Field(max_length=60)]
BenchAddress = Annotated[str, Query(max_length=200)]
"""Where a real bench unit is: a serial port, or a socket of this machine."""


class UnitWanted(BaseModel):
    """A new unit."""

    serial: Serial
    simulated: bool = False


class FaultWanted(BaseModel):
    """Which fault is set in a simulated unit: a number of the list, any, or none."""

    which: Literal["none", "any"] | int


class SymptomWanted(BaseModel):
    """What is seen first; `observe` asks a simulated unit."""

    observe: bool = False
    dead: bool = False
    hot: bool = False
    broken: Annotated[list[Short], Field(max_length=200)] = []
    manner: Literal["", "dead", "always", "together", "off"] = ""


class TestWanted(BaseModel):
    """A test and its reading; none asks a simulated unit."""

    probe: ProbeView
    reading: Annotated[float, Field(ge=-1e3, le=1e12)] | None = None


class StickWanted(BaseModel):
    """A stick to test."""

    stick: Short


class RundownWanted(BaseModel):
    """A timed run-down: hours from full until it went out."""

    hours: Annotated[float, Field(gt=0, le=10_000)]


class BenchView(BaseModel):
    """Serial ports of this machine with what the system calls them, and what the bench unit asked
    calls itself.
    """

    ports: list[str]
    name: str


@router.get("/projects/{project_id}/units")
def list_units(project_id: int, session: SessionNow) -> list[UnitRowView]:
    """The units of all revisions."""
    head_of(session, project_id)
    return [
        UnitRowView(
            id=row.id,
            revision=letter,
            serial=row.serial,
            simulated=row.simulated is not None,
            records=len(records_of(session, row.id)),
        )
        for row, letter in units_of(session, project_id)
    ]


@router.post("/projects/{project_id}/units", status_code=201)
def new_unit(
    project_id: int, wanted: UnitWanted, session: SessionNow, context: ContextNow
) -> UnitView:
    """A unit that is built now, or a simulated one."""
    head = head_of(session, project_id, lock=True)
    hidden = {"seed": len(units_of(session, project_id)) + 1} if wanted.simulated else None
    try:
        row = add_unit(session, head, wanted.serial, hidden, datetime.now(UTC))
    except Taken as error:
        raise Refused(str(error), "Give another serial number.", 409) from None
    return describe_unit(row, session, context)


@router.get("/units/{unit_id}")
def get_unit(unit_id: int, session: SessionNow, context: ContextNow) -> UnitView:
    """A unit with its records and its hunt."""
    return describe_unit(unit(session, unit_id), session, context)


@router.get("/units/{unit_id}/faults")
def list_faults(unit_id: int, session: SessionNow, context: ContextNow) -> list[str]:
    """The faults that can be set in a simulated unit, in words."""
    row = unit(session, unit_id)
    _, faults = suspects_of(*known_of(row, session, context))
    return [f.words for f in faults]


@router.post("/units/{unit_id}/fault")
def set_fault(
    unit_id: int, wanted: FaultWanted, session: SessionNow, context: ContextNow
) -> UnitView:
    """Set a fault in a simulated unit."""
    row = unit(session, unit_id)
    if row.simulated is None:
        raise Refused("This unit is a real one.", "Faults are set in simulated units alone.")
    _, faults = suspects_of(*known_of(row, session, context))
    seed = int(row.simulated.get("seed", 0))
    fault: Fault | None
    if wanted.which == "none":
        fault = None
    elif wanted.which == "any":
        fault = random_fault(faults, seed + len(records_of(session, unit_id)))
    else:
        if not 0 <= wanted.which < len(faults):
            raise Refused("There is no such fault.", "Choose one of the list.")
        fault = faults[wanted.which]
    row.simulated = {"seed": seed, "fault": plain_fault(fault) if fault else None}
    record(session, unit_id, "set", {"words": "the fault of the simulated unit"}, datetime.now(UTC))
    session.flush()
    return describe_unit(row, session, context)


@router.post("/units/{unit_id}/symptom")
def say_symptom(
    unit_id: int,
    wanted: SymptomWanted,
    session: SessionNow,
    context: ContextNow,
    at: BenchAddress = "",
) -> UnitView:
    """What is seen first: a hunt begins anew."""
    row = unit(session, unit_id)
    suspects, _ = suspects_of(*known_of(row, session, context))
    seen = Symptom(wanted.dead, wanted.hot, frozenset(wanted.broken), wanted.manner)
    if wanted.observe:
        with bench(row, suspects, session, at) as unit_now:
            seen = symptom(unit_now.line("SYMPTOM"))
    record(session, unit_id, "symptom", plain_symptom(seen), datetime.now(UTC))
    return describe_unit(row, session, context)


@router.post("/units/{unit_id}/test")
def make_test(
    unit_id: int,
    wanted: TestWanted,
    session: SessionNow,
    context: ContextNow,
    at: BenchAddress = "",
) -> UnitView:
    """One reading more, typed in or asked of a bench unit."""
    row = unit(session, unit_id)
    suspects, _ = suspects_of(*known_of(row, session, context))
    plain = wanted.probe.model_dump(include={"sort", "one", "other"})
    probe = probe_from(plain)
    known = suspects.faulty[0].nets if suspects.faulty else {}
    if probe.one not in known or (probe.other[0] and probe.other not in known):
        raise Refused("The circuit has no such lead.", "Choose one of the tests.")
    reading = wanted.reading
    if reading is None:
        line = ask(probe)
        with bench(row, suspects, session, at) as unit_now:
            reading = number(unit_now.line(line), line.split()[0])
    content = {**plain, "reading": reading, "words": probe.words}
    record(session, unit_id, "test", content, datetime.now(UTC))
    return describe_unit(row, session, context)


@router.post("/units/{unit_id}/first-power")
def run_first_power(
    unit_id: int, session: SessionNow, context: ContextNow, at: BenchAddress = ""
) -> UnitView:
    """All readings before and after power on a bench unit, each recorded with its verdict; power
    stays off where one before it is wrong.
    """
    row = unit(session, unit_id)
    suspects, faults = suspects_of(*known_of(row, session, context))
    table = first_power(suspects.desk, faults)
    with bench(row, suspects, session, at) as unit_now:
        good = True
        for line in (*table.before, *table.neighbours):
            good &= read_row(session, unit_id, unit_now, line, "before power")
        for line in table.after if good else ():
            read_row(session, unit_id, unit_now, line, "after power")
    if not good:
        words = "Power stays off: a resistance is not as expected."
        content = {"words": words, "good": False}
        record(session, unit_id, "before power", content, datetime.now(UTC))
    return describe_unit(row, session, context)


def read_row(session: SessionNow, unit_id: int, unit_now: Bench, line: Expected, sort: str) -> bool:
    """One reading of a table, recorded."""
    leads = [lead for lead in (line.one, line.other) if lead]
    word = "OHM" if line.sort == "ohm" else "VOLT"
    value = number(unit_now.line(" ".join([word, *leads])), word)
    good = line.low <= value <= line.high
    words = f"{line.words}: {meter_words(word.lower(), value)}, expected {line.shown}"
    record(session, unit_id, sort, {"words": words, "good": good}, datetime.now(UTC))
    return good


@router.post("/units/{unit_id}/keys")
def run_keys(
    unit_id: int, session: SessionNow, context: ContextNow, at: BenchAddress = ""
) -> UnitView:
    """Every key pressed on a bench unit: it must read, and alone."""
    row = unit(session, unit_id)
    design = design_of(row, session)
    suspects, _ = suspects_of(design, context.known(design))
    wrong, held = [], {}
    ids = [t.role(c.piece) for t in design.brief.things for c in t.contacts()]
    with bench(row, suspects, session, at) as unit_now:
        for key in ids:
            read = keys(unit_now.line(f"KEYS {key}"))
            held[key] = sorted(read)
            if read != {key}:
                wrong.append(f"{plainly(key)} reads as {plainly(*sorted(read)) or 'nothing'}")
    words = f"{len(ids)} keys pressed, {len(wrong)} wrong" + (
        f": {'; '.join(wrong[:6])}" if wrong else ""
    )
    content = {"words": words, "good": not wrong, "read": held}
    record(session, unit_id, "keys", content, datetime.now(UTC))
    return describe_unit(row, session, context)


@router.post("/units/{unit_id}/stick")
def run_stick(
    unit_id: int,
    wanted: StickWanted,
    session: SessionNow,
    context: ContextNow,
    at: BenchAddress = "",
) -> UnitView:
    """A stick moved on a bench unit, with its limits and the values for the firmware."""
    row = unit(session, unit_id)
    suspects, _ = suspects_of(*known_of(row, session, context))
    with bench(row, suspects, session, at) as unit_now:
        moved = samples(unit_now.line(f"STICK {wanted.stick}"))
    try:
        result = stick_result(wanted.stick, moved)
    except BadSamples as error:
        raise Refused(str(error), "") from None
    content = stick_content(wanted.stick, moved, result)
    record(session, unit_id, "stick", content, datetime.now(UTC))
    return describe_unit(row, session, context)


@router.post("/units/{unit_id}/rundown")
def say_rundown(
    unit_id: int, wanted: RundownWanted, session: SessionNow, context: ContextNow
) -> UnitView:
    """A timed run-down, compared with what Power promises in play."""
    row = unit(session, unit_id)
    design = design_of(row, session)
    plan = power_with(design, context.known(design))
    promised = next((h["play"] for s in plan.sources if (h := s.hours) and "play" in h), None)
    words = f"ran for {wanted.hours:g} h"
    good = None
    if promised is not None:
        good = wanted.hours >= 0.8 * promised
        words += f"; Power promises {promised:.1f} h in play"
    record(session, unit_id, "run-down", {"words": words, "good": good}, datetime.now(UTC))
    return describe_unit(row, session, context)


@contextmanager
def bench(row: UnitRow, suspects: Suspects, session: SessionNow, at: str) -> Iterator[Bench]:
    """The simulated device of a unit, or the bench unit at an address; what it does not answer is
    refused.
    """
    with answered():
        if row.simulated is None and at:
            with wired_bench(at) as wired:
                yield wired
        else:
            yield simulated_unit(row, suspects.desk, len(records_of(session, row.id)))


@contextmanager
def answered() -> Iterator[None]:
    """What a bench unit does not answer, as refusals."""
    try:
        yield
    except BenchUnreachable as error:
        raise Refused(str(error), error.way_out) from None
    except ProtocolFault as error:
        raise Refused(str(error), "Check the bench unit.") from None


@router.post("/bench")
def look_for_bench(at: BenchAddress = "") -> BenchView:
    """The serial ports of this machine, and the name of the bench unit at an address where one is
    given.
    """
    ports = [f"{device} ({words})" for device, words in serial_ports()]
    with answered():
        return BenchView(ports=ports, name=name_of(at) if at else "")

"""What a unit shows: its records in words, the last tests of its controls, and its hunt."""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from loquet.api.building import (
    fault_from,
    hunt_of,
    plain_symptom,
    suspects_of,
)
from loquet.api.context import Context, SessionNow
from loquet.api.control_tests import KeyRead, StickDrawn, keys_read, sticks_drawn
from loquet.core.build.finding import Finder
from loquet.core.build.measuring import Probe, Symptom
from loquet.core.build.meter import OPEN_OHM
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.quantities.shown import show_si
from loquet.store.designs import NotFound, load_design
from loquet.store.tables import RecordRow, UnitRow, VersionRow
from loquet.store.units import records_of

Lead = tuple[Annotated[str, Field(max_length=12)], Annotated[str, Field(max_length=8)]]
SHOWN_CAUSES, SHOWN_TESTS = 6, 3
UNITS = {"ohm": "Ω", "volt": "V", "diode": "V", "farad": "F", "look": ""}


class UnitRowView(BaseModel):
    """A unit in the list."""

    id: int
    revision: str
    serial: str
    simulated: bool
    records: int


class ProbeView(BaseModel):
    """A test with its words."""

    sort: Literal["ohm", "volt", "diode", "farad", "look"]
    one: Lead
    other: Lead = ("", "")
    words: str = ""
    unit: str = ""


class CauseView(BaseModel):
    """A cause with how likely it is, and what it may be in detail."""

    name: str
    share: float
    words: list[str]
    refs: list[str]


class HuntView(BaseModel):
    """A hunt: what was seen first, how many tests were made, the likeliest causes, the tests that
    tell most, whether one cause stands out.
    """

    symptom: dict[str, Any]
    tests: int
    causes: list[CauseView]
    best: list[ProbeView]
    sure: bool


class RecordView(BaseModel):
    """A record in words."""

    sort: str
    words: str
    good: bool | None
    at: datetime


class UnitView(BaseModel):
    """A unit with its records, the last tests of its keys and sticks, and its hunt; of a simulated
    one also which fault is set.
    """

    id: int
    serial: str
    simulated: bool
    set_fault: str
    records: list[RecordView]
    keys: list[KeyRead]
    sticks: list[StickDrawn]
    hunt: HuntView | None


def known_of(row: UnitRow, session: SessionNow, context: Context) -> tuple[Design, Library]:
    """The design that a unit was built from, and the library as that knows it."""
    design = design_of(row, session)
    return design, context.known(design)


def design_of(row: UnitRow, session: SessionNow) -> Design:
    """The design that a unit was built from, however its project went on since."""
    version = session.get(VersionRow, row.version_id) if row.version_id else None
    if version is None:
        raise NotFound(f"What unit {row.serial} was built from is not there any more.")
    return load_design(session, version)


def describe_unit(row: UnitRow, session: SessionNow, context: Context) -> UnitView:
    """A unit as it stands."""
    rows = records_of(session, row.id)
    design = design_of(row, session)
    hidden = fault_from(row.simulated.get("fault")) if row.simulated else None
    hunt = None
    if any(r.sort == "symptom" for r in rows):
        suspects, _ = suspects_of(design, context.known(design))
        found = hunt_of(rows, suspects)
        hunt = describe_hunt(found[0], found[1]) if found else None
    return UnitView(
        id=row.id,
        serial=row.serial,
        simulated=row.simulated is not None,
        set_fault=hidden.words if hidden else "",
        records=[describe_record(r) for r in reversed(rows)],
        keys=keys_read(rows, design.brief),
        sticks=sticks_drawn(rows),
        hunt=hunt,
    )


def describe_hunt(finder: Finder, seen: Symptom) -> HuntView:
    """A hunt as it stands."""
    return HuntView(
        symptom=plain_symptom(seen),
        tests=len(finder.made),
        causes=[
            CauseView(
                name=cause.name,
                share=round(cause.share, 4),
                words=[f.words for f in cause.faults[:4]],
                refs=sorted(
                    {f.ref for f in cause.faults if f.ref}
                    | {r for f in cause.faults for r, _ in f.leads}
                ),
            )
            for cause in finder.causes()[:SHOWN_CAUSES]
        ],
        best=[] if finder.sure() else [describe_probe(p) for _, p in finder.ranked()[:SHOWN_TESTS]],
        sure=finder.sure(),
    )


def describe_probe(probe: Probe) -> ProbeView:
    """A test with its words."""
    return ProbeView(
        sort=probe.sort, one=probe.one, other=probe.other, words=probe.words, unit=UNITS[probe.sort]
    )


def reading_words(sort: str, reading: float) -> str:
    """A reading for a person."""
    if sort == "look":
        joint = f"joint {reading - 1:.0f} of it has no contact"
        return (
            "Nothing is wrong there."
            if not reading
            else (
                "Something is wrong there." if reading == 1 else f"{joint[0].upper()}{joint[1:]}."
            )
        )
    shown = meter_words(sort, reading)
    return f"{shown[0].upper()}{shown[1:]}."


def meter_words(sort: str, reading: float) -> str:
    """What a meter shows, with its unit."""
    is_open = sort == "ohm" and reading >= OPEN_OHM / 2
    return "open" if is_open else show_si(reading, UNITS[sort])


def plainly(*functions: str) -> str:
    """Keys and functions by their ids, as a person reads them: `button white`."""
    return ", ".join(name.replace(":", " ") for name in functions)


def describe_record(row: RecordRow) -> RecordView:
    """A record in words."""
    content = row.content
    words, good = str(content.get("words", "")), content.get("good")
    if row.sort == "symptom":
        parts = [
            w
            for w, on in (
                ("nothing works", content["dead"]),
                ("draws far too much", content["hot"]),
            )
            if on
        ]
        parts += [f"{plainly(*content['broken'])} {content['manner']}"] if content["broken"] else []
        words = "; ".join(parts) or "nothing seen"
    if row.sort == "test":
        words = f"{words} {reading_words(content['sort'], float(content['reading']))}"
    return RecordView(sort=row.sort, words=words, good=good, at=row.created_at)

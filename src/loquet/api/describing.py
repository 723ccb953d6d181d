"""From the stored design to what the stations show."""

import contextlib
from collections import Counter
from collections.abc import Mapping
from typing import Any

from fastapi import Response
from sqlalchemy.orm import Session

from loquet.api.context import Context
from loquet.api.drawing import boards_of, drawn_things
from loquet.api.shapes import (
    DesignHead,
    JobCard,
    KeyView,
    NextStep,
    RailChoice,
    StationCard,
    StationState,
)
from loquet.core.brief import keys_of, outline_polygon_mm
from loquet.core.brief.reach import SOURCE as REACH_SOURCE
from loquet.core.brief.reach import reach_arcs
from loquet.core.checks.rule import thing
from loquet.core.design import SLICES, Design
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.lookup.brains import chip_for
from loquet.core.parts import Chip, PartError
from loquet.core.pins.model import Need
from loquet.core.pins.needing import needs_of
from loquet.core.pipeline import STATIONS_OF_STAGES, TITLES
from loquet.core.plain.remembering import Remembered
from loquet.core.planning.feasibility import brief_faults, pin_faults
from loquet.core.power import rails_of
from loquet.core.power.load import load_working
from loquet.core.provenance import Finding, Source, Working, WorkingInput
from loquet.core.reviewing import review
from loquet.store.designs import Head, head_of, load_design, next_towards_tip
from loquet.store.logbook import open_cards
from loquet.store.releases import latest_release
from loquet.store.tables import VersionRow

STATIONS = (
    "brief",
    "parts",
    "power",
    "pins",
    "circuit",
    "board",
    "stack",
    "release",
    "build",
    "log",
)


FINDINGS: Remembered[list[Finding]] = Remembered(256)


def all_findings(design: Design, library: Library) -> list[Finding]:
    """The review, with faults of the brief as stops of the Brief station; kept for as long as the
    design is the same object.
    """
    return FINDINGS.of((design, library), lambda: worked_out(design, library))


def worked_out(design: Design, library: Library) -> list[Finding]:
    """The findings, worked out."""
    faults = [
        Finding(
            rule="brief-sense",
            severity="stop",
            station="brief",
            sentence=f"{e.about[:1].upper()}{e.about[1:] or e.place} {e.problem}.",
            way_out=e.way_out,
            about=(thing(e.about),) if e.about else (),
        )
        for e in brief_faults(design.brief, library)
    ]
    return faults + [f for f in review(design, library) if not (faults and f.rule == "part-known")]


def card_findings(session: Session, project_id: int) -> list[Finding]:
    """Every open card of the log as a stop."""
    return [
        Finding(
            rule="open-fault",
            severity="stop",
            station="log",
            sentence=f"A fault is open: {card.title}.",
            way_out="Fix it and say so at the Log, or waive it with a reason.",
            about=(card.about,) if card.about else (),
        )
        for card in open_cards(session, project_id)
    ]


HEADS: Remembered[str] = Remembered(64)


def head_text(session: Session, head: Head, design: Design, context: Context) -> str:
    """What `describe_head` gives, as JSON; all but the running jobs is kept for as long as version
    and release are the same.
    """
    release = latest_release(session, head.revision.id)
    redo = next_towards_tip(session, head) is not None
    cards = " ".join(f"{c.id}" for c in open_cards(session, head.project.id))
    name = (
        f"{head.project.id} {head.version.id} {head.version.label} {redo}"
        f" {release.id if release else 0} {cards}"
    )

    def work_out() -> str:
        return describe_head(session, head, design, context).model_dump_json(exclude={"jobs"})

    kept = HEADS.of((design, context.library), work_out, name)
    jobs = ",".join(job.model_dump_json() for job in running_jobs(head.project.id, context))
    return f'{kept[:-1]},"jobs":[{jobs}]}}'


def head_now(
    session: Session, project_id: int, context: Context, status_code: int = 200
) -> Response:
    """The answer that shows a project as it stands."""
    head = head_of(session, project_id)
    text = head_text(session, head, load_design(session, head.version), context)
    return Response(text, status_code, media_type="application/json")


def running_jobs(project_id: int, context: Context) -> list[JobCard]:
    """The jobs of a project as they are now."""
    return [
        JobCard(id=t.job_id, kind=t.kind, state="running", doing=t.doing, share=t.share, message="")
        for t in context.jobs.of_project(project_id)
    ]


def describe_head(session: Session, head: Head, design: Design, context: Context) -> DesignHead:
    """Everything the frame and the Brief station need."""
    findings = [
        *card_findings(session, head.project.id),
        *all_findings(design, context.known(design)),
    ]
    stale = stale_slices(design)
    parent = session.get(VersionRow, head.version.parent_id) if head.version.parent_id else None
    released = released_now(session, head)
    return DesignHead(
        project=head.project.id,
        name=design.brief.name,
        revision=head.revision.letter,
        version=head.version.id,
        label=head.version.label,
        can_undo=parent is not None,
        can_redo=next_towards_tip(session, head) is not None,
        undo_label=head.version.label if parent else "",
        stops=sum(f.severity == "stop" for f in findings),
        todo=len(stale),
        brief=design.brief,
        choices=design.choices,
        boards=boards_of(design.brief),
        rails=[
            RailChoice(name=r.name, words=f"{r.name}, {r.usual_v:g} V of {r.words}")
            for r in rails_of(design.brief)
        ],
        brains=[brain.name for brain in design.brief.brains],
        things=drawn_things(design, context.known(design)),
        keys=[
            KeyView(id=k.id, thing=k.thing, title=k.title, digit=k.digit)
            for k in keys_of(design.brief)
        ],
        reach=list(reach_arcs(design.brief)),
        reach_source=REACH_SOURCE,
        findings=findings,
        tally=tally(design, context.known(design)),
        stale=list(stale),
        next=next_step(design, context.known(design), findings, released),
        stations=[station_card(name, design, findings, stale, released) for name in STATIONS],
        jobs=running_jobs(head.project.id, context),
    )


def released_now(session: Session, head: Head) -> bool:
    """Whether the files are those of the present state."""
    release = latest_release(session, head.revision.id)
    return release is not None and release.version_id == head.version.id


def station_card(
    name: str, design: Design, findings: list[Finding], stale: tuple[str, ...], released: bool
) -> StationCard:
    """The state of one station from its slices and findings."""
    mine = [f for f in findings if f.station == name]
    stops, looks = sum(f.severity == "stop" for f in mine), sum(f.severity == "look" for f in mine)
    slices = [s for s in SLICES if STATIONS_OF_STAGES[s] == name]
    missing = slices and not any(getattr(design, s) for s in slices)
    state: StationState
    shows_board = name in ("stack", "build")
    unplaced = shows_board and not design.placement
    nothing = name in ("parts", "power") and not design.brief.things
    if missing or unplaced or nothing or (name == "release" and not released and not stops):
        state = "empty"
    elif any(s in stale for s in slices) or (shows_board and "placement" in stale):
        state = "stale"
    elif stops:
        state = "stop"
    else:
        state = "look" if looks else "clear"
    return StationCard(name=name, state=state, stops=stops, looks=looks)


def tally(design: Design, library: Library) -> list[Working]:
    """What the brief adds up to, live from the first control on."""
    brief = design.brief
    needs = needs_of(brief)
    figures = [
        count("controls", "Controls", {"controls": len(brief.group("controls"))}),
        count("keys", "Keys", {"keys": len(keys_of(brief))}),
        count("pins", "Pins needed", Counter(n.kind for n in needs)),
        count(
            "analogue",
            "Analogue channels",
            {"channels": sum(n.kind == "analogue" for n in needs)},
        ),
    ]
    with contextlib.suppress(PartError):
        for brain in brief.brains:
            own = needs_of(brief, brain.name)
            several = f" of {brain.name}" if len(brief.brains) > 1 else ""
            figures.append(left_over(chip_for(brief, library, brain.name), own, several))
    figures.append(load_working(brief, library.parts, library.screens))
    areas = {b.name: round(outline_polygon_mm(b.outline).area / 100, 2) for b in brief.boards}
    figures.append(count("area", "Board area", areas, "cm²", "outlines of the brief"))
    figures.append(count("quantity", "To make", {"wanted": brief.quantity}, "pieces"))
    return figures


def left_over(chip: Chip, needs: tuple[Need, ...], of: str) -> Working:
    """Usable pins less needed ones; `of` names the brain where there are several."""
    usable = sum(pin.kind == "port" and not pin.is_reset for pin in chip.pins)
    return Working(
        id=f"tally.free{of}",
        title=f"Pins left over{of}",
        value=usable - len(needs),
        unit="pins",
        shown=str(usable - len(needs)),
        formula="usable pins - pins needed",
        inputs=(
            WorkingInput(name="usable pins", value=str(usable), origin=chip.data_source),
            WorkingInput(name="pins needed", value=str(len(needs)), origin="brief"),
        ),
        source=Source(kind="open data", text=chip.data_source),
    )


def count(
    name: str,
    title: str,
    terms: Mapping[str, float],
    unit: str = "",
    origin: str = "counted from the brief",
) -> Working:
    """A sum of counts, each of which is an input."""
    value = sum(terms.values())
    return Working(
        id=f"tally.{name}",
        title=title,
        value=value,
        unit=unit,
        shown=f"{value:g}",
        formula=" + ".join(f"[{term}]" for term in terms) or "0",
        inputs=tuple(
            WorkingInput(name=f"[{term}]", value=f"{number:g}", unit=unit, origin=origin)
            for term, number in terms.items()
        ),
        source=Source(kind="brief", text=origin),
    )


def next_step(
    design: Design, library: Library, findings: list[Finding], released: bool
) -> NextStep:
    """One line that says where the design stands, and the one thing to do next."""
    brief_stops = [f for f in findings if f.severity == "stop" and f.station == "brief"]
    if not design.brief.brain:
        return step("The device has no brain yet.", "Add a microcontroller", "", "brief")
    if brief_stops and short_of_pins(design, library):
        return step(brief_stops[0].sentence, "See the ways out", "", "pins")
    if brief_stops:
        return step(brief_stops[0].sentence, "Mend the brief", "", brief_stops[0].station)
    stops = [f for f in findings if f.severity == "stop"]
    waits = [f for f in stops if f.station in ("pins", "circuit")]
    if waits:
        return step(
            waits[0].sentence, f"Look at {waits[0].station.capitalize()}", "", waits[0].station
        )
    stale = stale_slices(design)
    if stale:
        return step(
            f"{made_so_far(design, stale)} To do: {', '.join(TITLES[n] for n in stale)}.",
            "Make the board",
            "everything",
            "board",
        )
    if stops:
        return step(
            stops[0].sentence, f"Look at {stops[0].station.capitalize()}", "", stops[0].station
        )
    if not released:
        return step(
            "The board is whole and clean.", "Write and prove the files", "release", "release"
        )
    return step("The files are written and proven.", "Go to the order", "", "release")


def made_so_far(design: Design, stale: tuple[str, ...]) -> str:
    """What stands, and what stands there from an earlier state."""
    made = [TITLES[name] for name in SLICES if name not in stale]
    old = [TITLES[name] for name in SLICES if name in stale and getattr(design, name)]
    if old:
        return f"Made from an earlier state: {', '.join(old)}."
    return f"Made so far: {', '.join(made)}." if made else "Nothing is made of the brief yet."


def short_of_pins(design: Design, library: Library) -> bool:
    """Whether nothing but a want of pins stops the brief."""
    faults = [str(fault) for fault in brief_faults(design.brief, library)]
    return bool(faults) and faults == [str(f) for f in pin_faults(design.brief, library)]


def step(sentence: str, action: str, job: str, station: str) -> NextStep:
    """The line as a value."""
    return NextStep(sentence=sentence, action=action, job=job, station=station)


def next_station(design: Design, findings: list[Finding]) -> str:
    """Where the work goes on: the first station with a stop, else the release."""
    with_stops: set[Any] = {f.station for f in findings if f.severity == "stop"}
    return next((name for name in STATIONS if name in with_stops), "release")

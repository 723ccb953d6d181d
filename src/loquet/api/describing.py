"""From the stored design to what the stations show."""

from collections import Counter
from typing import Any

from sqlalchemy.orm import Session

from loquet.api.context import Context
from loquet.api.shapes import DesignHead, JobCard, KeyView, SizedThing, StationCard, StationState
from loquet.core.brief import Brief, keys_of
from loquet.core.brief.reach import SOURCE as REACH_SOURCE
from loquet.core.brief.reach import reach_arcs
from loquet.core.brief.seats import at, fixed_seats
from loquet.core.brief.sense import outline_polygon_mm
from loquet.core.design import SLICES, Design
from loquet.core.feasibility import brief_faults
from loquet.core.library import Library
from loquet.core.parts import Chip, PartError
from loquet.core.pins.model import Need
from loquet.core.pins.needs import needs_of
from loquet.core.pipeline import (
    STATIONS_OF_STAGES,
    chip_for,
    part_of_role,
    screw_circles,
    stale_slices,
)
from loquet.core.provenance import Finding, Source, Working, WorkingInput
from loquet.core.reviewing import review
from loquet.store.designs import Head, next_towards_tip
from loquet.store.releases import latest_release
from loquet.store.tables import VersionRow

POWER_MM = {
    "lithium-cell": (50.0, 34.0),
    "coin-cell": (24.0, 24.0),
    "nine-volt": (48.5, 26.5),
    "from-host": (9.0, 7.5),
}
STATIONS = ("brief", "pins", "circuit", "board", "release")


def all_findings(design: Design, library: Library) -> list[Finding]:
    """The review, with faults of the brief as stops of the Brief station."""
    faults = [
        Finding(
            rule="brief-sense",
            severity="stop",
            station="brief",
            sentence=f"{e.place} {e.problem}.",
            way_out=e.way_out,
            about=(f"brief:{e.place}",),
        )
        for e in brief_faults(design.brief, library)
    ]
    return faults + [f for f in review(design, library) if not (faults and f.rule == "part-known")]


def describe_head(session: Session, head: Head, design: Design, context: Context) -> DesignHead:
    """Everything the frame and the Brief station need."""
    findings = all_findings(design, context.library)
    stale = stale_slices(design)
    parent = session.get(VersionRow, head.version.parent_id) if head.version.parent_id else None
    release = latest_release(session, head.revision.id)
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
        brief=design.brief,
        choices=design.choices,
        outline_mm=[
            (round(x, 4), round(y, 4))
            for x, y in outline_polygon_mm(design.brief.outline).exterior.coords
        ],
        things=sized_things(design.brief, context.library),
        keys=[KeyView(id=k.id, title=k.title, digit=k.digit) for k in keys_of(design.brief)],
        reach=list(reach_arcs(design.brief)),
        reach_source=REACH_SOURCE,
        findings=findings,
        tally=tally(design, context.library),
        stale=list(stale),
        stations=[
            station_card(name, design, findings, stale, release is not None) for name in STATIONS
        ],
        jobs=[
            JobCard(
                id=t.job_id, kind=t.kind, state="running", doing=t.doing, share=t.share, message=""
            )
            for t in context.jobs.of_project(head.project.id)
        ],
    )


def station_card(
    name: str, design: Design, findings: list[Finding], stale: tuple[str, ...], released: bool
) -> StationCard:
    """The state of one station from its slices and findings."""
    mine = [f for f in findings if f.station == name]
    stops, looks = sum(f.severity == "stop" for f in mine), sum(f.severity == "look" for f in mine)
    slices = [s for s in SLICES if STATIONS_OF_STAGES[s] == name]
    missing = slices and all(getattr(design, s) is None for s in slices)
    state: StationState
    if missing or (name == "release" and not released):
        state = "empty"
    elif any(s in stale for s in slices):
        state = "stale"
    elif stops:
        state = "stop"
    else:
        state = "look" if looks else "clear"
    return StationCard(name=name, state=state, stops=stops, looks=looks)


def sized_things(brief: Brief, library: Library) -> list[SizedThing]:
    """Bodies of everything the brief places, with screw heads and the screen; what lies behind comes first."""
    found = []
    for role, seat in fixed_seats(brief).items():
        if role == "chip":
            continue
        kind, *names = role.split(":")
        name = " ".join(names)
        try:
            pattern = library.pattern(part_of_role(brief, role))
        except KeyError:
            continue
        w, h = seat.size(pattern.body.w, pattern.body.h)
        thing = {"switch": "power_switch", "port": "programming_port", "cell": "power"}.get(
            kind, ":".join(role.split(":")[:2])
        )
        label = name or {"switch": "power switch", "port": "programming port"}.get(kind, kind)
        x, y = seat.point(pattern.body.x, pattern.body.y)
        yard = seat.size(pattern.courtyard.w, pattern.courtyard.h)
        found.append(
            sized(
                thing,
                kind,
                f"cell {name}" if kind == "cell" else label,
                x,
                y,
                (w, h),
                yard,
                seat.far,
            )
        )
    if brief.screen and brief.screen.part in library.screens:
        module, seat = library.screens[brief.screen.part], fixed_seats(brief)["screen"]
        x, y = seat.point(0, round((module.header_inset_mm - module.height_mm / 2) * 1e6))
        w, h = seat.size(round(module.width_mm * 1e6), round(module.height_mm * 1e6))
        found.append(sized("screen", "glass", "screen", x, y, (w, h), (w, h), False))
    if brief.power.kind in POWER_MM:
        w, h = at(0, 0, brief.power.turn_deg).size(
            *(round(v * 1e6) for v in POWER_MM[brief.power.kind])
        )
        x, y = round(brief.power.x_mm * 1e6), round(brief.power.y_mm * 1e6)
        found.append(
            sized("power", "cell", brief.power.kind.replace("-", " "), x, y, (w, h), (w, h), True)
        )
    for hole, (x, y, radius) in zip(brief.fixing_holes, screw_circles(brief), strict=True):
        found.append(
            sized(
                f"hole:{hole.name}",
                "hole",
                f"{hole.name} {hole.screw}",
                x,
                y,
                (2 * radius, 2 * radius),
                (2 * radius, 2 * radius),
                False,
            )
        )
    return sorted(found, key=lambda thing: (not thing.far, thing.kind != "glass"))


def sized(
    thing: str,
    kind: str,
    name: str,
    x: int,
    y: int,
    body: tuple[int, int],
    yard: tuple[int, int],
    far: bool,
) -> SizedThing:
    """In millimetres."""
    return SizedThing(
        thing=thing,
        kind=kind,
        name=name,
        x_mm=x / 1e6,
        y_mm=y / 1e6,
        w_mm=body[0] / 1e6,
        h_mm=body[1] / 1e6,
        yard_w_mm=yard[0] / 1e6,
        yard_h_mm=yard[1] / 1e6,
        far=far,
    )


def tally(design: Design, library: Library) -> list[Working]:
    """What the brief adds up to, live from the first control on."""
    brief = design.brief
    needs = needs_of(brief)
    source = Source(kind="brief", text="counted from the brief")
    kinds = Counter(n.kind for n in needs)
    figures = [
        count("controls", "Controls", len(brief.controls), "controls on the device", source),
        count(
            "keys",
            "Keys",
            len(keys_of(brief)),
            "everything that is open or closed, in the order of the report",
            source,
        ),
        count(
            "pins",
            "Pins needed",
            len(needs),
            f"signals of the brief, keys read by: {brief.key_scheme.name}",
            source,
        ),
        count(
            "analogue",
            "Analogue channels",
            kinds["analogue"],
            "axes, levels and voltages that the chip reads itself",
            source,
        ),
    ]
    try:
        chip = chip_for(brief, library)
        figures.append(left_over(chip, needs))
    except PartError:
        pass
    current = light_current_ma(brief, library)
    figures.append(
        count(
            "current",
            "Known current",
            round(current, 1),
            "chip 8 mA + screen + indicator + sensors of sticks and triggers",
            source,
            "mA",
        )
    )
    polygon = outline_polygon_mm(brief.outline)
    figures.append(
        count(
            "area", "Board area", round(polygon.area / 100, 2), "area of the outline", source, "cm²"
        )
    )
    figures.append(count("quantity", "To make", brief.quantity, "wanted", source, "pieces"))
    return figures


def left_over(chip: Chip, needs: tuple[Need, ...]) -> Working:
    """Usable pins less needed ones."""
    usable = sum(pin.kind == "port" and not pin.is_reset for pin in chip.pins)
    return Working(
        id="tally.free",
        title="Pins left over",
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


def light_current_ma(brief: Brief, library: Library) -> float:
    """Current of what is known at this stage, in mA; the Power station works it out in full."""
    total = 8.0 + (
        library.screens[brief.screen.part].current_ma
        if brief.screen and brief.screen.part in library.screens
        else 0.0
    )
    total += brief.light.current_ma if brief.light else 0.0
    return total + sum(
        library.parts[c.part].values.get("current_ma", 0.0)
        for c in brief.controls
        if c.part in library.parts
    )


def count(
    name: str, title: str, value: float, formula: str, source: Source, unit: str = ""
) -> Working:
    """A plain count."""
    return Working(
        id=f"tally.{name}",
        title=title,
        value=value,
        unit=unit,
        shown=f"{value:g}",
        formula=formula,
        source=source,
    )


def next_station(design: Design, findings: list[Finding]) -> str:
    """Where the work goes on: the first station with a stop, else the release."""
    with_stops: set[Any] = {f.station for f in findings if f.severity == "stop"}
    return next((name for name in STATIONS if name in with_stops), "release")

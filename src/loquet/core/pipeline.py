"""The stages in order: what each makes, and running them."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from shapely.geometry.base import BaseGeometry

from loquet.core.board import BoardView, Placement, Pour, Routing, Wires
from loquet.core.board.current import supply_width_working, width_for_nm
from loquet.core.board.islands import CutOff, cut_off_ground
from loquet.core.board.model import GROUND_ALONE
from loquet.core.board.openings import board_area
from loquet.core.board.planes import plane_net, planes_of
from loquet.core.board.pouring import pour_ground
from loquet.core.brief import Brief, Thing
from loquet.core.brief.module_sockets import module_sockets
from loquet.core.brief.seats import fixed_seats, seat_of_thing
from loquet.core.brief.shares import mark_of, share_of
from loquet.core.circuit import Circuit
from loquet.core.circuit.assembling import assemble
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.circuit.model import CHIP_PART
from loquet.core.design import SLICES, Design, Made, SliceName, slice_of, subjects_of
from loquet.core.freshness import BEFORE, inputs_digest, stale_subjects
from loquet.core.geometry import Rect, Seat
from loquet.core.library import Library
from loquet.core.lookup.brains import brain_of, chip_for
from loquet.core.lookup.covers import covers_of, lying_behind, screw_circles
from loquet.core.lookup.project_library import project_library
from loquet.core.lookup.switched_on import carried_of, planned_of
from loquet.core.parts import LandPattern
from loquet.core.pins import Infeasible, PinPlan, PinProblem, Solved, Stopped, places_of, solve
from loquet.core.pins.needing import needs_of
from loquet.core.pins.package_map import package_places
from loquet.core.pins.planning import plan_of
from loquet.core.placement import PlacingInput, chip_seat, place
from loquet.core.placement.corner_seats import corner_seats
from loquet.core.placement.edge_seats import edge_seats, plug_area, taken_areas
from loquet.core.placement.kept_rooms import kept_rooms, near_rects_kept
from loquet.core.placement.seating import NoRoom
from loquet.core.plain.frozen import digest_of
from loquet.core.plain.remembering import Remembered
from loquet.core.power import rails_of
from loquet.core.quantities.lengths import nm_from_mm
from loquet.core.routing import RouteInput, RouteProgress, route

SWITCHED_NM = 800_000
"""A net that jumps is drawn as wide as this where there is room; common practice, no source."""
Progress = Callable[[RouteProgress], bool]
Run = Callable[[Design, Library, Progress, str], PinPlan | Circuit | Placement | Routing | Pour]


class StageRefused(Exception):
    """A stage that cannot give an answer: the stage, why, the way out, and what it is about."""

    def __init__(
        self, stage: SliceName, why: str, way_out: str, about: tuple[str, ...] = ()
    ) -> None:
        super().__init__(f"{why} {way_out}")
        self.stage, self.why, self.way_out, self.about = stage, why, way_out, about


def run_stage(
    design: Design,
    stage: SliceName,
    library: Library,
    progress: Progress = lambda _: True,
    subject: str = "",
) -> Design:
    """The design with one slice made anew, for one subject or for all; raises StageRefused,
    RecipeNotPossible, NoRoom, PartError.
    """
    library = project_library(design, library)
    for name in BEFORE[stage]:
        if not getattr(design, name):
            title = TITLES[name]
            raise StageRefused(stage, f"There is no {title} yet.", f"Make the {title} first.")
    subjects = (subject,) if subject else subjects_of(design.brief, stage)
    if not subjects:
        raise StageRefused(stage, "There is no brain yet.", "Add a microcontroller at the Brief.")
    kept = {
        name: made
        for name, made in getattr(design, stage).items()
        if name in subjects_of(design.brief, stage)
    }
    design = design.model_copy(update={stage: kept})
    for each in subjects:
        made_from = inputs_digest(design, stage, each)
        value = RUNS[stage](design, library, progress, each)
        design = design.with_made(stage, each, MADE[stage](made_from=made_from, value=value))
    return design


def bring_up_to_date(
    design: Design,
    library: Library,
    until: SliceName = "pour",
    progress: Progress = lambda _: True,
) -> Design:
    """The design with every stale slice made anew, in order, up to `until`."""
    for name in SLICES[: SLICES.index(until) + 1]:
        for stale, subject in stale_subjects(design):
            if stale == name:
                design = run_stage(design, name, library, progress, subject)
    return design


def plan_pins(design: Design, library: Library, progress: Progress, subject: str) -> PinPlan:
    """The pin stage."""
    problem = pin_problem(design, library, subject)
    match solve(problem):
        case Solved() as solved:
            return plan_of(problem, solved)
        case Infeasible(why, way_out, signals):
            raise StageRefused("pins", why, way_out, signals)
        case Stopped():
            raise StageRefused(
                "pins",
                "No pin plan was found in the time given.",
                "Release some locks and solve again.",
            )


def pin_problem(design: Design, library: Library, brain: str = "") -> PinProblem:
    """Needs of a brain (the first, unless named), its chip and seat: where it was placed last, or
    where it will most likely sit.
    """
    thing = brain_of(design.brief, brain)
    chip = chip_for(design.brief, library, thing.name)
    needs = tuple(
        replace(n, target=design.choices.pin_targets.get(n.signal, n.target))
        for n in needs_of(design.brief, thing.name)
    )
    if chip.uncovered:
        places = package_places(chip, seat_of_thing(design.brief, thing))
    else:
        pattern = library.pattern(f"{CHIP_PART}{chip.name}")
        places = places_of(pattern, likely_seat(design, library, pattern, thing))
    locks = design.choices.pin_locks
    return PinProblem(
        needs, chip, places, {n.signal: locks[n.signal] for n in needs if n.signal in locks}
    )


def likely_seat(design: Design, library: Library, pattern: LandPattern, brain: Thing) -> Seat:
    """The chip's seat for planning: a board that is still too crowded for it can have its pins
    planned all the same.
    """
    try:
        return seat_of_chip(design, library, pattern, brain)
    except NoRoom:
        return seat_of_thing(design.brief, brain)


def seat_of_chip(
    design: Design,
    library: Library,
    pattern: LandPattern,
    brain: Thing,
    seated: tuple[tuple[LandPattern, Seat], ...] = (),
    number: int = 1,
) -> Seat:
    """The seat of a brain: locked by a person, given in the brief, or the best free place beside
    what is `seated` already, or the next best ones.
    """
    brief = design.brief
    chosen = design.choices.part_seats.get(brain.role())
    if chosen:
        return Seat(nm_from_mm(chosen.x_mm), nm_from_mm(chosen.y_mm), chosen.turn_deg, chosen.far)
    if brain.place is not None:
        return seat_of_thing(brief, brain)
    if brain.name in module_sockets(brief):
        at_edge = seats_at_edge(brief, library, brain.board)[0].get(brain.role())
        if at_edge:
            return at_edge
    around = [(library.pattern(part), seat) for part, seat in placed_parts(brief, brain.board)]
    around += seated
    targets = [need.target for need in needs_of(brief, brain.name) if need.target]
    outline = board_area(brief, brief.board(brain.board))
    screws = screw_circles(brief, brain.board)
    high = library.package(chip_for(brief, library, brain.name).package).height_mm
    kept = near_rects_kept(brief, brain.board, high)
    behind = bodies_behind(brief, library, brain.board)
    return chip_seat(outline, pattern, around, screws, targets, kept, behind, number)


def seats_at_edge(
    brief: Brief, library: Library, board: str
) -> tuple[dict[str, Seat], list[BaseGeometry]]:
    """Seats of the ports of a board that have no place, and all that is taken then."""
    screws = screw_circles(brief, board)
    placed = tuple((library.pattern(part), seat) for part, seat in placed_parts(brief, board))
    taken = taken_areas(brief, board, placed, screws, near_rects_kept(brief, board))
    taken += [
        plug_area(library.pattern(part), seat, library.plug(part))
        for part, seat in placed_parts(brief, board)
    ]
    behind = bodies_behind(brief, library, board)
    return edge_seats(brief, board, library.pattern, library.plug, taken, behind), taken


def bodies_behind(brief: Brief, library: Library, board: str) -> tuple[Rect, ...]:
    """Courtyards of what the brief places on the far side of a board, and what lies there, where no
    pin may come out, in nm.
    """
    standing = (
        seat.rect(library.pattern(part).courtyard)
        for part, seat in placed_parts(brief, board)
        if seat.far
    )
    return (*standing, *lying_behind(brief, board))


def placed_parts(brief: Brief, board: str) -> list[tuple[str, Seat]]:
    """Catalogue parts that the brief places on a board, with their seats."""
    seats = fixed_seats(brief, board)
    return [
        (body.part, seats[thing.role(body.piece)])
        for thing in brief.on(board)
        for body in thing.bodies()
        if body.part and thing.role(body.piece) in seats
    ]


def make_circuit(design: Design, library: Library, progress: Progress, subject: str) -> Circuit:
    """The circuit stage, with every named part looked up first."""
    brief = design.brief
    for thing in brief.things:
        library.check_parts(thing)
    desks = {}
    for brain in (brain_of(brief), *brief.brains[1:]):
        chip = chip_for(brief, library, brain.name)
        desks[brain.name] = Desk(
            share=share_of(brief, brain.name),
            plan=slice_of(design.pins, brain.name),
            chip=chip,
            pattern=library.pattern(f"{CHIP_PART}{chip.name}"),
            mark=mark_of(brief, brain.name),
        )
    changes = design.choices.by_hand
    return assemble(Bench(brief, desks, library.parts, library.screens, changes))


def place_parts(design: Design, library: Library, progress: Progress, subject: str) -> Placement:
    """The placing stage."""
    brief, circuit = design.brief, slice_of(design.circuit).on(subject)
    patterns = {c.ref: library.pattern(c.part) for c in circuit.components}
    seats = fixed_seats(brief, subject)
    screws = screw_circles(brief, subject)
    ports, taken = seats_at_edge(brief, library, subject)
    ports |= corner_seats(brief, subject, library.pattern, taken)
    seats |= ports
    by_role = {c.role: patterns[c.ref] for c in circuit.components}
    seated = tuple((by_role[role], seat) for role, seat in ports.items() if role in by_role)
    for chip in (c for c in circuit.components if c.is_chip):
        pattern, brain = patterns[chip.ref], brief.thing(chip.thing)
        number = design.arrangement(subject)
        seats[chip.role] = seat_of_chip(design, library, pattern, brain, seated, number)
        seated += ((pattern, seats[chip.role]),)
    locked = {
        role: Seat(nm_from_mm(s.x_mm), nm_from_mm(s.y_mm), s.turn_deg, s.far)
        for role, s in design.choices.part_seats.items()
    }
    low: tuple[Rect, ...] = tuple(cover.rect for cover in covers_of(brief, library, subject))
    return place(
        PlacingInput(
            outline=board_area(brief, brief.board(subject)),
            circuit=circuit,
            patterns=patterns,
            heights_mm={c.ref: library.height_mm(c) for c in circuit.components},
            fixed=seats,
            locked=locked,
            holes=screws,
            low_areas=low,
            kept=kept_rooms(brief, subject),
            lying=lying_behind(brief, subject),
            rails=frozenset(rail.net for rail in rails_of(brief)),
            switched=frozenset(net.name for net in circuit.nets if net.kind == "switched"),
            arrangement=design.arrangement(subject),
            both_sides=brief.board(subject).both_sides,
        )
    )


def route_board(design: Design, library: Library, progress: Progress, subject: str) -> Routing:
    """The routing stage."""
    view = board_view(design, library, subject)

    def cut_off(routing: Routing) -> CutOff:
        routed = replace(view, routing=routing, pour=None)
        pour = poured(routed)
        return cut_off_ground(routed, pour.pieces, pour.stitches)

    drawn = wires_of_nets(design.choices.wires.get(subject, Wires()), view.circuit)
    plane = plane_net(view.circuit) if view.board.copper_layers > 2 else ""
    peaks = currents_on(design, library, view)
    copper_um = design.brief.making.copper_um
    given = replace(
        route_input(view),
        wires=drawn,
        cut_off=cut_off,
        plane=plane,
        widths_nm={
            net.name: max(
                width_for_nm(peaks.get(net.name, 0.0), copper_um),
                SWITCHED_NM if net.kind == "switched" else 0,
            )
            for net in view.circuit.nets
            if net.kind != "signal"
        },
    )
    width = supply_width_working(view.rules.supply_width_nm, peaks, copper_um)

    def explained(made: Routing) -> Routing:
        return made.model_copy(update={"workings": (width,)})

    def told(seen: RouteProgress) -> bool:
        return progress(replace(seen, state=lambda: explained(seen.state())))

    return explained(route(given, told))


def currents_on(design: Design, library: Library, view: BoardView) -> dict[str, float]:
    """By net of a board, what it carries with everything on, in A."""
    circuit, brains = slice_of(design.circuit), planned_of(design, library)
    carried = carried_of(design.brief, circuit, library, brains).nets
    here = {net.name for net in view.circuit.nets}
    return {net: current / 1000 for net, current in carried.items() if net in here}


def route_input(view: BoardView) -> RouteInput:
    """What the router needs of a board, without what a person drew."""
    return RouteInput(
        view.outline, view.wiring_area, view.circuit, view.obstacles, view.holes, view.rules
    )


def wires_of_nets(wires: Wires, circuit: Circuit) -> Wires:
    """Wires by hand of nets that the circuit still has; those of a net that is gone stay a choice,
    and lie there again when it comes back.
    """
    known = {net.name for net in circuit.nets}
    return Wires(
        tracks=tuple(t for t in wires.tracks if t.net in known),
        vias=tuple(v for v in wires.vias if v.net in known),
    )


def pour_board(design: Design, library: Library, progress: Progress, subject: str) -> Pour:
    """The pouring stage."""
    kept = {name: made for name, made in design.pour.items() if name != subject}
    view = board_view(design.model_copy(update={"pour": kept}), library, subject)
    ground = poured(view)
    return ground.model_copy(update={"planes": planes_of(view, ground.stitches)})


POURS: Remembered[Pour] = Remembered(8)


def poured(view: BoardView) -> Pour:
    """The pour of a routed board; routing has tried it already."""
    routing = view.routing
    assert routing is not None
    wires = digest_of(Routing(tracks=routing.tracks, vias=routing.vias))
    name = f"{view.board.name} {wires} {digest_of(view.pour_choice)}"
    return POURS.of((view.brief, view.placement), lambda: pour_ground(view), name)


def board_view(design: Design, library: Library, board: str = "") -> BoardView:
    """A board as geometry, as far as it has been made; the main one where none is named."""
    library = project_library(design, library)
    name = design.brief.board(board).name
    circuit = slice_of(design.circuit).on(name)
    routing, pour = design.routing.get(name), design.pour.get(name)
    return BoardView(
        brief=design.brief,
        board=design.brief.board(name),
        circuit=circuit,
        patterns={c.ref: library.pattern(c.part) for c in circuit.components},
        heights_mm={c.ref: library.height_mm(c) for c in circuit.components},
        rules=library.house(design.choices.house).rules(design.brief.making.copper_um),
        placement=slice_of(design.placement, name),
        routing=routing.value if routing else None,
        pour=pour.value if pour else None,
        pour_choice=design.choices.pours.get(name, GROUND_ALONE),
    )


TITLES: dict[SliceName, str] = {
    "pins": "pin plan",
    "circuit": "circuit",
    "placement": "placement",
    "routing": "routing",
    "pour": "pour",
}
MADE: dict[SliceName, type[Made[Any]]] = {
    "pins": Made[PinPlan],
    "circuit": Made[Circuit],
    "placement": Made[Placement],
    "routing": Made[Routing],
    "pour": Made[Pour],
}
RUNS: dict[SliceName, Run] = {
    "pins": plan_pins,
    "circuit": make_circuit,
    "placement": place_parts,
    "routing": route_board,
    "pour": pour_board,
}
STATIONS_OF_STAGES: dict[SliceName, str] = {
    "pins": "pins",
    "circuit": "circuit",
    "placement": "board",
    "routing": "board",
    "pour": "board",
}

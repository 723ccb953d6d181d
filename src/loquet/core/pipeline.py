"""The stages in order: what each reads, what it makes, and which slices have gone stale."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from loquet.core.board import BoardView, Placement, Pour, Routing
from loquet.core.board.copper import CLEARANCE_HOLE_MM, HEAD_MM
from loquet.core.board.current import supply_width_working
from loquet.core.board.outline import polygon_nm
from loquet.core.board.pouring import pour_ground
from loquet.core.brief import Brief
from loquet.core.brief.keys import part_kind, role_of
from loquet.core.brief.seats import fixed_seats
from loquet.core.brief.sense import OWN_CHIP
from loquet.core.circuit import Circuit
from loquet.core.circuit.assembling import PartShelf, assemble
from loquet.core.design import SLICES, Design, Made, SliceName
from loquet.core.frozen import digest_of
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.parts import Chip, LandPattern
from loquet.core.parts.screen import HEADERS
from loquet.core.pins import Infeasible, PinPlan, PinProblem, Solved, Stopped, places_of, solve
from loquet.core.pins.needs import needs_of
from loquet.core.pins.own_chip import chip_of_table
from loquet.core.pins.package_map import package_places
from loquet.core.pins.planning import plan_of
from loquet.core.placement import PlacingInput, chip_seat, place
from loquet.core.placement.seating import NoRoom
from loquet.core.quantities.lengths import MM, nm_from_mm
from loquet.core.routing import RouteInput, RouteProgress, route

Progress = Callable[[RouteProgress], bool]
SUPPLY_LIMIT_A = 0.5
NOT_DRAWN = ("quantity", "wanted_by", "name", "purpose")


class StageRefused(Exception):
    """A stage that cannot give an answer: the stage, why, the way out, and what it is about."""

    def __init__(
        self, stage: SliceName, why: str, way_out: str, about: tuple[str, ...] = ()
    ) -> None:
        super().__init__(f"{why} {way_out}")
        self.stage, self.why, self.way_out, self.about = stage, why, way_out, about


@dataclass(frozen=True)
class Stage:
    """A stage: the slices it stands on, and the function that makes it."""

    name: SliceName
    before: tuple[SliceName, ...]
    run: Callable[[Design, Library, Progress], PinPlan | Circuit | Placement | Routing | Pour]


def inputs_digest(design: Design, stage: SliceName) -> str:
    """Digest of everything a stage reads."""
    brief = design.brief.model_dump(mode="json")
    for name in NOT_DRAWN:
        brief.pop(name)
    parts: dict[str, Any] = {"brief": brief}
    for name in STAGES[stage].before:
        made = getattr(design, name)
        parts[name] = digest_of(made.value) if made else None
    if stage == "pins":
        parts["locks"] = design.choices.pin_locks
        parts["targets"] = design.choices.pin_targets
    if stage == "placement":
        parts["seats"] = {
            role: seat.model_dump(mode="json") for role, seat in design.choices.part_seats.items()
        }
    if stage in ("routing", "pour"):
        parts["house"] = design.choices.house
    return digest_of(parts)


def stale_slices(design: Design) -> tuple[SliceName, ...]:
    """Slices that are missing, or made from something else than what now stands before them, and all after those."""
    for index, name in enumerate(SLICES):
        made = getattr(design, name)
        if made is None or made.made_from != inputs_digest(design, name):
            return SLICES[index:]
    return ()


def run_stage(
    design: Design, stage: SliceName, library: Library, progress: Progress = lambda _: True
) -> Design:
    """The design with one slice made anew; raises StageRefused, RecipeNotPossible, NoRoom, PartError."""
    for name in STAGES[stage].before:
        if getattr(design, name) is None:
            raise StageRefused(
                stage, f"There is no {TITLES[name]} yet.", f"Make the {TITLES[name]} first."
            )
    made_from = inputs_digest(design, stage)
    value = STAGES[stage].run(design, library, progress)
    return design.model_copy(update={stage: MADE[stage](made_from=made_from, value=value)})


def bring_up_to_date(
    design: Design, library: Library, until: SliceName = "pour", progress: Progress = lambda _: True
) -> Design:
    """The design with every stale slice made anew, in order, up to `until`."""
    for name in SLICES[: SLICES.index(until) + 1]:
        if name in stale_slices(design):
            design = run_stage(design, name, library, progress)
    return design


def plan_pins(design: Design, library: Library, progress: Progress) -> PinPlan:
    """The pin stage."""
    problem = pin_problem(design, library)
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


def pin_problem(design: Design, library: Library) -> PinProblem:
    """Needs, chip and the chip's seat: where it was placed last, or where it will most likely sit."""
    chip = chip_for(design.brief, library)
    needs = tuple(
        replace(n, target=design.choices.pin_targets.get(n.signal, n.target))
        for n in needs_of(design.brief)
    )
    if chip.uncovered:
        places = package_places(chip, middle_seat(design))
    else:
        pattern = library.pattern(f"chip:{chip.name}")
        places = places_of(pattern, likely_seat(design, library, pattern))
    return PinProblem(needs, chip, places, dict(design.choices.pin_locks))


def likely_seat(design: Design, library: Library, pattern: LandPattern) -> Seat:
    """The chip's seat for planning: a board that is still too crowded for it can have its pins planned all the same."""
    try:
        return seat_of_chip(design, library, pattern)
    except NoRoom:
        return middle_seat(design)


def chip_for(brief: Brief, library: Library) -> Chip:
    """The brief's chip: of the open data set, or made of the user's own table; raises PartError."""
    if brief.chip.part == OWN_CHIP and brief.pin_table is not None:
        return chip_of_table(brief.pin_table)
    return library.find_chip(brief.chip.part)


def middle_seat(design: Design) -> Seat:
    """Where a chip without a land pattern is taken to sit: as the brief says, else the middle of the board."""
    chip = design.brief.chip
    if chip.x_mm is not None and chip.y_mm is not None:
        return Seat(nm_from_mm(chip.x_mm), nm_from_mm(chip.y_mm))
    middle = polygon_nm(design.brief.outline).centroid
    return Seat(round(middle.x), round(middle.y))


def seat_of_chip(design: Design, library: Library, pattern: LandPattern) -> Seat:
    """The chip's seat: locked by a person, given in the brief, or the best free place."""
    chosen = design.choices.part_seats.get("chip")
    if chosen:
        return Seat(nm_from_mm(chosen.x_mm), nm_from_mm(chosen.y_mm), chosen.turn_deg, chosen.far)
    brief = design.brief
    seats = fixed_seats(brief)
    if "chip" in seats:
        return seats["chip"]
    around = [(library.pattern(part_of_role(brief, role)), seat) for role, seat in seats.items()]
    targets = [need.target for need in needs_of(brief) if need.target]
    return chip_seat(polygon_nm(brief.outline), pattern, around, screw_circles(brief), targets)


def part_of_role(brief: Brief, role: str) -> str:
    """The catalogue part that sits at a role of the brief."""
    match role.split(":")[0]:
        case "button" | "pad" | "stick" | "trigger" | "encoder" | "slider" | "touch":
            return next(
                c.part for c in brief.controls if role_of(c) == ":".join(role.split(":")[:2])
            )
        case "screen" if brief.screen:
            return HEADERS[brief.screen.bus]
        case "port":
            return "header-5-way"
        case "switch":
            return "switch-slide-surface"
        case "cell":
            return "holder-aaa-surface"
        case "light" if brief.light:
            return brief.light.part
        case "buzzer" if brief.buzzer:
            return brief.buzzer.part
    raise KeyError(role)


def screw_circles(brief: Brief) -> tuple[tuple[int, int, int], ...]:
    """Middle and radius (nm) of the areas under screw heads."""
    return tuple(
        (
            nm_from_mm(h.x_mm),
            nm_from_mm(h.y_mm),
            round(max(HEAD_MM[h.screw], CLEARANCE_HOLE_MM[h.screw]) / 2 * MM) + 200_000,
        )
        for h in brief.fixing_holes
    )


def make_circuit(design: Design, library: Library, progress: Progress) -> Circuit:
    """The circuit stage, with every named part looked up first."""
    brief, made = design.brief, design.pins
    if made is None:
        raise AssertionError("the pin plan is looked for before this stage runs")
    for control in brief.controls:
        library.part(control.part, part_kind(control))
    if brief.buzzer:
        library.part(brief.buzzer.part, "buzzer")
    if brief.light:
        library.part(brief.light.part, "light")
    chip = chip_for(brief, library)
    screen = library.screen(brief.screen.part) if brief.screen else None
    return assemble(
        brief,
        made.value,
        PartShelf(library.parts, chip, library.pattern(f"chip:{chip.name}"), screen),
    )


def place_parts(design: Design, library: Library, progress: Progress) -> Placement:
    """The placing stage."""
    circuit = slice_of(design.circuit)
    patterns = {c.ref: library.pattern(c.part) for c in circuit.components}
    seats = fixed_seats(design.brief)
    seats["chip"] = seat_of_chip(
        design, library, patterns[next(c.ref for c in circuit.components if c.role == "chip")]
    )
    locked = {
        role: Seat(nm_from_mm(s.x_mm), nm_from_mm(s.y_mm), s.turn_deg, s.far)
        for role, s in design.choices.part_seats.items()
    }
    heights = {c.ref: library.height_mm(c.part) for c in circuit.components}
    low = screen_area(design.brief, library)
    return place(
        PlacingInput(
            polygon_nm(design.brief.outline),
            circuit,
            patterns,
            heights,
            seats,
            locked,
            screw_circles(design.brief),
            low,
        )
    )


def screen_area(brief: Brief, library: Library) -> tuple[tuple[int, int, int, int], ...]:
    """The area under the screen module, where parts must be low (left, bottom, right, top in nm)."""
    if brief.screen is None:
        return ()
    module, seat = library.screen(brief.screen.part), fixed_seats(brief)["screen"]
    w, h, inset = (
        nm_from_mm(module.width_mm),
        nm_from_mm(module.height_mm),
        nm_from_mm(module.header_inset_mm),
    )
    a, b = seat.point(-w // 2, inset), seat.point(w // 2, inset - h)
    return ((min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])),)


def route_board(design: Design, library: Library, progress: Progress) -> Routing:
    """The routing stage."""
    view = board_view(design, library)
    made = route(
        RouteInput(view.outline, view.circuit, view.pads, view.holes, view.rules), progress
    )
    return made.model_copy(
        update={"workings": (supply_width_working(view.rules.supply_width_nm, SUPPLY_LIMIT_A),)}
    )


def pour_board(design: Design, library: Library, progress: Progress) -> Pour:
    """The pouring stage."""
    return pour_ground(board_view(design.model_copy(update={"pour": None}), library))


def board_view(design: Design, library: Library) -> BoardView:
    """The board as geometry, as far as it has been made."""
    circuit = slice_of(design.circuit)
    return BoardView(
        brief=design.brief,
        circuit=circuit,
        patterns={c.ref: library.pattern(c.part) for c in circuit.components},
        heights_mm={c.ref: library.height_mm(c.part) for c in circuit.components},
        rules=library.house(design.choices.house).rules(),
        placement=slice_of(design.placement),
        routing=design.routing.value if design.routing else None,
        pour=design.pour.value if design.pour else None,
    )


def slice_of(made: "Made[Any] | None") -> Any:
    """The value of a slice that the pipeline has already looked for."""
    if made is None:
        raise AssertionError("a stage ran before the slice it stands on")
    return made.value


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
STAGES: dict[SliceName, Stage] = {
    "pins": Stage("pins", (), plan_pins),
    "circuit": Stage("circuit", ("pins",), make_circuit),
    "placement": Stage("placement", ("circuit",), place_parts),
    "routing": Stage("routing", ("circuit", "placement"), route_board),
    "pour": Stage("pour", ("circuit", "placement", "routing"), pour_board),
}
STATIONS_OF_STAGES: dict[SliceName, str] = {
    "pins": "pins",
    "circuit": "circuit",
    "placement": "board",
    "routing": "board",
    "pour": "board",
}

"""What the Pins station knows of a design: plan or conflict, schemes, ways out, sums.

The command and the application show the same.
"""

from collections.abc import Callable
from itertools import count

from loquet import __version__
from loquet.core.board import BoardView
from loquet.core.brief import Brief, Thing
from loquet.core.brief.shares import share_of
from loquet.core.design import Design
from loquet.core.freshness import stale_slices
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.lookup.brains import brain_of, chip_for
from loquet.core.parts import PartError
from loquet.core.pins import (
    Infeasible,
    Need,
    PinPlan,
    PinProblem,
    Solved,
    Stopped,
    feasible,
    solve,
)
from loquet.core.pins.buses import axis_working, bus_workings, frame_rate, text_working
from loquet.core.pins.conflicts import conflict_of as smallest_conflict
from loquet.core.pins.conflicts import crowd_of, in_words, refuse_early
from loquet.core.pins.needing import bus_khz_of, needs_of, on_two_wire
from loquet.core.pins.planning import plan_of
from loquet.core.pins.schemes import SchemeCard, compare
from loquet.core.pins.schemes.comparing import helpers_pf
from loquet.core.pins.ways_out import Shelf, WayOut, ways_out
from loquet.core.pins.wiring import wiring_of
from loquet.core.pipeline import board_view, pin_problem
from loquet.core.plain.frozen import Frozen, digest_of
from loquet.core.power import rail_of
from loquet.core.provenance import Working


class Conflict(Frozen):
    """Why there is no plan: a sentence, the way out, and the smallest set of signals that cannot
    stand together.
    """

    why: str
    way_out: str
    signals: tuple[str, ...]
    titles: tuple[str, ...]


class PinReport(Frozen):
    """Everything about the pins of a design."""

    plan: PinPlan | None
    conflict: Conflict | None
    proof: str
    schemes: tuple[SchemeCard, ...]
    ways_out: tuple[WayOut, ...]
    workings: tuple[Working, ...]


def report_pins(
    design: Design, library: Library, seconds: float = 10.0, brain: str = ""
) -> PinReport:
    """Plan, schemes, and ways out where no plan exists, for a brain (the first, unless named);
    raises PartError where the chip or a part is unknown.
    """
    problem = pin_problem(design, library, brain)
    answer = solve(problem, seconds)
    plan = plan_of(problem, answer) if isinstance(answer, Solved) else None
    conflict = conflict_of(problem, answer)
    return PinReport(
        plan=plan,
        conflict=conflict,
        proof=proof_words(answer),
        schemes=schemes_of(design, library, brain),
        ways_out=ways_for(design, library, brain) if conflict else (),
        workings=(*(plan.workings if plan else ()), *sums(of_brain(design, brain), library)),
    )


def of_brain(design: Design, brain: str) -> Brief:
    """What a brain reads of the brief; the first, unless named."""
    return share_of(design.brief, brain_of(design.brief, brain).name)


def verdict_of(design: Design, library: Library, brain: str = "") -> Conflict | None:
    """Why the brief does not fit its chip within its locks, or nothing where it does; quicker than
    a whole plan.
    """
    problem = pin_problem(design, library, brain)
    refused = refuse_early(problem, problem.options())
    if refused is None and feasible(problem):
        return None
    return conflict_of(problem, refused or smallest_conflict(problem, feasible))


def conflict_of(problem: PinProblem, answer: Solved | Infeasible | Stopped) -> Conflict | None:
    """The conflict with the titles of its signals."""
    match answer:
        case Solved():
            return None
        case Infeasible(why, way_out, signals):
            titles = {n.signal: n.title for n in problem.needs}
            return Conflict(
                why=why,
                way_out=way_out,
                signals=signals,
                titles=tuple(titles.get(s, s) for s in signals),
            )
        case Stopped():
            return Conflict(
                why="No pin plan was found in the time given.",
                way_out="Release some locks and solve again.",
                signals=(),
                titles=(),
            )


def proof_words(answer: Solved | Infeasible | Stopped) -> str:
    """What is proven of the answer."""
    match answer:
        case Solved(proven=True):
            return "proven optimum"
        case Solved():
            return f"not proven; a better plan could save {answer.gap} cost units at the most"
        case Infeasible():
            return "proven infeasible"
        case Stopped():
            return "undecided"


def why_not(problem: PinProblem, needs: tuple[Need, ...]) -> str:
    """Why needs do not fit the chip of a problem, in a sentence, or nothing where they do; locks
    are left aside.
    """
    other = PinProblem(needs, problem.chip, problem.places)
    refused = refuse_early(other, other.options())
    if refused:
        return refused.why
    crowd = crowd_of(needs, other.options())
    if crowd:
        return in_words(other, crowd, other.options()).why
    return (
        ""
        if feasible(other)
        else f"{problem.chip.name} has no way to carry these signals together."
    )


def schemes_of(design: Design, library: Library, brain: str = "") -> tuple[SchemeCard, ...]:
    """All ways to read the keys of a brain, on its chip."""
    problem = pin_problem(design, library, brain)
    share = of_brain(design, brain)
    return compare(share, library.parts, lambda needs: why_not(problem, needs))


def ways_for(
    design: Design,
    library: Library,
    brain: str = "",
    tried: Callable[[int], None] = lambda count: None,
) -> tuple[WayOut, ...]:
    """Ways out of a conflict, each tried on the solver; locks are kept where the chip stays.

    `tried` is told how many were tried so far.
    """
    tries = count(1)

    def fit(brief: Brief) -> bool:
        tried(next(tries))
        return fits(brief, library)

    shelf = Shelf(
        parts=library.parts,
        screens=library.screens,
        chips=tuple((chip, library.stock_of(chip)) for chip in library.list_chips()),
    )
    return ways_out(of_brain(design, brain), shelf, fit)


def ways_key(design: Design, library: Library, brain: str = "") -> str:
    """A digest of all that the ways out of a brain depend on: what it reads, the parts and screens
    that there are, and this Loquet.
    """
    kept = {
        "loquet": __version__,
        "brief": of_brain(design, brain).model_dump(mode="json"),
        "parts": [part.model_dump(mode="json") for part in library.parts.values()],
        "screens": [screen.model_dump(mode="json") for screen in library.screens.values()],
    }
    return digest_of(kept)


def fits(brief: Brief, library: Library) -> bool:
    """Whether a changed brief has a plan on its chip; where its parts lie does not matter for
    that.
    """
    try:
        problem = PinProblem(needs_of(brief), chip_for(brief, library), {})
    except PartError:
        return False
    return feasible(problem)


def placed_targets(design: Design, library: Library) -> dict[str, tuple[int, int]]:
    """For each signal the pad of its net that lies nearest to its brain on the brain's placed
    board, in nm; empty before it is placed.
    """
    if not design.brief.brains or {"circuit", "placement"} & set(stale_slices(design)):
        return {}
    found: dict[str, tuple[int, int]] = {}
    for brain in design.brief.brains:
        found |= targets_of(board_view(design, library, brain.board), brain, design.brief)
    return found


def targets_of(view: BoardView, brain: Thing, brief: Brief) -> dict[str, tuple[int, int]]:
    """For each signal of a brain the nearest pad of its net on the brain's board."""
    chip = next(c.ref for c in view.circuit.components if c.role == brain.role())
    seat = view.seats[chip]
    found: dict[str, tuple[int, int]] = {}
    for need in needs_of(brief, brain.name):
        pads = [
            middle_of(pad.shape) for pad in view.pads if pad.net == need.net and pad.ref != chip
        ]
        if pads:
            found[need.signal] = min(
                pads, key=lambda p: ((p[0] - seat.x) ** 2 + (p[1] - seat.y) ** 2, p)
            )
    return found


def sums(brief: Brief, library: Library) -> tuple[Working, ...]:
    """Frame rate, legible text, bus load and pull-ups, codes of each axis."""
    found: list[Working] = []
    for thing in brief.things:
        display = thing.display()
        module = library.screens.get(display.part) if display else None
        if display and module:
            found += [frame_rate(display, module), text_working(display, module)]
    wiring = wiring_of(brief)
    if on_two_wire(brief, wiring):
        extra = helpers_pf(brief, wiring, library.parts)
        rail = rail_of(brief)
        found += bus_workings(brief, library.screens, extra, bus_khz_of(brief), rail.fresh_v)
    return (*found, *axis_sums(brief, library))


def axis_sums(brief: Brief, library: Library) -> list[Working]:
    """Codes used by each thing that gives a voltage as a share of its supply."""
    found = []
    for thing in brief.group("controls"):
        axis = next((a for a in thing.axes() if a.report != "level"), None)
        if axis is None or thing.part not in library.parts:
            continue
        reference = rail_of(brief, thing).usual_v
        share = library.parts[thing.part].values.get("span_share", 1.0)
        supply = axis.supply_v or reference
        found.append(axis_working(thing.role(), thing.name, share, supply, reference))
    return found

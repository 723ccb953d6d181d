"""The pin stage: from the solver's answer to the plan that everything else reads."""

from itertools import combinations

from loquet.core.parts import Chip
from loquet.core.pins.model import Assignment, KindBudget, Need, NeedKind, PinPlan
from loquet.core.pins.options import options_of
from loquet.core.pins.problem import PinProblem, Solved
from loquet.core.pins.spares import groups_of, pair_left, short_of
from loquet.core.provenance import Source, Working, WorkingInput, given

COMPUTED = Source(
    kind="computed",
    text="CP-SAT search over the pin functions of the chip; checked again without the solver",
)
BUDGET_KINDS: tuple[tuple[str, NeedKind], ...] = (
    ("plain pins", "input"),
    ("analogue channels", "analogue"),
    ("timer outputs", "timer"),
    ("touch channels", "touch"),
    ("two-wire buses", "two-wire clock"),
    ("serial buses", "serial clock"),
    ("serial ports", "port transmit"),
    ("USB ports", "usb minus"),
    ("converter outputs", "converter output"),
    ("wake-up pins", "wake-up"),
)
PARTNERS: dict[str, NeedKind] = {
    "two-wire buses": "two-wire data",
    "serial buses": "serial out",
    "serial ports": "port receive",
    "USB ports": "usb plus",
}


def plan_of(problem: PinProblem, solved: Solved) -> PinPlan:
    """The plan with spare and reserved pins, budget and workings."""
    rows = tuple(assignment(problem, need, solved) for need in problem.needs)
    used = {row.pin for row in rows}
    ports = [pin for pin in problem.chip.pins if pin.kind == "port"]
    free = tuple(pin.number for pin in ports if pin.number not in used and not pin.is_reset)
    length = sum(problem.length_nm(n, solved.picks[n.signal].pin) for n in problem.needs) // 1000
    blocks = {solved.picks[n.signal].hardware for n in problem.needs if n.bus}
    crossed = crossings(problem, solved)
    return PinPlan(
        chip=problem.chip.name,
        package=problem.chip.package,
        assignments=rows,
        free=free,
        reserved=tuple((pin.number, "reset") for pin in ports if pin.is_reset),
        proven=solved.proven,
        bound_gap=solved.gap,
        risk=solved.score.risk,
        length_um=length,
        crossings=crossed,
        short_of=tuple(title for title, _ in short_of(problem.chip, used, blocks)),
        budget=budget_of(problem.chip, problem.needs, used, blocks),
        workings=workings(problem, len(rows), len(free), length, crossed, solved),
    )


def assignment(problem: PinProblem, need: Need, solved: Solved) -> Assignment:
    """One row of the plan."""
    option = solved.picks[need.signal]
    function = option.function
    return Assignment(
        signal=need.signal,
        kind=need.kind,
        title=need.title,
        net=need.net,
        pin=option.pin,
        port=option.port,
        peripheral=function.peripheral if function else "gpio",
        function=function.signal if function else "",
        route=function.route if function else "",
        locked=need.signal in problem.locks,
    )


def budget_of(
    chip: Chip, needs: tuple[Need, ...], used: set[str], blocks: set[str]
) -> tuple[KindBudget, ...]:
    """By kind: what the chip has, what is used as such, what could still be used; buses are counted
    by instance.
    """
    found = []
    for title, kind in BUDGET_KINDS:
        options = options_of(Need("", kind, "", ""), chip)
        if not options:
            continue
        if title in PARTNERS:
            able, left = pairs_of(chip, kind, PARTNERS[title], used)
            taken, left = len(able & blocks), left - blocks
        else:
            able = {o.pin for o in options}
            taken, left = len(able & used) if kind == "input" else count(kind, needs), able - used
        found.append(KindBudget(kind=title, able=len(able), used=taken, left=len(left)))
    return tuple(found)


def budget_workings(plan: PinPlan) -> tuple[Working, ...]:
    """What is left by kind, as figures; a pin that is used as something else is no longer able, so
    what is left is counted.
    """
    return tuple(
        Working(
            id=f"pins.left.{row.kind}",
            title=f"Left: {row.kind}",
            value=row.left,
            unit="",
            shown=str(row.left),
            formula="counted, those able to that no signal of this plan uses, whatever for",
            inputs=(
                given("able", row.able, "", f"{plan.chip} in {plan.package}, open data set"),
                given("used as such", row.used, "", "this plan"),
                given("signals", len(plan.assignments), "", "this plan"),
            ),
            source=COMPUTED,
        )
        for row in plan.budget
    )


def pairs_of(
    chip: Chip, first: NeedKind, second: NeedKind, used: set[str]
) -> tuple[set[str], set[str]]:
    """Blocks that have pins for both signals of a pair, and those of them whose pins are not used
    yet.
    """
    groups = groups_of(chip, first, second)
    return {g.block for g in groups}, {g.block for g in groups if pair_left(g, used)}


def count(kind: NeedKind, needs: tuple[Need, ...]) -> int:
    """Needs of a kind."""
    return sum(n.kind == kind for n in needs)


def crossings(problem: PinProblem, solved: Solved) -> int:
    """How many straight links from pin to target cross each other."""
    links = [
        (problem.places[solved.picks[n.signal].pin], n.target)
        for n in problem.needs
        if n.target is not None and solved.picks[n.signal].pin in problem.places
    ]
    return sum(cross(*a, *b) for a, b in combinations(links, 2))


def cross(a: tuple[int, int], b: tuple[int, int], c: tuple[int, int], d: tuple[int, int]) -> bool:
    """Whether the open segments a-b and c-d cross."""
    return side(a, b, c) * side(a, b, d) < 0 and side(c, d, a) * side(c, d, b) < 0


def side(a: tuple[int, int], b: tuple[int, int], p: tuple[int, int]) -> int:
    """1, 0 or -1: on which side of a-b the point lies."""
    turn = (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])
    return (turn > 0) - (turn < 0)


def workings(
    problem: PinProblem, used: int, free: int, length_um: int, crossed: int, solved: Solved
) -> tuple[Working, ...]:
    """How the budget and the length were reached."""
    chip = WorkingInput(name="chip", value=problem.chip.name, origin=problem.chip.data_source)
    needs = WorkingInput(name="needs", value=str(used), origin="brief")
    pins = [pin for pin in problem.chip.pins if pin.kind == "port"]
    ports, resets = len(pins), sum(pin.is_reset for pin in pins)
    verdict = (
        "proven shortest within the order risk, spares, length"
        if solved.proven
        else f"not proven; at most {solved.gap} cost units above the best"
    )
    return (
        Working(
            id="pins.used",
            title="Pins used",
            value=used,
            unit="pins",
            shown=f"{used}",
            formula="needs, one pin a signal",
            inputs=(needs,),
            source=Source(
                kind="brief",
                text="controls, screen, sound, lights, links and programming port of the brief",
            ),
        ),
        Working(
            id="pins.free",
            title="Pins free",
            value=free,
            unit="pins",
            shown=f"{free}",
            formula="port pins - used - reset",
            inputs=(
                given("port pins", ports, "", problem.chip.data_source),
                given("used", used, "", "this plan"),
                given("reset", resets, "", "port pins that are reset"),
            ),
            source=Source(kind="open data", text=problem.chip.data_source),
        ),
        Working(
            id="pins.length",
            title="Estimated track length",
            value=length_um / 1000,
            unit="mm",
            shown=f"{length_um / 1000:.1f} mm",
            formula=(
                "counted, sum of straight distances from each pin to the place its signal goes, to"
                f" 0.5 mm; {verdict}"
            ),
            inputs=(chip, needs),
            source=COMPUTED,
        ),
        Working(
            id="pins.crossings",
            title="Links that cross",
            value=crossed,
            unit="",
            shown=f"{crossed}",
            formula=(
                "counted, pairs of straight links that cross; at the least length none is left that"
                " a swap would shorten by more than a step"
            ),
            inputs=(chip, needs),
            source=COMPUTED,
        ),
    )

"""The pin assignment as a CP-SAT problem, with its answer checked again without the solver."""

from dataclasses import dataclass, field

from ortools.sat.python import cp_model

from loquet.core.geometry import Seat, middle_of
from loquet.core.parts import Chip, LandPattern
from loquet.core.pins.model import Need
from loquet.core.pins.options import Option, options_of
from loquet.core.quantities.lengths import UM

RISK_WEIGHT_UM = 10_000


@dataclass(frozen=True)
class PinProblem:
    """Needs, the chip with its pattern and seat, and the pins that a person has locked (signal to pin number)."""

    needs: tuple[Need, ...]
    chip: Chip
    pattern: LandPattern
    seat: Seat
    locks: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Solved:
    """The best plan; `cost_um` is its length in micrometres plus 10 mm for each unit of risk."""

    picks: dict[str, Option]
    cost_um: int
    proven: bool


@dataclass(frozen=True)
class Infeasible:
    """No plan exists: why, in a sentence, and the way out; `signals` are the needs that cannot stand together."""

    why: str
    way_out: str
    signals: tuple[str, ...] = ()


@dataclass(frozen=True)
class Stopped:
    """The time limit came before any plan."""

    best: Solved | None


def cost_um(need: Need, option: Option, problem: PinProblem) -> int:
    """Estimated track length from pin to target (corner-wise distance, micrometres), plus the price of its risk."""
    length = 0
    if need.target is not None:
        x, y = pin_place(problem, option.pin)
        length = (abs(x - need.target[0]) + abs(y - need.target[1])) // UM
    return length + option.risk * RISK_WEIGHT_UM


def pin_place(problem: PinProblem, number: str) -> tuple[int, int]:
    """Where a chip pin's pad lies on the board, in nm."""
    for pad in problem.pattern.pads:
        if pad.number == number:
            return middle_of(problem.seat.shape(pad.shape))
    raise KeyError(number)


def all_options(problem: PinProblem) -> dict[str, tuple[Option, ...]]:
    """Options of each need, within the locks."""
    found: dict[str, tuple[Option, ...]] = {}
    for need in problem.needs:
        options = options_of(need, problem.chip)
        locked = problem.locks.get(need.signal)
        found[need.signal] = tuple(o for o in options if o.pin == locked) if locked else options
    return found


def solve(problem: PinProblem, seconds: float = 10.0, seed: int = 1) -> Solved | Infeasible | Stopped:
    """The plan of least cost, proven where time allows; the answer is checked by `faults_of` before it is returned."""
    options = all_options(problem)
    refused = refuse_early(problem, options)
    if refused:
        return refused
    model = cp_model.CpModel()
    picks = build(model, problem, options)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.random_seed = seed
    solver.parameters.num_workers = 1
    status = solver.solve(model)
    if status == cp_model.INFEASIBLE:
        return explain(problem)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Stopped(None)
    chosen = {signal: option for (signal, option), var in picks.items() if solver.boolean_value(var)}
    faults = faults_of(problem, chosen)
    if faults:
        raise AssertionError(f"the solver's plan does not hold: {faults[0]}")
    total = sum(cost_um(need, chosen[need.signal], problem) for need in problem.needs)
    return Solved(chosen, total, status == cp_model.OPTIMAL)


def build(model: cp_model.CpModel, problem: PinProblem, options: dict[str, tuple[Option, ...]]) -> dict[tuple[str, Option], cp_model.IntVar]:
    """Variables and constraints: one option a need, one need a pin, one group for the bus."""
    picks = {(s, o): model.new_bool_var(f"{s}@{o.pin}:{o.group}") for s, row in options.items() for o in row}
    for signal, row in options.items():
        model.add_exactly_one(picks[signal, option] for option in row)
    by_pin: dict[str, list[cp_model.IntVar]] = {}
    for (_, option), var in picks.items():
        by_pin.setdefault(option.pin, []).append(var)
    for variables in by_pin.values():
        model.add_at_most_one(variables)
    groups = {option.group for (_, option) in picks if option.group}
    buses = [need.signal for need in problem.needs if need.kind.startswith("two-wire")]
    for group in sorted(groups):
        sums = [sum(picks[s, o] for o in options[s] if o.group == group) for s in buses]
        for other in sums[1:]:
            model.add(sums[0] == other)
    model.minimize(sum(cost_um(n, o, problem) * picks[n.signal, o] for n in problem.needs for o in options[n.signal]))
    return picks


def refuse_early(problem: PinProblem, options: dict[str, tuple[Option, ...]]) -> Infeasible | None:
    """The plain reasons: more needs than pins, a need with no pin at all, two locks on one pin."""
    pins = {option.pin for row in options.values() for option in row}
    for need in problem.needs:
        if not options[need.signal]:
            locked = problem.locks.get(need.signal)
            if locked:
                why = f"The {need.title} is locked to pin {locked}, which cannot carry it on {problem.chip.name}"
                return Infeasible(why + ".", "Release the lock.", (need.signal,))
            why = f"{problem.chip.name} has no pin for the {need.title} ({need.kind})"
            return Infeasible(why + ".", "Choose another chip.", (need.signal,))
    ports = sum(pin.kind == "port" and not pin.is_reset for pin in problem.chip.pins)
    if len(problem.needs) > min(ports, len(pins)) and not problem.locks:
        buttons = sum(need.kind == "input" for need in problem.needs)
        why = f"{problem.chip.name} has {min(ports, len(pins))} usable pins and {len(problem.needs)} are needed, {buttons} of them for buttons."
        return Infeasible(
            why, f"Take out {len(problem.needs) - min(ports, len(pins))} buttons or choose a bigger chip.", tuple(n.signal for n in problem.needs)
        )
    locked_pins = list(problem.locks.values())
    for signal, pin in problem.locks.items():
        if locked_pins.count(pin) > 1:
            return Infeasible(f"Two signals are locked to pin {pin}.", "Release one of the locks.", (signal,))
    return None


def explain(problem: PinProblem) -> Infeasible:
    """A smallest set of needs that cannot stand together, found by leaving one out at a time."""
    needs = list(problem.needs)
    for need in list(needs):
        fewer = [n for n in needs if n is not need]
        if not feasible(problem, fewer):
            needs = fewer
    titles = ", ".join(need.title for need in needs)
    locked = [need.title for need in needs if need.signal in problem.locks]
    way = f"Release the lock of the {locked[0]}." if locked else "Drop one of them or choose another chip."
    return Infeasible(f"On {problem.chip.name} these cannot stand together: {titles}.", way, tuple(n.signal for n in needs))


def feasible(problem: PinProblem, needs: list[Need]) -> bool:
    """Whether some plan carries these needs."""
    smaller = PinProblem(tuple(needs), problem.chip, problem.pattern, problem.seat, problem.locks)
    model = cp_model.CpModel()
    build(model, smaller, all_options(smaller))
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    return bool(solver.solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE))


def faults_of(problem: PinProblem, picks: dict[str, Option]) -> list[str]:
    """What is wrong with a plan, found without the solver: empty where it holds."""
    faults: list[str] = []
    used: dict[str, str] = {}
    for need in problem.needs:
        option = picks.get(need.signal)
        if option is None:
            faults.append(f"{need.signal} has no pin")
            continue
        if option not in options_of(need, problem.chip):
            faults.append(f"{need.signal} cannot be on pin {option.pin}")
        if option.pin in used:
            faults.append(f"{need.signal} and {used[option.pin]} share pin {option.pin}")
        used[option.pin] = need.signal
        locked = problem.locks.get(need.signal)
        if locked and locked != option.pin:
            faults.append(f"{need.signal} is locked to pin {locked}")
    groups = {picks[n.signal].group for n in problem.needs if n.kind.startswith("two-wire") and n.signal in picks}
    if len(groups) > 1:
        faults.append("the two bus signals are on different instances")
    return faults

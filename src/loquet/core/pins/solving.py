"""The pin assignment as a CP-SAT problem, with its answer checked again without the solver."""

from collections import defaultdict
from dataclasses import dataclass

from ortools.sat.python import cp_model

from loquet.core.pins.checking import faults_of, score_of
from loquet.core.pins.conflicts import conflict_of, crowd_of, refuse_early
from loquet.core.pins.model import Need
from loquet.core.pins.options import Option, shares_debug
from loquet.core.pins.problem import Infeasible, PinProblem, Solved, Stopped, port_letter
from loquet.core.pins.spares import PairGroup, spares_of

PORT_STEPS = 16
Vars = dict[tuple[str, Option], cp_model.IntVar]


@dataclass(frozen=True)
class Weights:
    """What one unit costs, so that the order risk, spares, length, ports is kept whatever the
    sums.
    """

    risk: int
    short: int
    step: int
    port: int


def solve(
    problem: PinProblem, seconds: float = 10.0, seed: int = 1
) -> Solved | Infeasible | Stopped:
    """The best plan, proven where time allows; the answer is checked by `faults_of` before it is
    returned.
    """
    options = problem.options()
    refused = refuse_early(problem, options)
    if refused:
        return refused
    if crowd_of(problem.needs, options):
        return conflict_of(problem, feasible)
    model = cp_model.CpModel()
    picks = constrain(model, problem.needs, options)
    weights = weigh(problem, options)
    minimise(model, problem, options, picks, weights)
    solver = solver_with(seconds, seed)
    status = solver.solve(model)
    if status == cp_model.INFEASIBLE:
        return conflict_of(problem, feasible)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Stopped(None)
    chosen = {
        signal: option for (signal, option), var in picks.items() if solver.boolean_value(var)
    }
    faults = faults_of(problem, chosen)
    if faults:
        raise AssertionError(f"the solver's plan does not hold: {faults[0]}")
    gap = max(0, round(solver.objective_value - solver.best_objective_bound))
    return Solved(
        chosen,
        score_of(problem, chosen),
        status == cp_model.OPTIMAL,
        0 if status == cp_model.OPTIMAL else gap,
    )


def solver_with(seconds: float, seed: int = 1) -> cp_model.CpSolver:
    """One worker and a fixed seed, so that the same problem has the same answer.

    The problem is an assignment at heart, so its whole linear relaxation is nearly exact: with it
    plans are proven in a tenth of a second that otherwise take over ten; looking for symmetries and
    probing cost more than they bring (measured).
    """
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.random_seed = seed
    solver.parameters.num_workers = 1
    solver.parameters.catch_sigint_signal = False
    solver.parameters.linearization_level = 2
    solver.parameters.symmetry_level = 0
    solver.parameters.cp_model_probing_level = 0
    return solver


def feasible(problem: PinProblem) -> bool:
    """Whether some plan carries the needs; plain shortages are seen by matching, before the solver
    is asked.
    """
    options = problem.options()
    if crowd_of(problem.needs, options):
        return False
    model = cp_model.CpModel()
    constrain(model, problem.needs, options)
    return bool(solver_with(20).solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE))


def constrain(
    model: cp_model.CpModel, needs: tuple[Need, ...], options: dict[str, tuple[Option, ...]]
) -> Vars:
    """One option a need, one need a pin, one block a bus, one bus a block, one remap a peripheral,
    one rate a timer.
    """
    picks: Vars = {}
    by_pin: dict[tuple[str, bool], list[cp_model.IntVar]] = defaultdict(list)
    by_channel: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    for need in needs:
        row = []
        for option in options[need.signal]:
            var = picks[need.signal, option] = model.new_bool_var("")
            row.append(var)
            by_pin[option.pin, shares_debug(need, option)].append(var)
            if option.channel:
                by_channel[option.channel].append(var)
        model.add_exactly_one(row)
    for variables in (*by_pin.values(), *by_channel.values()):
        model.add_at_most_one(variables)
    blocks = bus_blocks(model, needs, options, picks)
    remaps(model, picks)
    rates(model, needs, options, picks, blocks)
    return picks


def bus_blocks(
    model: cp_model.CpModel,
    needs: tuple[Need, ...],
    options: dict[str, tuple[Option, ...]],
    picks: Vars,
) -> dict[str, list[cp_model.IntVar]]:
    """All signals of a bus on one group, and no two buses on one block; returns the variables that
    claim each block.
    """
    buses: dict[str, list[Need]] = defaultdict(list)
    for need in needs:
        if need.bus:
            buses[need.bus].append(need)
    claims: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    for members in buses.values():
        groups = {o.group: o.hardware for need in members for o in options[need.signal]}
        for group, hardware in sorted(groups.items()):
            taken = model.new_bool_var("")
            claims[hardware].append(taken)
            for need in members:
                model.add(
                    sum(picks[need.signal, o] for o in options[need.signal] if o.group == group)
                    == taken
                )
    for variables in claims.values():
        model.add_at_most_one(variables)
    return claims


def remaps(model: cp_model.CpModel, picks: Vars) -> None:
    """Functions of a peripheral that move together use one remap group."""
    by_peripheral: dict[str, dict[str, list[cp_model.IntVar]]] = defaultdict(
        lambda: defaultdict(list)
    )
    for (_, option), var in picks.items():
        if option.remap:
            by_peripheral[option.remap[0]][option.remap[1]].append(var)
    for routes in by_peripheral.values():
        one_of(model, list(routes.values()))


def rates(
    model: cp_model.CpModel,
    needs: tuple[Need, ...],
    options: dict[str, tuple[Option, ...]],
    picks: Vars,
    blocks: dict[str, list[cp_model.IntVar]],
) -> None:
    """A timer runs at one rate, and not at all for signals where a bus holds its block."""
    by_timer: dict[str, dict[str, list[cp_model.IntVar]]] = defaultdict(lambda: defaultdict(list))
    for need in needs:
        if need.kind == "timer":
            for option in options[need.signal]:
                by_timer[option.hardware][need.rate].append(picks[need.signal, option])
    for timer, groups in by_timer.items():
        one_of(model, [*groups.values(), *([blocks[timer]] if timer in blocks else [])])


def one_of(model: cp_model.CpModel, groups: list[list[cp_model.IntVar]]) -> None:
    """At most one of these groups has anything chosen in it."""
    if len(groups) < 2:
        return
    taken = []
    for group in groups:
        var = model.new_bool_var("")
        model.add_max_equality(var, group)
        taken.append(var)
    model.add_at_most_one(taken)


def weigh(problem: PinProblem, options: dict[str, tuple[Option, ...]]) -> Weights:
    """Weights that keep the order for this problem."""
    longest = sum(
        max(problem.steps(need, o.pin) for o in options[need.signal]) for need in problem.needs
    )
    pins, pairs = spares_of(problem.chip)
    short = PORT_STEPS * (longest + 1)
    return Weights(short * (sum(s.wanted for s in pins) + len(pairs) + 1), short, PORT_STEPS, 1)


def minimise(
    model: cp_model.CpModel,
    problem: PinProblem,
    options: dict[str, tuple[Option, ...]],
    picks: Vars,
    weights: Weights,
) -> None:
    """Risk first, then what stays free, then length, then how few ports the read lines are spread
    over.
    """
    terms: list[cp_model.LinearExprT] = []
    ports: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    used: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    claimed: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    for need in problem.needs:
        for option in options[need.signal]:
            var = picks[need.signal, option]
            cost = option.risk * weights.risk + problem.steps(need, option.pin) * weights.step
            if cost:
                terms.append(cost * var)
            used[option.pin].append(var)
            if option.hardware and need.bus:
                claimed[option.hardware].append(var)
            if need.reads:
                ports[port_letter(option.port)].append(var)
    for variables in ports.values():
        port = model.new_bool_var("")
        model.add_max_equality(port, variables)
        terms.append(weights.port * port)
    terms += [weights.short * short for short in shortages(model, problem, used, claimed)]
    model.minimize(sum(terms))


def shortages(
    model: cp_model.CpModel,
    problem: PinProblem,
    used: dict[str, list[cp_model.IntVar]],
    claimed: dict[str, list[cp_model.IntVar]],
) -> list[cp_model.IntVar]:
    """One variable a spare: how many are missing."""
    pins, pairs = spares_of(problem.chip)
    found = []
    for spare in pins:
        short = model.new_int_var(0, spare.wanted, "")
        taken = [var for pin in spare.pins for var in used.get(pin, ())]
        model.add(short >= spare.wanted - len(spare.pins) + sum(taken))
        found.append(short)
    for pair in pairs:
        short = model.new_int_var(0, 1, "")
        model.add(short + sum(pair_kept(model, group, used, claimed) for group in pair.groups) >= 1)
        found.append(short)
    return found


def pair_kept(
    model: cp_model.CpModel,
    group: PairGroup,
    used: dict[str, list[cp_model.IntVar]],
    claimed: dict[str, list[cp_model.IntVar]],
) -> cp_model.IntVar:
    """Whether a group keeps two free pins for its signals: one kept pin for each of them where it
    does.
    """
    kept = model.new_bool_var("")
    for claim in claimed.get(group.block, ()):
        model.add_implication(claim, ~kept)
    keepers: dict[str, list[cp_model.IntVar]] = defaultdict(list)
    for pins in (group.firsts, group.seconds):
        row = []
        for pin in pins:
            var = model.new_bool_var("")
            row.append(var)
            keepers[pin].append(var)
        model.add(sum(row) == kept)
    for pin, variables in keepers.items():
        model.add(sum(variables) + sum(used.get(pin, ())) <= 1)
    return kept

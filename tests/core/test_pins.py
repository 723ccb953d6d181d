"""The pin solver against exhaustive search, its conflicts, locks, and the check of its answers."""

from dataclasses import astuple

import pytest

from loquet.core.design import Choices, Design
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.parts import Chip
from loquet.core.pins import Infeasible, Need, PinProblem, Solved, solve
from loquet.core.pins.checking import faults_of
from loquet.core.pins.conflicts import crowd_of
from loquet.core.pins.options import Option, options_of
from loquet.core.pins.package_map import package_places
from loquet.core.pins.sharing import BOOT_RISK
from loquet.core.pipeline import StageRefused, pin_problem, run_stage
from tests.core.random_chips import Everything, random_problem

CASES, A_BATCH = 360, 30


@pytest.mark.parametrize("batch", range(CASES // A_BATCH))
def test_the_solver_finds_what_exhaustive_search_finds(batch: int) -> None:
    """Feasible cases: the same score in all four parts.

    Infeasible ones: confirmed, and no member of the conflict can stay away unnoticed.
    """
    for seed in range(batch * A_BATCH, (batch + 1) * A_BATCH):
        problem = random_problem(seed)
        answer, everything = solve(problem), Everything(problem)
        best = everything.best()
        if isinstance(answer, Solved):
            assert answer.proven, seed
            assert astuple(answer.score) == everything.score(answer.picks) == best, seed
            continue
        assert isinstance(answer, Infeasible)
        assert best is None, seed
        conflict = tuple(n for n in problem.needs if n.signal in answer.signals)
        if "locked to pin" in answer.why and len(conflict) < 2:
            continue
        assert not Everything(problem.only(conflict)).possible(), seed
        for need in conflict:
            fewer = tuple(n for n in conflict if n is not need)
            assert Everything(problem.only(fewer)).possible(), (seed, need.signal)


def test_both_verdicts_are_among_the_random_cases() -> None:
    verdicts = [isinstance(solve(random_problem(seed)), Solved) for seed in range(0, CASES, 4)]
    assert 0.2 < sum(verdicts) / len(verdicts) < 0.9


def problem_on(
    library: Library, name: str, needs: tuple[Need, ...], locks: dict[str, str] | None = None
) -> PinProblem:
    chip = library.find_chip(name)
    return PinProblem(needs, chip, package_places(chip, Seat(20_000_000, 20_000_000)), locks or {})


def test_an_impossible_lock_is_explained(library: Library, finished: Design) -> None:
    locked = finished.model_copy(update={"choices": Choices(pin_locks={"screen:clock": "10"})})
    with pytest.raises(StageRefused) as caught:
        run_stage(locked, "pins", library)
    assert "locked to pin 10" in caught.value.why
    assert caught.value.way_out == "Release the lock."


def test_locks_that_split_the_bus_name_the_smallest_clash(
    library: Library, finished: Design
) -> None:
    design = finished.model_copy(
        update={"choices": Choices(pin_locks={"screen:clock": "21", "screen:data": "46"})}
    )
    answer = solve(pin_problem(design, library))
    assert isinstance(answer, Infeasible)
    assert set(answer.signals) == {"screen:clock", "screen:data"}
    assert "cannot stand together" in answer.why


def test_more_needs_than_pins_are_counted_by_kind(library: Library) -> None:
    needs = tuple(
        Need(f"button:key{i}", "input", f"KEY{i}", f"key {i}", load="key") for i in range(30)
    )
    answer = solve(problem_on(library, "stm32g030f6p6", needs))
    assert isinstance(answer, Infeasible)
    assert "16 signals (16 plain pins) are needed on 15 pins" in answer.why
    assert "16 of them are keys" in answer.why


def test_a_crowd_is_one_more_than_the_pins_that_could_carry_it(library: Library) -> None:
    needs = (
        *(Need(f"a{i}", "analogue", f"A{i}", f"axis {i}") for i in range(12)),
        Need("k", "input", "K", "k"),
    )
    problem = problem_on(library, "stm32l051c8t6", needs)
    crowd = crowd_of(problem.needs, problem.options())
    pins = {o.pin for n in crowd for o in problem.options()[n.signal]}
    assert len(crowd) == len(pins) + 1 == 11
    assert all(n.kind == "analogue" for n in crowd)


def test_boot_pins_are_taken_last(library: Library) -> None:
    boots = [p.number for p in library.find_chip("stm32l431cct6").pins if p.is_boot]
    assert boots
    options = options_of(Need("k", "input", "K", "k"), library.find_chip("stm32l431cct6"))
    assert {o.risk for o in options if o.pin in boots} == {BOOT_RISK}
    chip = library.find_chip("stm32f103c8t6")
    assert not any(o.pin == "7" for o in options_of(Need("k", "input", "K", "k"), chip))


def test_remap_groups_keep_bus_signals_together(library: Library) -> None:
    chip: Chip = library.find_chip("stm32f103c8t6")
    clocks = options_of(Need("c", "two-wire clock", "C", "c"), chip)
    assert {o.group for o in clocks} >= {"i2c1 remap 0", "i2c1 remap 1"}


def test_the_check_finds_what_a_solver_might_get_wrong(library: Library) -> None:
    needs = (
        Need("a", "input", "A", "a"),
        Need("b", "input", "B", "b"),
        Need("c", "two-wire clock", "C", "c", bus="wires"),
        Need("d", "two-wire data", "D", "d", bus="wires"),
    )
    problem = problem_on(library, "stm32l051c8t6", needs, {"a": "3"})
    clock = next(o for o in options_of(needs[2], problem.chip) if o.pin == "21")
    data = next(o for o in options_of(needs[3], problem.chip) if o.pin == "46")
    wrong = {
        "a": Option("2", "PC13", None, 0),
        "b": Option("2", "PC13", None, 0),
        "c": clock,
        "d": data,
    }
    faults = " / ".join(faults_of(problem, wrong))
    assert "share pin 2" in faults
    assert "locked to pin 3" in faults
    assert "different instances" in faults
    assert faults_of(problem, {})[0] == "a has no pin"


def test_sound_and_serial_buses_of_one_number_are_one_block(library: Library) -> None:
    chip = library.find_chip("stm32l051c8t6")
    serial = {o.hardware for o in options_of(Need("", "serial clock", "", ""), chip)}
    sound = {o.hardware for o in options_of(Need("", "sound clock", "", ""), chip)}
    assert sound <= serial


def test_interrupt_lines_exclude_one_another(library: Library) -> None:
    needs = tuple(Need(f"i{i}", "interrupt", f"I{i}", f"interrupt {i}") for i in range(17))
    answer = solve(problem_on(library, "stm32l051c8t6", needs))
    assert isinstance(answer, Infeasible)
    assert len(answer.signals) == 17
    solved = solve(problem_on(library, "stm32l051c8t6", needs[:10]))
    assert isinstance(solved, Solved)
    assert len({o.channel for o in solved.picks.values()}) == 10


def test_a_timer_cannot_run_at_two_rates(library: Library) -> None:
    needs = tuple(Need(f"t{i}", "timer", f"T{i}", f"t {i}", rate=f"rate {i}") for i in range(4))
    answer = solve(problem_on(library, "stm32l011f4p6", needs))
    assert isinstance(answer, Infeasible)
    same = tuple(Need(f"t{i}", "timer", f"T{i}", f"t {i}", rate="dimming") for i in range(4))
    assert isinstance(solve(problem_on(library, "stm32l011f4p6", same)), Solved)

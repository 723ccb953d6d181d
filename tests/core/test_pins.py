import itertools
import random

import pytest

from loquet.core.design import Choices, Design
from loquet.core.geometry import Seat
from loquet.core.library import Library
from loquet.core.parts import Chip, pattern_of
from loquet.core.pins import Infeasible, Need, PinProblem, Solved, solve
from loquet.core.pins.options import BOOT_RISK, Option, options_of
from loquet.core.pins.solving import all_options, cost_um, faults_of
from loquet.core.pipeline import StageRefused, pin_problem, run_stage

SMALL_CHIPS = ("stm32g030f6p6", "stm32c011f4p6", "stm32l011f4p6", "stm32f030f4p6")


def problem_on(library: Library, name: str, needs: tuple[Need, ...], locks: dict[str, str] | None = None) -> PinProblem:
    chip = library.find_chip(name)
    return PinProblem(needs, chip, pattern_of(library.package_body(chip.package)), Seat(20_000_000, 20_000_000), locks or {})


def exhaustive(problem: PinProblem) -> int | None:
    """The least cost over every combination of options, tried one by one."""
    options = all_options(problem)
    best: int | None = None
    for picks in itertools.product(*(options[need.signal] for need in problem.needs)):
        if len({p.pin for p in picks}) < len(picks):
            continue
        if len({p.group for p in picks if p.group}) > 1:
            continue
        total = sum(cost_um(need, pick, problem) for need, pick in zip(problem.needs, picks, strict=True))
        best = total if best is None else min(best, total)
    return best


@pytest.mark.parametrize("name", SMALL_CHIPS)
@pytest.mark.parametrize("seed", range(3))
def test_the_solver_finds_what_exhaustive_search_finds(library: Library, name: str, seed: int) -> None:
    chance = random.Random(seed)

    def somewhere() -> tuple[int, int]:
        return chance.randrange(0, 40_000_000, 100_000), chance.randrange(0, 40_000_000, 100_000)

    needs = (
        Need("up", "input", "UP", "up", somewhere()),
        Need("down", "input", "DOWN", "down", somewhere()),
        Need("screen:clock", "two-wire clock", "CLOCK", "clock", somewhere()),
        Need("screen:data", "two-wire data", "DATA", "data", somewhere()),
        Need("buzzer", "timer", "BUZZER", "buzzer", somewhere()),
    )
    problem = problem_on(library, name, needs)
    solved = solve(problem)
    assert isinstance(solved, Solved)
    assert solved.proven
    assert solved.cost_um == exhaustive(problem)


def test_the_plan_of_the_demo_holds_without_the_solver(library: Library, finished: Design) -> None:
    assert finished.pins is not None
    plan, chip = finished.pins.value, library.find_chip("stm32l051c8t6")
    pins = [row.pin for row in plan.assignments]
    assert len(pins) == len(set(pins)) == 12
    for row in plan.assignments:
        assert row.port in chip.pin(row.pin).ports
        if row.function:
            assert any(f.peripheral == row.peripheral and f.signal == row.function for f in chip.pin(row.pin).functions)
    clock, data = plan.of("screen:clock"), plan.of("screen:data")
    assert clock is not None
    assert data is not None
    assert clock.peripheral == data.peripheral


def test_locks_are_kept(library: Library, brief: object, finished: Design) -> None:
    locked = finished.model_copy(update={"choices": Choices(pin_locks={"button:dome": "29"})})
    solved = run_stage(locked, "pins", library)
    assert solved.pins is not None
    row = solved.pins.value.of("button:dome")
    assert row is not None
    assert (row.pin, row.locked) == ("29", True)


def test_an_impossible_lock_is_explained(library: Library, finished: Design) -> None:
    locked = finished.model_copy(update={"choices": Choices(pin_locks={"screen:clock": "10"})})
    with pytest.raises(StageRefused) as caught:
        run_stage(locked, "pins", library)
    assert "locked to pin 10" in caught.value.why
    assert caught.value.way_out == "Release the lock."


def test_locks_that_split_the_bus_name_the_smallest_clash(library: Library, finished: Design) -> None:
    design = finished.model_copy(update={"choices": Choices(pin_locks={"screen:clock": "21", "screen:data": "46"})})
    answer = solve(pin_problem(design, library))
    assert isinstance(answer, Infeasible)
    assert set(answer.signals) == {"screen:clock", "screen:data"}
    assert "cannot stand together" in answer.why


def test_more_needs_than_pins_says_how_many_to_drop(library: Library) -> None:
    needs = tuple(Need(f"key{i}", "input", f"KEY{i}", f"key {i}") for i in range(30))
    answer = solve(problem_on(library, "stm32g030f6p6", needs))
    assert isinstance(answer, Infeasible)
    assert "30 are needed" in answer.why


def test_boot_pins_are_taken_last(library: Library) -> None:
    chip = library.find_chip("stm32f103c8t6")
    boots = [p.number for p in library.find_chip("stm32l431cct6").pins if p.is_boot]
    assert boots
    options = options_of(Need("k", "input", "K", "k"), library.find_chip("stm32l431cct6"))
    assert {o.risk for o in options if o.pin in boots} == {BOOT_RISK}
    assert not any(o.pin == "7" for o in options_of(Need("k", "input", "K", "k"), chip))


def test_remap_groups_keep_bus_signals_together(library: Library) -> None:
    chip: Chip = library.find_chip("stm32f103c8t6")
    clocks = options_of(Need("c", "two-wire clock", "C", "c"), chip)
    assert {o.group for o in clocks} >= {"i2c1 remap 0", "i2c1 remap 1"}


def test_the_check_finds_what_a_solver_might_get_wrong(library: Library) -> None:
    needs = (Need("a", "input", "A", "a"), Need("b", "input", "B", "b"), Need("c", "two-wire clock", "C", "c"), Need("d", "two-wire data", "D", "d"))
    problem = problem_on(library, "stm32l051c8t6", needs, {"a": "3"})
    clock = next(o for o in options_of(needs[2], problem.chip) if o.pin == "21")
    data = next(o for o in options_of(needs[3], problem.chip) if o.pin == "46")
    wrong = {"a": Option("2", "PC13", None, 0), "b": Option("2", "PC13", None, 0), "c": clock, "d": data}
    faults = " / ".join(faults_of(problem, wrong))
    assert "share pin 2" in faults
    assert "locked to pin 3" in faults
    assert "different instances" in faults
    assert faults_of(problem, {})[0] == "a has no pin"

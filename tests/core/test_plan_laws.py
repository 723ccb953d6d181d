"""Laws of the planner: order, place and names do not matter; locking what was chosen changes
nothing; reports are whole.
"""

import random
from dataclasses import replace

import hid_parser
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from loquet.core.brief import Brief, KeyScheme, keys_of
from loquet.core.design import Design
from loquet.core.handover.key_table import key_table
from loquet.core.handover.report import descriptor_of, fields_of
from loquet.core.handover.report_items import lint
from loquet.core.handover.wiring_card import wires_of
from loquet.core.library import Library
from loquet.core.pins import PinPlan, PinProblem, Solved, solve
from loquet.core.pins.needing import needs_of
from loquet.core.pins.planning import plan_of
from loquet.core.pipeline import pin_problem
from tests.core.random_chips import random_problem
from tests.making import thing, varied

SLOW = settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
KINDS = ("button", "pad", "stick", "trigger", "encoder", "slider")


def solved(problem: PinProblem) -> Solved:
    answer = solve(problem)
    assert isinstance(answer, Solved)
    return answer


def solvable(seed: int) -> PinProblem | None:
    problem = random_problem(seed)
    return problem if isinstance(solve(problem), Solved) else None


@pytest.mark.parametrize("seed", range(0, 60, 3))
def test_the_order_of_the_needs_does_not_matter(seed: int) -> None:
    problem = solvable(seed)
    if problem is None:
        problem = random_problem(0)
    shuffled = list(problem.needs)
    random.Random(seed).shuffle(shuffled)
    assert solved(replace(problem, needs=tuple(shuffled))).score == solved(problem).score


@pytest.mark.parametrize("seed", range(1, 60, 3))
def test_moving_everything_together_does_not_matter(seed: int) -> None:
    problem = solvable(seed) or random_problem(0)
    dx, dy = 7_500_000, -3_000_000
    moved = replace(
        problem,
        needs=tuple(
            replace(n, target=(n.target[0] + dx, n.target[1] + dy) if n.target else None)
            for n in problem.needs
        ),
        places={pin: (x + dx, y + dy) for pin, (x, y) in problem.places.items()},
    )
    assert solved(moved).score == solved(problem).score


@pytest.mark.parametrize("seed", range(2, 60, 3))
def test_locking_what_was_chosen_changes_nothing(seed: int) -> None:
    problem = solvable(seed) or random_problem(0)
    first = solved(problem)
    locked = replace(problem, locks={signal: option.pin for signal, option in first.picks.items()})
    again = solved(locked)
    assert again.score == first.score
    assert {s: o.pin for s, o in again.picks.items()} == {s: o.pin for s, o in first.picks.items()}


@st.composite
def devices(draw: st.DrawFn) -> Brief:
    """A device of up to nine controls of any kind, in any order, as a controller or a keyboard."""
    kinds = draw(st.lists(st.sampled_from(KINDS), min_size=1, max_size=9))
    return varied(
        "ridge-handset",
        only=("brains", "feeds", "marks", "port", "usb", "buzzer", "light"),
        things={"chip": {"part": "stm32f072vbt6"}},
        plus=tuple(thing(kind, f"thing {i}", 14 + 15 * i, 30) for i, kind in enumerate(kinds)),
        role=draw(st.sampled_from(["usb-controller", "usb-keyboard"])),
        analogue_by="multiplexer",
    )


def planned(brief: Brief, library: Library) -> PinPlan:
    problem = pin_problem(Design(brief=brief), library)
    return plan_of(problem, solved(problem))


@SLOW
@given(brief=devices())
def test_any_device_has_a_report_of_whole_bytes_that_others_read(
    brief: Brief, library: Library
) -> None:
    plan = planned(brief, library)
    fields = fields_of(brief, plan)
    if not fields:
        return
    data = descriptor_of(brief, plan)
    assert lint(data) == []
    bits = int(hid_parser.ReportDescriptor(list(data)).get_input_report_size())
    assert bits % 8 == 0
    assert bits >= sum(f.bits * f.count for f in fields)


@SLOW
@given(brief=devices())
def test_keys_are_numbered_once_and_in_order_everywhere(brief: Brief, library: Library) -> None:
    plan = planned(brief, library)
    table = key_table(brief, plan)
    assert [row.id for row in table] == [key.id for key in keys_of(brief)]
    assert [row.number for row in table] == list(range(len(table)))
    numbers = [int(row.report.split()[1]) for row in table if row.report.startswith("button ")]
    assert numbers == list(range(1, len(numbers) + 1))


@SLOW
@given(
    brief=devices(),
    name=st.sampled_from(
        ["one pin each", "diode matrix", "mixed", "expander 16", "shift register"]
    ),
)
def test_every_signal_has_one_net_one_wire_and_one_name(
    brief: Brief, name: str, library: Library
) -> None:
    changed = brief.model_copy(update={"key_scheme": KeyScheme(name=name)})
    needs = needs_of(changed)
    assert len({n.signal for n in needs}) == len(needs)
    assert len({n.net for n in needs}) == len(needs)
    plan = planned(changed, library)
    assert [w.pin for w in wires_of(changed, plan)] == [a.pin for a in plan.assignments]
    assert len({w.pin for w in wires_of(changed, plan)}) == len(needs)

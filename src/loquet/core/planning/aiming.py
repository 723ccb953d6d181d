"""What solving the pins again for the placed board would gain, before anybody takes it."""

from loquet.core.design import Design, plans_of
from loquet.core.freshness import plan_inputs
from loquet.core.library import Library
from loquet.core.pins import Solved, solve
from loquet.core.pipeline import StageRefused, pin_problem
from loquet.core.plain.frozen import Frozen, digest_of
from loquet.core.planning.pinning import placed_targets

SECONDS = 20.0


class Aim(Frozen):
    """The ways from a brain's pins to the nearest pads of their nets as the parts lie, straight, in
    mm: with the plan as it is and solved again; and what would change its pin, in words.
    """

    brain: str
    before_mm: float
    after_mm: float
    moved: tuple[str, ...]


def aims_of(design: Design, library: Library) -> tuple[Aim, ...]:
    """What each brain would gain, within the locks; raises StageRefused where the board is not
    placed for this circuit.
    """
    targets = placed_targets(design, library)
    if not targets:
        raise StageRefused("pins", "The board is not placed for this circuit.", "Place it first.")
    choices = design.choices.model_copy(update={"pin_targets": targets})
    aimed = design.model_copy(update={"choices": choices})
    return tuple(aim_of(design, aimed, library, brain.name) for brain in design.brief.brains)


def aim_of(design: Design, aimed: Design, library: Library, brain: str) -> Aim:
    """What one brain would gain; nothing where no better plan is found."""
    problem = pin_problem(aimed, library, brain)
    now = {row.signal: row.pin for row in plans_of(design)[brain].assignments}
    answer = solve(problem, SECONDS)
    then = {s: pick.pin for s, pick in answer.picks.items()} if isinstance(answer, Solved) else now

    def length_mm(pins: dict[str, str]) -> float:
        return sum(problem.length_nm(need, pins[need.signal]) for need in problem.needs) / 1e6

    before, after = length_mm(now), length_mm(then)
    if after >= before:
        return Aim(brain=brain, before_mm=round(before, 2), after_mm=round(before, 2), moved=())
    moved = tuple(need.title for need in problem.needs if now[need.signal] != then[need.signal])
    return Aim(brain=brain, before_mm=round(before, 2), after_mm=round(after, 2), moved=moved)


def aims_key(design: Design, library: Library) -> str:
    """What the gain depends on: the brief, the locks, the plans, and where the pads lie."""
    about = {
        "aims": {b.name: plan_inputs(design, b.name) for b in design.brief.brains},
        "plans": {name: digest_of(plan) for name, plan in plans_of(design).items()},
        "targets": placed_targets(design, library),
    }
    return digest_of(about)

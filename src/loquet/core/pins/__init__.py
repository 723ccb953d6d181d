"""Which chip pin carries which signal: needs, the solver, and the check of its answer.

May import power, parts and brief; the solver is checked without it.
"""

from loquet.core.pins.model import Assignment, Need, PinPlan
from loquet.core.pins.problem import Infeasible, PinProblem, Solved, Stopped, places_of

__all__ = [
    "Assignment",
    "Infeasible",
    "Need",
    "PinPlan",
    "PinProblem",
    "Solved",
    "Stopped",
    "feasible",
    "places_of",
    "solve",
]


def solve(
    problem: PinProblem, seconds: float = 10.0, seed: int = 1
) -> Solved | Infeasible | Stopped:
    """The best plan, proven where time allows; the solver is loaded when the first plan is asked
    for.
    """
    from loquet.core.pins import solving

    return solving.solve(problem, seconds, seed)


def feasible(problem: PinProblem) -> bool:
    """Whether some plan carries the needs."""
    from loquet.core.pins import solving

    return solving.feasible(problem)

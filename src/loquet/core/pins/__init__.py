"""Which chip pin carries which signal: needs, the solver, and the check of its answer.

May import power, parts and brief; the solver is checked without it.
"""

from loquet.core.pins.model import Assignment, Need, PinPlan
from loquet.core.pins.problem import Infeasible, PinProblem, Solved, Stopped, places_of
from loquet.core.pins.solving import solve

__all__ = [
    "Assignment",
    "Infeasible",
    "Need",
    "PinPlan",
    "PinProblem",
    "Solved",
    "Stopped",
    "places_of",
    "solve",
]

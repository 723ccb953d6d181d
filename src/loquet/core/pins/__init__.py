"""Which chip pin carries which signal: needs, the solver, and the check of its answer."""

from loquet.core.pins.model import Assignment, Need, PinPlan
from loquet.core.pins.solving import Infeasible, PinProblem, Solved, Stopped, solve

__all__ = ["Assignment", "Infeasible", "Need", "PinPlan", "PinProblem", "Solved", "Stopped", "solve"]

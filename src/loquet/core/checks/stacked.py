"""The stack of the board that a rule is run for."""

from loquet.core.checks.rule import Subject
from loquet.core.stack.model import Stack
from loquet.core.stack.stacking import stack_of


def stack_seen(subject: Subject) -> Stack:
    """The stack of the board of a rule, as the choices stand."""
    assert subject.view is not None
    thick = subject.brief.making.thickness_mm
    return stack_of(subject.view, subject.library, subject.choices.stack, thick)

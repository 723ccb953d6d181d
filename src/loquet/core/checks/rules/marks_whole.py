"""Pin 1, plus and minus, ON and the words of plugs that look alike are printed whole, each beside
its own.
"""

from loquet.core.checks.rule import Rule, Subject, outcome
from loquet.core.legend import legend_of
from loquet.core.legend.marks import Unmarked
from loquet.core.provenance import Finding, NotApplicable, Outcome, Source


def run(subject: Subject) -> Outcome:
    """Draw the legend of a finished board, and look for marks that found no place."""
    view = subject.view
    assert view is not None
    if view.pour is None:
        return NotApplicable("the board is not finished")
    found = [said(subject, mark) for mark in legend_of(view).unmarked]
    return outcome(found, len(view.circuit.components))


def said(subject: Subject, mark: Unmarked) -> Finding:
    """A mark that is missing: a stop where nothing else tells which way round a part goes, or which
    plug it is.
    """
    view = subject.view
    assert view is not None
    seat, purpose = view.seats[mark.ref], view.circuit.component(mark.ref).purpose
    side = "far" if seat.far else "near"
    return RULE.finding(
        f"There is no room on the {side} side for {mark.what} beside {mark.ref} ({purpose}).",
        f"Make room beside {mark.ref}: move what stands next to it.",
        (f"part:{mark.ref}",),
        seat.x,
        seat.y,
        severity="stop" if mark.turns_unseen else "note",
    )


RULE = Rule(
    "marks-whole",
    "board",
    "stop",
    "A part that fits both ways round and says nothing is soldered the wrong way by somebody.",
    Source(kind="standard", text="IPC-7351B: pin 1 and polarity marked outside of the body"),
    run,
    ("view",),
)

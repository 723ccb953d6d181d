"""Stacks for tests: designs with a few things, bodies made by hand in a shell of known walls."""

from dataclasses import replace

from shapely.geometry import box

from loquet.core.brief.stack_choices import StackChoices
from loquet.core.checks.rule import Rule, decisions_of, outcome_of
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.provenance import Failed, Finding
from loquet.core.reviewing import subject_of
from loquet.core.stack.model import Piece, Stack, Walls
from loquet.core.stack.plugging import Plugged
from loquet.core.stack.stacking import stack_of
from tests.making import as_made, device, thing

PLAIN = StackChoices()
WALLS = Walls(10, 5, True, True, 2, 0.5, 1.6)
CELL = {"capacity_mah": 1000}
FED = thing("leads", "leads")


def placed(library: Library, *things: object, **brief: object) -> Design:
    made = device(thing("chip", "chip", part="stm32l433rct6"), *things, **brief)
    return bring_up_to_date(Design(brief=made), library, "placement")


def stacked(design: Design, library: Library, choices: StackChoices = PLAIN) -> Stack:
    return stack_of(board_view(design, library), library, choices, 1.6)


def piece(stack: Stack, name: str) -> Piece:
    return next(p for p in stack.pieces if p.name == name)


def said(
    rule: Rule, design: Design, library: Library, insulator: bool = False, **stack: object
) -> list[Finding]:
    """What a rule says with this shell, perhaps with an insulator about soft cells."""
    design = design.model_copy(update={"brief": as_made(design.brief, insulator=insulator)})
    choices = design.choices.model_copy(update={"stack": StackChoices(**stack)})
    subject = subject_of(design.model_copy(update={"choices": choices}), library)
    result = outcome_of(
        rule, replace(subject, view=subject.views[0]), decisions_of(subject.choices)
    )
    return list(result.findings) if isinstance(result, Failed) else []


def pouched(library: Library) -> Design:
    """A pouch of 50 x 34 x 5 mm behind a board of 120 x 60 mm, a button before it, a screw hole
    beside it.
    """
    return placed(
        library,
        thing("lithium-cell", "cell", 50, 30, far=True, **CELL),
        thing("button", "go", 50, 30),
        thing("hole", "post", 10, 30, screw="M2"),
    )


def block(name: str, x1: float, x2: float, low: float, high: float, **more: object) -> Piece:
    area = box(x1, 0, x2, 10)
    return Piece(name, name, "loose", area, low, high, False, name, (), **more)


def plugged(**changes: object) -> Plugged:
    plug = Plugged("the plug", "J1", "usb", box(0, 0, 10, 5), 0.0, 5.0, (0.0, 1.0), 0.0)
    return replace(plug, **changes)  # type: ignore[arg-type]


def reach_of(**changes: object) -> Piece:
    return replace(
        Piece("SW1", "SW1", "part", box(10, 0, 20, 10), 1.6, 5.0, False, "go"), **changes
    )  # type: ignore[arg-type]


def shelled(*pieces: Piece) -> Stack:
    return Stack("main", box(0, -20, 100, 40), WALLS, pieces, (), (), ())

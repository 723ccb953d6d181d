"""`loquet stack`: a brief file to the stack of each of its boards, without a database."""

from pathlib import Path

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, board_view, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.core.stack.report import StackView, stack_report
from loquet.reports.plans import Report, brief_at, findings_at, said


def report_stack(path: Path) -> tuple[int, Report]:
    """The stack of every board of a brief: 0, or 2 where a stop stands against it.

    Raises Unusable where a board cannot be placed.
    """
    library, brief = bundled_library(), brief_at(path)
    try:
        design = bring_up_to_date(Design(brief=brief), library, "placement")
    except (PartError, StageRefused, RecipeNotPossible, NoRoom) as error:
        raise Unusable(str(error)) from None
    boards = [
        stack_report(
            board_view(design, library, board.name),
            library,
            design.choices.stack,
            design.brief.making.thickness_mm,
        )
        for board in brief.boards
    ]
    findings = findings_at(design, library, "stack")
    code = 2 if any(f["severity"] == "stop" for f in findings) else 0
    return code, {"boards": [b.model_dump(mode="json") for b in boards], "findings": findings}


def say_stack(report: Report) -> str:
    """The stacks in lines for a person."""
    lines = []
    for plain in report["boards"]:
        board = StackView.model_validate(plain)
        lines.append(f"{board.board}:")
        lines += [f"  {w.title}: {w.shown}" for w in board.workings]
        lines += [f"  {gap.mm:.2f} mm {gap.way}: {gap.one}, {gap.other}" for gap in board.tightest]
        lines += [
            f"  screw {s.thread} x {s.length_mm or '?'} mm, {s.head} head, at {s.thing}; post"
            f" {s.post_mm:.1f} mm"
            for s in board.screws
        ]
        lines += [
            f"  opening {o.drawn_mm[0]:.2f} x {o.drawn_mm[1]:.2f} mm in the {o.wall}: {o.words}"
            for o in board.openings
        ]
        lines += [f"  {number}. {step}" for number, step in enumerate(board.order.steps, 1)]
    return "\n".join(lines + said(report))

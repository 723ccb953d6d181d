"""`loquet build`: a brief file to the steps of building it and the tables of its first power,
without a database.
"""

from pathlib import Path

from loquet.catalogue.library import bundled_library
from loquet.compiling import Unusable
from loquet.core.board import BoardView
from loquet.core.build.expected import FirstPower, first_power
from loquet.core.build.faults import possible_faults
from loquet.core.build.steps import Step, build_steps
from loquet.core.circuit import RecipeNotPossible
from loquet.core.design import Design, slice_of
from loquet.core.energising.device import Device
from loquet.core.library import Library
from loquet.core.lookup.switched_on import device_of, planned_of
from loquet.core.parts import PartError
from loquet.core.pipeline import StageRefused, board_view, bring_up_to_date
from loquet.core.placement.seating import NoRoom
from loquet.core.stack.stacking import stack_of
from loquet.reports.plans import Report, brief_at


def placed_at(path: Path) -> tuple[Design, Library, tuple[BoardView, ...], Device]:
    """The design of a brief file with its boards placed, and what lies on the bench.

    Raises Unusable.
    """
    library, brief = bundled_library(), brief_at(path)
    try:
        design = bring_up_to_date(Design(brief=brief), library, "placement")
    except (PartError, StageRefused, RecipeNotPossible, NoRoom) as error:
        raise Unusable(str(error)) from None
    views = tuple(board_view(design, library, board.name) for board in brief.boards)
    circuit, brains = slice_of(design.circuit), planned_of(design, library)
    return design, library, views, device_of(brief, circuit, library, brains)


def report_build(path: Path) -> tuple[int, Report]:
    """Steps of every board and the tables of the first power.

    Raises Unusable where a board cannot be placed.
    """
    design, library, views, desk = placed_at(path)
    power = first_power(desk, possible_faults(desk, views))
    thick = design.brief.making.thickness_mm
    boards = [
        {
            "board": view.board.name,
            "steps": [
                step.model_dump(mode="json")
                for step in build_steps(
                    view, library, stack_of(view, library, design.choices.stack, thick)
                )
            ],
        }
        for view in views
    ]
    return 0, {"boards": boards, "power": power.model_dump(mode="json")}


def say_build(report: Report) -> str:
    """Steps and tables in lines for a person."""
    lines = []
    for board in report["boards"]:
        lines.append(f"{board['board']}:")
        for number, plain in enumerate(board["steps"], 1):
            step = Step.model_validate(plain)
            lines.append(f"  {number}. {step.title}. {step.how}")
            if step.parts:
                lines.append(f"     {', '.join(part.ref for part in step.parts)}")
    power = FirstPower.model_validate(report["power"])
    lines.append(f"Before power: {power.limit.title.lower()} {power.limit.shown}")
    lines += [f"  {row.shown:>8}  {row.words}" for row in (*power.before, *power.neighbours)]
    lines.append("Power on:")
    lines += [f"  {row.shown:>8}  {row.words}" for row in power.after]
    return "\n".join(lines)

"""Writing XNC drill files (Ucamco XNC Format Specification), plated and unplated apart."""

from loquet import __version__
from loquet.core.board.copper import Hole


def write_drill(holes: tuple[Hole, ...], plated: bool, layers: int) -> bytes:
    """Tools by diameter, holes in rows, through so many layers of copper; coordinates in mm with
    six decimals.
    """
    wanted = [hole for hole in holes if hole.plated == plated]
    kinds = sorted({(hole.d, drill_function(hole)) for hole in wanted})
    lines = [
        "M48",
        f"; #@! TF.GenerationSoftware,Larkfield,Loquet,{__version__}",
        f"; #@! TF.FileFunction,{drilled_through(plated, layers)}",
        f";TYPE={'PLATED' if plated else 'NON_PLATED'}",
        "METRIC",
    ]
    for number, (diameter, function) in enumerate(kinds, 1):
        lines += [f"; #@! TA.AperFunction,{function}", f"T{number:02d}C{diameter / 1e6:.6f}"]
    lines += ["%", "G05"]
    for number, kind in enumerate(kinds, 1):
        lines.append(f"T{number:02d}")
        places = sorted(
            (hole.y, hole.x) for hole in wanted if (hole.d, drill_function(hole)) == kind
        )
        lines += [f"X{x / 1e6:.6f}Y{y / 1e6:.6f}" for y, x in places]
    return "\n".join([*lines, "M30", ""]).encode("ascii")


def drilled_through(plated: bool, layers: int) -> str:
    """The file function of a drill file: from the first layer of copper to the last."""
    return f"Plated,1,{layers},PTH" if plated else f"NonPlated,1,{layers},NPTH"


def drill_function(hole: Hole) -> str:
    """The aperture function of a hole."""
    if not hole.plated:
        return "NonPlated,NPTH,MechanicalDrill"
    return (
        "Plated,PTH,ViaDrill"
        if hole.owner == "via" or hole.d <= 400_000
        else "Plated,PTH,ComponentDrill"
    )

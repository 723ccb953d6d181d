"""How the boards are made and soldered, as the maker wants it."""

from typing import Annotated, Any, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted

USUAL_COPPER_UM = 35
"""Copper of one ounce to the square foot, as boards come where nothing is said."""
Named = Annotated[str, Field(min_length=1, max_length=40)]
SolderedBy = Literal["hand iron", "hot plate", "assembly house"]
Plain = dict[str, Any]
MOVED = {"finish", "colour", "thickness_um", "copper_um"}
"""What stood among the choices before it became the brief's."""


class Making(Counted):
    """Finish and colour by their names at the house, thickness of the boards (mm) and of their
    copper (µm), an insulator about soft cells, and how the parts are soldered on.
    """

    finish: Named = "lead-free solder"
    colour: Named = "green"
    thickness_mm: Annotated[float, Field(ge=0.4, le=3.2)] = 1.6
    copper_um: Annotated[int, Field(ge=18, le=210)] = USUAL_COPPER_UM
    insulator: bool = False
    soldered_by: SolderedBy = "hand iron"

    @property
    def thickness_um(self) -> int:
        """The thickness of the boards in µm."""
        return round(self.thickness_mm * 1000)


def of_before(choices: Plain) -> bool:
    """Whether choices, as plain values, still hold how the boards are made."""
    stack = choices.get("stack")
    return bool(MOVED & choices.keys()) or (isinstance(stack, dict) and "insulator" in stack)


def moved(brief: Plain, choices: Plain) -> tuple[Plain, Plain]:
    """A brief and choices of before, as plain values, with how the boards are made in the brief."""
    stack = dict(choices.get("stack", {}))
    old = {name: choices[name] for name in MOVED if name in choices}
    if "insulator" in stack:
        old["insulator"] = stack.pop("insulator")
    if "thickness_um" in old:
        old["thickness_mm"] = old.pop("thickness_um") / 1000
    kept = {name: value for name, value in choices.items() if name not in MOVED}
    if "stack" in choices:
        kept["stack"] = stack
    return {**brief, "making": {**brief.get("making", {}), **old}}, kept

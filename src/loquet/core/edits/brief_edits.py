"""Edits of the brief."""

from typing import Annotated, Any, Literal

from pydantic import Field

from loquet.core.brief import (
    Brief,
    Buzzer,
    Headphones,
    Light,
    LightChain,
    LightMatrix,
    Screen,
    Speaker,
)
from loquet.core.brief.places import PlaceMm
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, validated
from loquet.core.frozen import Frozen

Extra = Literal["screen", "buzzer", "light", "speaker", "headphones", "light_chain", "light_matrix"]
CONTROL_KINDS = ("button", "pad", "stick", "trigger", "encoder", "slider", "touch")


def with_brief(design: Design, **changes: Any) -> Design:
    """The design with changed fields of its brief."""
    values = {**design.brief.model_dump(mode="json"), **{k: plain(v) for k, v in changes.items()}}
    return design.model_copy(update={"brief": validated(Brief, values)})


def plain(value: Any) -> Any:
    """Models as plain values, inside tuples too."""
    if isinstance(value, tuple | list):
        return [plain(item) for item in value]
    return value.model_dump(mode="json") if isinstance(value, Frozen) else value


def index_of(brief: Brief, name: str) -> int:
    """Where a control stands; raises EditRefused."""
    for index, control in enumerate(brief.controls):
        if control.name == name:
            return index
    raise EditRefused(
        f"There is no control '{name}'.", "Reload the page: it may have been removed."
    )


class MoveThing(Frozen):
    """Move a control or another placed thing; `thing` is `button:NAME` (or another kind of control), `hole:NAME`, or a field of the brief."""

    kind: Literal["move-thing"] = "move-thing"
    thing: Annotated[str, Field(max_length=60)]
    x_mm: PlaceMm
    y_mm: PlaceMm

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Move {self.thing.split(':')[-1]} to {self.x_mm:.2f}, {self.y_mm:.2f} mm"

    def apply(self, design: Design) -> Design:
        """Put the new place in."""
        place = {"x_mm": round(self.x_mm, 3), "y_mm": round(self.y_mm, 3)}
        kind, _, name = self.thing.partition(":")
        brief = design.brief
        if kind in CONTROL_KINDS:
            index = index_of(brief, name)
            moved = brief.controls[index].model_copy(update=place)
            return with_brief(
                design, controls=(*brief.controls[:index], moved, *brief.controls[index + 1 :])
            )
        if kind == "hole" and brief.shell.kind == "existing":
            raise EditRefused(
                "The holes are those of an existing shell, which must be met exactly.",
                "Make the shell one's own first.",
            )
        if kind == "hole":
            holes = tuple(
                h.model_copy(update=place) if h.name == name else h for h in brief.fixing_holes
            )
            return with_brief(design, fixing_holes=holes)
        if (
            kind
            not in (
                "screen",
                "buzzer",
                "light",
                "power",
                "power_switch",
                "programming_port",
                "chip",
            )
            or getattr(brief, kind) is None
        ):
            raise EditRefused(f"There is no '{self.thing}' on this board.", "Reload the page.")
        return with_brief(design, **{kind: getattr(brief, kind).model_copy(update=place)})


class SetReading(Frozen):
    """How buttons are read."""

    kind: Literal["set-reading"] = "set-reading"
    reading: Literal["internal-pull-up", "pull-down-resistors"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Read buttons by {self.reading.replace('-', ' ')}"

    def apply(self, design: Design) -> Design:
        """Change the choice."""
        return with_brief(design, button_reading=self.reading)


class SetQuantity(Frozen):
    """How many are wanted."""

    kind: Literal["set-quantity"] = "set-quantity"
    quantity: Annotated[int, Field(ge=1, le=10_000)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Make {self.quantity}"

    def apply(self, design: Design) -> Design:
        """Change the number."""
        return with_brief(design, quantity=self.quantity)


class SetChip(Frozen):
    """Another microcontroller; pin locks belong to the old one and are dropped."""

    kind: Literal["set-chip"] = "set-chip"
    part: Annotated[str, Field(min_length=3, max_length=40)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Use chip {self.part}"

    def apply(self, design: Design) -> Design:
        """Change the chip."""
        choices = design.choices.model_copy(update={"pin_locks": {}})
        chip = design.brief.chip.model_copy(update={"part": self.part})
        return with_brief(design, chip=chip).model_copy(update={"choices": choices})


class SetExtra(Frozen):
    """Put a screen, sounder or lights on the device, or take them off."""

    kind: Literal["set-extra"] = "set-extra"
    extra: Extra
    present: bool
    x_mm: PlaceMm = 10
    y_mm: PlaceMm = 10

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{'Add' if self.present else 'Remove'} {self.extra.replace('_', ' ')}"

    def apply(self, design: Design) -> Design:
        """Add with its defaults, or remove."""
        made: dict[Extra, Frozen] = {
            "screen": Screen(x_mm=self.x_mm, y_mm=self.y_mm),
            "buzzer": Buzzer(),
            "light": Light(x_mm=self.x_mm, y_mm=self.y_mm),
            "speaker": Speaker(),
            "headphones": Headphones(),
            "light_chain": LightChain(count=8),
            "light_matrix": LightMatrix(rows=4, columns=4),
        }
        return with_brief(design, **{self.extra: made[self.extra] if self.present else None})


class ReplaceBrief(Frozen):
    """Take a whole brief from a file."""

    kind: Literal["replace-brief"] = "replace-brief"
    brief: Brief

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Read brief from a file"

    def apply(self, design: Design) -> Design:
        """Change it whole."""
        return design.model_copy(update={"brief": self.brief})

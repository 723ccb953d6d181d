"""Edits of the device as a whole: role, chords, schemes, screen, axes, links, sensors, power, clocks, outline, own chip."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import (
    BriefError,
    Chords,
    FixingHole,
    KeyScheme,
    LithiumCell,
    PinTable,
    SchemeName,
)
from loquet.core.brief.model import Outline, Shell
from loquet.core.brief.sense import OWN_CHIP, outline_polygon_mm
from loquet.core.brief.sources import Power
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused
from loquet.core.edits.brief_edits import with_brief
from loquet.core.frozen import Frozen
from loquet.core.pins.own_chip import read_pin_table


class SetRole(Frozen):
    """What the device is to its host."""

    kind: Literal["set-role"] = "set-role"
    role: Literal["stand-alone", "usb-controller", "usb-keyboard", "host-key-reader"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Make it {self.role.replace('-', ' ')}"

    def apply(self, design: Design) -> Design:
        """Change the role."""
        return with_brief(design, role=self.role)


class SetChords(Frozen):
    """Which keys must be readable together."""

    kind: Literal["set-chords"] = "set-chords"
    chords: Chords

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Chords: {self.chords.rule}"

    def apply(self, design: Design) -> Design:
        """Change the rule."""
        return with_brief(design, chords=self.chords)


class SetScheme(Frozen):
    """How the keys are read; the choice is kept until another one is made."""

    kind: Literal["set-scheme"] = "set-scheme"
    scheme: KeyScheme | SchemeName

    @property
    def label(self) -> str:
        """Words for the history."""
        return (
            f"Read the keys by {self.scheme if isinstance(self.scheme, str) else self.scheme.name}"
        )

    def apply(self, design: Design) -> Design:
        """Change the scheme; a name alone keeps the shape."""
        if isinstance(self.scheme, KeyScheme):
            return with_brief(design, key_scheme=self.scheme)
        return with_brief(
            design, key_scheme={"name": self.scheme, "shape": design.brief.key_scheme.shape}
        )


class SetAnalogue(Frozen):
    """Who reads the axes: the chip, an outside converter, or the chip through a multiplexer."""

    kind: Literal["set-analogue"] = "set-analogue"
    by: Literal["chip", "converter", "multiplexer"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Read the axes by {self.by}"

    def apply(self, design: Design) -> Design:
        """Change it."""
        return with_brief(design, analogue_by=self.by)


class SetPower(Frozen):
    """What feeds the device."""

    kind: Literal["set-power"] = "set-power"
    power: Power

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Power from {self.power.kind.replace('-', ' ')}"

    def apply(self, design: Design) -> Design:
        """Change it; a lithium cell is measured unless that is turned off."""
        return with_brief(design, power=self.power)


class SetBatterySense(Frozen):
    """Measure the lithium cell on an analogue channel, or not."""

    kind: Literal["set-battery-sense"] = "set-battery-sense"
    sense: bool

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Measure the cell" if self.sense else "Do not measure the cell"

    def apply(self, design: Design) -> Design:
        """Change it."""
        power = design.brief.power
        if not isinstance(power, LithiumCell):
            raise EditRefused(
                "Only a lithium cell is measured on a pin of its own.",
                "The chip can measure its own supply.",
            )
        return with_brief(design, power=power.model_copy(update={"sense": self.sense}))


class SetOutline(Frozen):
    """The outline of the device; an existing shell keeps its own."""

    kind: Literal["set-outline"] = "set-outline"
    outline: Outline

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Change the outline"

    def apply(self, design: Design) -> Design:
        """Change it."""
        if design.brief.shell.kind == "existing":
            raise EditRefused(
                "The outline is that of an existing shell, which must be met exactly.",
                "Make the shell one's own first.",
            )
        return with_brief(design, outline=self.outline)


class SetShell(Frozen):
    """A shell of one's own, or an existing one."""

    kind: Literal["set-shell"] = "set-shell"
    shell: Shell

    @property
    def label(self) -> str:
        """Words for the history."""
        return (
            "Keep an existing shell"
            if self.shell.kind == "existing"
            else "Make a shell of one's own"
        )

    def apply(self, design: Design) -> Design:
        """Change it."""
        return with_brief(design, shell=self.shell)


class AddCornerHoles(Frozen):
    """Four fixing holes near the corners of the outline's box."""

    kind: Literal["add-corner-holes"] = "add-corner-holes"
    screw: Literal["M1.6", "M2", "M2.5", "M3"] = "M2"

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Add fixing holes"

    def apply(self, design: Design) -> Design:
        """Put them 4 mm from both edges; names that are taken stay as they are."""
        left, bottom, right, top = outline_polygon_mm(design.brief.outline).bounds
        there = {hole.name for hole in design.brief.fixing_holes}
        places = {
            "post south west": (left + 4, bottom + 4),
            "post south east": (right - 4, bottom + 4),
            "post north west": (left + 4, top - 4),
            "post north east": (right - 4, top - 4),
        }
        added = tuple(
            FixingHole(name=n, x_mm=round(x, 3), y_mm=round(y, 3), screw=self.screw)
            for n, (x, y) in places.items()
            if n not in there
        )
        return with_brief(design, fixing_holes=(*design.brief.fixing_holes, *added))


class UsePinTable(Frozen):
    """Plan for a chip or module of one's own, from the text of its table (CSV or JSON); pin locks are dropped."""

    kind: Literal["use-pin-table"] = "use-pin-table"
    name: Annotated[
        str,
        Field(
            pattern=r"^[A-Za-z0-9][A-Za-z0-9 ._+-]{0,39}$",
            description="letters, digits, spaces and . _ + -",
        ),
    ]
    text: Annotated[str, Field(max_length=200_000)]
    module: bool = True

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Use the pin table of {self.name}"

    def apply(self, design: Design) -> Design:
        """Read the table, and make it the chip."""
        try:
            table: PinTable = read_pin_table(self.text.encode(), self.name, self.module)
        except BriefError as error:
            raise EditRefused(f"{error.place} {error.problem}.", error.way_out) from None
        chip = design.brief.chip.model_copy(update={"part": OWN_CHIP})
        changed = with_brief(design, chip=chip, pin_table=table)
        return changed.model_copy(
            update={"choices": design.choices.model_copy(update={"pin_locks": {}})}
        )

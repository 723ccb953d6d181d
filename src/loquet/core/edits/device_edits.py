"""Edits of the device as a whole: role, chords, schemes, screen, axes, links, sensors, power, clocks, outline, own chip."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief import BriefError, Chords, KeyScheme, LithiumCell, PinTable, SchemeName, Sensor
from loquet.core.brief.links import Link
from loquet.core.brief.model import Outline, Shell
from loquet.core.brief.places import Name
from loquet.core.brief.sense import OWN_CHIP
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
        return f"Read the keys by {self.scheme if isinstance(self.scheme, str) else self.scheme.name}"

    def apply(self, design: Design) -> Design:
        """Change the scheme; a name alone keeps the shape."""
        if isinstance(self.scheme, KeyScheme):
            return with_brief(design, key_scheme=self.scheme)
        return with_brief(design, key_scheme={"name": self.scheme, "shape": design.brief.key_scheme.shape})


class SetScreen(Frozen):
    """Another screen part, with the bus that it speaks."""

    kind: Literal["set-screen"] = "set-screen"
    part: Annotated[str, Field(max_length=60)]
    bus: Literal["two-wire", "one-way serial", "parallel colour"] | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Screen {self.part}"

    def apply(self, design: Design) -> Design:
        """Change part and bus; the bus is read off the part's name where it is not given."""
        if design.brief.screen is None:
            raise EditRefused("There is no screen.", "Add one first.")
        bus = self.bus or ("parallel colour" if "parallel" in self.part else "one-way serial" if "serial" in self.part else "two-wire")
        return with_brief(design, screen=design.brief.screen.model_copy(update={"part": self.part, "bus": bus}))


class SetScreenBits(Frozen):
    """How many bits of colour a parallel screen gets."""

    kind: Literal["set-screen-bits"] = "set-screen-bits"
    bits: int

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{self.bits} colour bits"

    def apply(self, design: Design) -> Design:
        """Change the bits."""
        if design.brief.screen is None:
            raise EditRefused("There is no screen.", "Add one first.")
        return with_brief(design, screen={**design.brief.screen.model_dump(mode="json"), "colour_bits": self.bits})


class SetScreenWish(Frozen):
    """Speed of the screen's bus, and what is wanted of the screen: frames a second, rows and columns of text."""

    kind: Literal["set-screen-wish"] = "set-screen-wish"
    serial_mhz: Annotated[float, Field(ge=0.5, le=80)] | None = None
    wanted_rate_hz: Annotated[float, Field(ge=1, le=120)] | None = None
    wanted_rows: Annotated[int, Field(ge=1, le=60)] | None = None
    wanted_columns: Annotated[int, Field(ge=1, le=120)] | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return "What the screen must do"

    def apply(self, design: Design) -> Design:
        """Change what is given."""
        if design.brief.screen is None:
            raise EditRefused("There is no screen.", "Add one first.")
        given = {k: v for k, v in self.model_dump(exclude={"kind"}).items() if v is not None}
        return with_brief(design, screen={**design.brief.screen.model_dump(mode="json"), **given})


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


class DropExtra(Frozen):
    """Leave out something that is nice to have."""

    kind: Literal["drop-extra"] = "drop-extra"
    extra: Literal["buzzer", "light", "headphones", "speaker", "light_chain", "light_matrix"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Leave out the {self.extra.replace('_', ' ')}"

    def apply(self, design: Design) -> Design:
        """Take it out."""
        return with_brief(design, **{self.extra: None})


class AddLink(Frozen):
    """Add a port, card or connector."""

    kind: Literal["add-link"] = "add-link"
    link: Link

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Add {self.link.name}"

    def apply(self, design: Design) -> Design:
        """Put it behind the others; names are their own."""
        if any(link.name == self.link.name for link in design.brief.links):
            raise EditRefused(f"There is a {self.link.name} already.", "Give it another name.")
        return with_brief(design, links=(*design.brief.links, self.link))


class RemoveLink(Frozen):
    """Remove a port, card or connector."""

    kind: Literal["remove-link"] = "remove-link"
    name: Name

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Remove {self.name}"

    def apply(self, design: Design) -> Design:
        """Take it out."""
        return with_brief(design, links=tuple(link for link in design.brief.links if link.name != self.name))


class SetSensors(Frozen):
    """The sensors of the device."""

    kind: Literal["set-sensors"] = "set-sensors"
    sensors: Annotated[tuple[Sensor, ...], Field(max_length=12)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"{len(self.sensors)} sensors"

    def apply(self, design: Design) -> Design:
        """Change them."""
        return with_brief(design, sensors=self.sensors)


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
            raise EditRefused("Only a lithium cell is measured on a pin of its own.", "The chip can measure its own supply.")
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
            raise EditRefused("The outline is that of an existing shell, which must be met exactly.", "Make the shell one's own first.")
        return with_brief(design, outline=self.outline)


class SetShell(Frozen):
    """A shell of one's own, or an existing one."""

    kind: Literal["set-shell"] = "set-shell"
    shell: Shell

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Keep an existing shell" if self.shell.kind == "existing" else "Make a shell of one's own"

    def apply(self, design: Design) -> Design:
        """Change it."""
        return with_brief(design, shell=self.shell)


class UsePinTable(Frozen):
    """Plan for a chip or module of one's own, from the text of its table (CSV or JSON); pin locks are dropped."""

    kind: Literal["use-pin-table"] = "use-pin-table"
    name: Annotated[str, Field(min_length=1, max_length=40)]
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
        return changed.model_copy(update={"choices": design.choices.model_copy(update={"pin_locks": {}})})

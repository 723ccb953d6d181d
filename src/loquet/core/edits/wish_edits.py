"""Edits of what is wished of the device as a whole: role, chords, schemes, axes, shell, quantity,
words, own chips.
"""

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import BeforeValidator, Field

from loquet.core.brief import (
    Brief,
    BriefError,
    Chords,
    KeyScheme,
    SchemeName,
    Shell,
    brief_from_plain,
)
from loquet.core.brief.counted import Counted
from loquet.core.brief.kinds.chip import Chip
from loquet.core.brief.kinds.ready_module import ReadyModule
from loquet.core.brief.places import Name
from loquet.core.design import Design
from loquet.core.edits.applying import EditRefused, with_brief, with_choices
from loquet.core.pins.own_chip import read_pin_table


def any_format(value: Any) -> Brief:
    """A brief of any format that was ever written; raises ValueError with the sentence."""
    try:
        return value if isinstance(value, Brief) else brief_from_plain(value)
    except BriefError as error:
        raise ValueError(str(error)) from None


class SetRole(Counted):
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


class SetChords(Counted):
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


class SetScheme(Counted):
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
        shape = design.brief.key_scheme.shape
        return with_brief(design, key_scheme=KeyScheme(name=self.scheme, shape=shape))


class SetAnalogue(Counted):
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


class SetReading(Counted):
    """How keys are pulled."""

    kind: Literal["set-reading"] = "set-reading"
    reading: Literal["internal-pull-up", "pull-down-resistors"]

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Read buttons by {self.reading.replace('-', ' ')}"

    def apply(self, design: Design) -> Design:
        """Change the choice."""
        return with_brief(design, button_reading=self.reading)


class SetQuantity(Counted):
    """How many are wanted, and by when."""

    kind: Literal["set-quantity"] = "set-quantity"
    quantity: Annotated[int, Field(ge=1, le=10_000)]
    wanted_by: date | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Make {self.quantity}"

    def apply(self, design: Design) -> Design:
        """Change the number, and the date where one is given."""
        wanted_by = self.wanted_by or design.brief.wanted_by
        return with_brief(design, quantity=self.quantity, wanted_by=wanted_by)


class SetWords(Counted):
    """The name of the device, and what it is for."""

    kind: Literal["set-words"] = "set-words"
    name: Name | None = None
    purpose: Annotated[str, Field(max_length=300)] | None = None

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Name the device {self.name}" if self.name else "Say what the device is for"

    def apply(self, design: Design) -> Design:
        """Change what is given."""
        given = {k: v for k, v in (("name", self.name), ("purpose", self.purpose)) if v is not None}
        return with_brief(design, **given)


class SetShell(Counted):
    """A shell of one's own, or an existing one."""

    kind: Literal["set-shell"] = "set-shell"
    shell: Shell

    @property
    def label(self) -> str:
        """Words for the history."""
        existing = self.shell.kind == "existing"
        return "Keep an existing shell" if existing else "Make a shell of one's own"

    def apply(self, design: Design) -> Design:
        """Change it."""
        return with_brief(design, shell=self.shell)


class UsePinTable(Counted):
    """Put a chip or module of one's own on the shelf, from the text of its table (CSV or JSON), and
    plan for it; pin locks are dropped.
    """

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
    package: Annotated[
        str, Field(max_length=80, description="the part of one's own that draws its land pattern")
    ] = ""

    @property
    def label(self) -> str:
        """Words for the history."""
        return f"Use the pin table of {self.name}"

    def apply(self, design: Design) -> Design:
        """Read the table, and make it the first brain."""
        try:
            table = read_pin_table(self.text.encode(), self.name, self.module)
        except BriefError as error:
            raise EditRefused(f"{error.place} {error.problem}.", error.way_out) from None
        if self.package and self.package not in design.choices.shelf:
            words = f"{self.package} is no part of one's own in this project."
            raise EditRefused(words, "Take it from the shelf first.")
        table = table.model_copy(update={"package": self.package or table.package})
        brief = design.brief
        others = tuple(t for t in brief.shelf.pin_tables if t.name != table.name)
        shelf = brief.shelf.model_copy(update={"pin_tables": (*others, table)})
        brain = brief.brain or Chip(name="chip", board=brief.boards[0].name)
        if self.package and self.module != brain.READY_MADE:
            kind = ReadyModule if self.module else Chip
            brain = kind(name=brain.name, board=brain.board, place=brain.place)
        own = brain.model_copy(update={"part": "own", "table": table.name})
        design = with_brief(design, shelf=shelf, things=brief.with_things(own).things)
        return with_choices(design, pin_locks={})


class ReplaceBrief(Counted):
    """Take a whole brief from a file, of any format that was ever written."""

    kind: Literal["replace-brief"] = "replace-brief"
    brief: Annotated[Brief, BeforeValidator(any_format)]

    @property
    def label(self) -> str:
        """Words for the history."""
        return "Read brief from a file"

    def apply(self, design: Design) -> Design:
        """Change it whole."""
        return design.model_copy(update={"brief": self.brief})

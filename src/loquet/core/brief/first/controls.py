"""What the hands touch: every kind of control, named by where the finger finds it."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import Name, PartId, PlaceMm, QuarterTurn
from loquet.core.plain.frozen import Frozen

Digit = Literal["auto", "left thumb", "right thumb", "left finger", "right finger"]
Supply = Literal["rail", "5 V"]
DIRECTIONS = ("up", "down", "left", "right")
STEPS = {"up": (0, 1), "down": (0, -1), "left": (-1, 0), "right": (1, 0)}


class Placed(Frozen):
    """What all controls have: a name, the middle, a quarter turn, and the digit that works it (by
    its side where `auto`).
    """

    name: Name
    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0
    digit: Digit = "auto"


class Button(Placed):
    """A push button; its part decides the feel.

    `duty` says what it is for: a power button wakes the chip, a hot key is held with others.
    """

    kind: Literal["button"] = "button"
    part: PartId = "button-6x6-surface"
    duty: Literal["play", "menu", "hot key", "power"] = "play"
    sends: (
        Annotated[
            int, Field(ge=0x04, le=0xE7, description="usage on the key page of HID, for a keyboard")
        ]
        | None
    ) = None


class DirectionalPad(Placed):
    """Four directions, as four buttons `spread_mm` from the middle or as one five-way part with a
    press.
    """

    kind: Literal["pad"] = "pad"
    form: Literal["four buttons", "five-way part"] = "four buttons"
    part: PartId = "button-6x6-surface"
    spread_mm: Annotated[float, Field(ge=7, le=20)] = 9.0


class Stick(Placed):
    """A two-axis stick, resistive or magnetic, with or without a press."""

    kind: Literal["stick"] = "stick"
    sensing: Literal["resistive", "magnetic"] = "resistive"
    press: bool = True
    supply: Supply = "rail"
    part: PartId = "stick-resistive-13"


class Trigger(Placed):
    """An analogue trigger, read by a magnetic sensor or a slide."""

    kind: Literal["trigger"] = "trigger"
    sensing: Literal["magnetic", "slide"] = "magnetic"
    supply: Supply = "rail"
    part: PartId = "trigger-magnetic"


class Encoder(Placed):
    """A knob that turns without end, with or without a press."""

    kind: Literal["encoder"] = "encoder"
    press: bool = True
    part: PartId = "encoder-11"


class Potentiometer(Placed):
    """A slide or a thumb-wheel (its part says which), for a level that stays where it is put."""

    kind: Literal["slider"] = "slider"
    part: PartId = "slider-20"


class TouchPad(Placed):
    """A touch electrode: bare copper under the mask."""

    kind: Literal["touch"] = "touch"
    part: PartId = "touch-electrode-10"


Control = Annotated[
    Button | DirectionalPad | Stick | Trigger | Encoder | Potentiometer | TouchPad,
    Field(discriminator="kind"),
]

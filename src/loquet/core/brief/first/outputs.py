"""What the device shows and sounds: screens, sounders, lights."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.places import PartId, PlaceMm, QuarterTurn
from loquet.core.plain.frozen import Frozen

ScreenBus = Literal["two-wire", "one-way serial", "parallel colour"]


class Screen(Frozen):
    """A screen module on a header: on two wires, on a one-way serial bus, or on a parallel colour
    bus with chosen bits.

    What is wanted of it (whole frames a second, rows and columns of text) is checked where it is
    said.
    """

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0
    part: PartId = "screen-128x32-two-wire"
    bus: ScreenBus = "two-wire"
    address: Annotated[int, Field(ge=8, le=119)] = 60
    bus_khz: Literal[100, 400] = 400
    serial_mhz: Annotated[float, Field(ge=0.5, le=80)] = 8.0
    colour_bits: Literal[3, 6, 9, 12, 15, 16, 18] = 6
    wanted_rate_hz: Annotated[float, Field(ge=1, le=120)] | None = None
    wanted_rows: Annotated[int, Field(ge=1, le=60)] | None = None
    wanted_columns: Annotated[int, Field(ge=1, le=120)] | None = None


class Buzzer(Frozen):
    """A sounder driven by a timer; placed by Loquet where no place is given."""

    x_mm: PlaceMm | None = None
    y_mm: PlaceMm | None = None
    part: PartId = "buzzer-9x9-magnetic"


class Speaker(Frozen):
    """An amplifier with a speaker: fed by a converter output of the chip, by a timer, or by a
    digital sound bus.
    """

    feed: Literal["converter", "timer", "sound bus"] = "timer"
    mute_line: bool = True
    volume: bool = False


class Headphones(Frozen):
    """A headphone socket; detection takes a pin."""

    detection: bool = True


class Light(Frozen):
    """An indicator light."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    part: PartId = "light-2012-amber"
    current_ma: Annotated[float, Field(gt=0, le=20)] = 2.0


class LightChain(Frozen):
    """Addressable lights in a chain on one timed line."""

    count: Annotated[int, Field(ge=1, le=256)]


class LightMatrix(Frozen):
    """A matrix of plain lights, rows driven hard."""

    rows: Annotated[int, Field(ge=2, le=16)]
    columns: Annotated[int, Field(ge=2, le=16)]

"""The brief as frozen models. Places are millimetres from the outline's lower left corner, seen from the near side."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.frozen import Frozen

PlaceMm = Annotated[float, Field(ge=-10, le=500, description="mm from the lower left corner of the outline")]
Name = Annotated[
    str,
    Field(pattern=r"^[A-Za-z][A-Za-z0-9 -]{0,23}$", description="letters, digits, spaces and hyphens; starts with a letter"),
]
QuarterTurn = Literal[0, 90, 180, 270]


class RoundedRectangle(Frozen):
    """An upright rectangle with rounded corners."""

    kind: Literal["rounded-rectangle"] = "rounded-rectangle"
    width_mm: Annotated[float, Field(ge=10, le=300)]
    height_mm: Annotated[float, Field(ge=10, le=300)]
    corner_mm: Annotated[float, Field(ge=0, le=50)] = 3.0


class PolygonOutline(Frozen):
    """A closed outline of straight sides; the last point joins the first."""

    kind: Literal["polygon"] = "polygon"
    points_mm: Annotated[tuple[tuple[PlaceMm, PlaceMm], ...], Field(min_length=3, max_length=200)]


Outline = Annotated[RoundedRectangle | PolygonOutline, Field(discriminator="kind")]


class FixingHole(Frozen):
    """An unplated hole for a screw; the medium clearance hole of ISO 273."""

    name: Name
    x_mm: PlaceMm
    y_mm: PlaceMm
    screw: Literal["M1.6", "M2", "M2.5", "M3"] = "M2"


class Button(Frozen):
    """A push button, named by where the thumb finds it."""

    kind: Literal["button"] = "button"
    name: Name
    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0
    part: str = Field(default="button-6x6-surface", max_length=60)


class Screen(Frozen):
    """A small screen module on a four-way header, on two wires."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0
    part: str = Field(default="screen-128x32-two-wire", max_length=60)
    address: Annotated[int, Field(ge=8, le=119)] = 60
    bus_khz: Literal[100, 400] = 400


class Buzzer(Frozen):
    """A sounder driven by a timer; placed by Loquet where no place is given."""

    x_mm: PlaceMm | None = None
    y_mm: PlaceMm | None = None
    part: str = Field(default="buzzer-9x9-magnetic", max_length=60)


class Light(Frozen):
    """An indicator light."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    part: str = Field(default="light-2012-amber", max_length=60)
    current_ma: Annotated[float, Field(gt=0, le=20)] = 2.0


class CellPair(Frozen):
    """Two AAA cells in series, in holders on pads on the far side; the place is the middle of the pair."""

    kind: Literal["two-aaa-cells"] = "two-aaa-cells"
    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: Literal[0, 90] = 0


class PowerSwitch(Frozen):
    """The slide switch that turns the device on and off."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0


class ProgrammingPort(Frozen):
    """A five-way header for a debug probe: supply sense, clock, ground, data, reset."""

    x_mm: PlaceMm
    y_mm: PlaceMm
    turn_deg: QuarterTurn = 0


class ChipChoice(Frozen):
    """The microcontroller, by its exact name in the open data set; its seat is found where none is given."""

    part: Annotated[str, Field(min_length=3, max_length=40)]
    x_mm: PlaceMm | None = None
    y_mm: PlaceMm | None = None


class Brief(Frozen):
    """Everything the maker decides before the first pin is counted."""

    format: Literal["loquet-brief-1"] = "loquet-brief-1"
    name: Name
    purpose: Annotated[str, Field(max_length=300)] = ""
    outline: Outline
    fixing_holes: Annotated[tuple[FixingHole, ...], Field(max_length=40)] = ()
    controls: Annotated[tuple[Button, ...], Field(min_length=1, max_length=120)]
    button_reading: Literal["internal-pull-up", "pull-down-resistors"] = "internal-pull-up"
    screen: Screen | None = None
    buzzer: Buzzer | None = None
    light: Light | None = None
    power: CellPair
    power_switch: PowerSwitch
    programming_port: ProgrammingPort
    chip: ChipChoice
    quantity: Annotated[int, Field(ge=1, le=10_000)]
    wanted_by: date

"""The brief as frozen models.

Places are millimetres from the outline's lower left corner, seen from the near side.
"""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from loquet.core.brief.first.controls import Control
from loquet.core.brief.first.links import Link, Sensor
from loquet.core.brief.first.outputs import (
    Buzzer,
    Headphones,
    Light,
    LightChain,
    LightMatrix,
    Screen,
    Speaker,
)
from loquet.core.brief.first.sources import Power
from loquet.core.brief.pin_table import PinTable
from loquet.core.brief.places import Name, PlaceMm, QuarterTurn
from loquet.core.brief.reading_keys import Chords, KeyScheme
from loquet.core.plain.frozen import Frozen


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
    """The microcontroller, by its exact name in the open data set; its seat is found where none is
    given.
    """

    part: Annotated[str, Field(min_length=3, max_length=40)]
    x_mm: PlaceMm | None = None
    y_mm: PlaceMm | None = None


class Shell(Frozen):
    """The shell: of one's own, or an existing one whose outline and holes must be met exactly and
    are not moved.
    """

    kind: Literal["own", "existing"] = "own"
    name: Annotated[str, Field(max_length=60)] = ""


class Brief(Frozen):
    """Everything the maker decides before the first pin is counted."""

    format: Literal["loquet-brief-1"] = "loquet-brief-1"
    name: Name
    purpose: Annotated[str, Field(max_length=300)] = ""
    outline: Outline
    fixing_holes: Annotated[tuple[FixingHole, ...], Field(max_length=40)] = ()
    role: Literal["stand-alone", "usb-controller", "usb-keyboard", "host-key-reader"] = (
        "stand-alone"
    )
    controls: Annotated[tuple[Control, ...], Field(min_length=1, max_length=120)]
    key_scheme: KeyScheme = KeyScheme()
    chords: Chords = Chords()
    analogue_by: Literal["chip", "converter", "multiplexer"] = "chip"
    button_reading: Literal["internal-pull-up", "pull-down-resistors"] = "internal-pull-up"
    screen: Screen | None = None
    buzzer: Buzzer | None = None
    light: Light | None = None
    speaker: Speaker | None = None
    headphones: Headphones | None = None
    light_chain: LightChain | None = None
    light_matrix: LightMatrix | None = None
    links: Annotated[tuple[Link, ...], Field(max_length=12)] = ()
    sensors: Annotated[tuple[Sensor, ...], Field(max_length=12)] = ()
    power: Power
    shell: Shell = Shell()
    power_switch: PowerSwitch
    programming_port: ProgrammingPort
    chip: ChipChoice
    pin_table: PinTable | None = None
    crystal: bool = False
    clock_crystal: bool = False
    quantity: Annotated[int, Field(ge=1, le=10_000)]
    wanted_by: date

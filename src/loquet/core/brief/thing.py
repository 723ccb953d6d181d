"""A thing: what every kind has, and what a kind may be asked.

No stage, edit or screen knows more of a kind than this.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from loquet.core.brief.counted import Counted
from loquet.core.brief.outline_shapes import PolygonOutline
from loquet.core.brief.places import Name, OtherName, PartId, Place
from loquet.core.provenance import Source

Group = Literal["controls", "shows", "sounds", "feeds", "ports", "brains", "senses", "own", "marks"]
Digit = Literal["auto", "left thumb", "right thumb", "left finger", "right finger"]
Pair = tuple[float, float]


def only(**when: tuple[str, ...]) -> dict[str, Any]:
    """For a field's schema: with which values of other fields it means something, so that the form
    shows it then alone.
    """
    return {"when": {name: list(values) for name, values in when.items()}}


ANY_KIND = "any"
"""Stands for every kind of part."""


@dataclass(frozen=True)
class Body:
    """A piece of a thing on the board: its part, or its size in mm where there is none, about the
    thing's own middle (nm).

    `kinds` are the kinds of parts that fit, or ANY_KIND; `side` is where the piece sits against the
    thing: the same side or the other.
    """

    piece: str = ""
    part: str = ""
    kinds: tuple[str, ...] = ()
    dx: int = 0
    dy: int = 0
    turn: int = 0
    size_mm: Pair = (0.0, 0.0)


@dataclass(frozen=True)
class Contact:
    """Something that is open or closed: the piece of the thing that it is, its words, the body that
    carries it, its place about the thing's middle.

    `ends` are its two terminals on the part; `way` is the direction of a pad.
    """

    piece: str
    words: str
    body: str = ""
    dx: int = 0
    dy: int = 0
    way: str = ""
    duty: str = "play"
    sends: int | None = None
    ends: tuple[str, str] = ("one", "other")


@dataclass(frozen=True)
class Axis:
    """A voltage that a thing gives: its piece, the supply it is a part of (0 is the rail), what it
    is in a USB report, and the corner of its low pass in Hz (0 is none).
    """

    piece: str
    words: str
    supply_v: float = 0.0
    report: Literal["stick x", "stick y", "trigger", "level", ""] = ""
    filter_hz: float = 0.0


@dataclass(frozen=True)
class OnBus:
    """What a thing brings to the two-wire bus: its address (0 is none of its own) and its load in
    pF; the fastest clock that it asks for.
    """

    address: int
    load_pf: float
    khz: int = 400


@dataclass(frozen=True)
class Display:
    """How a thing is written to when it shows pictures, and what is wanted of it."""

    part: str
    bus: Literal["two-wire", "one-way serial", "parallel colour"]
    bus_khz: int
    serial_mhz: float
    colour_bits: int
    rate_hz: float | None
    rows: int | None
    columns: int | None


@dataclass(frozen=True)
class Feed:
    """What a source gives: volts empty, usual and fresh, and what is said of it; `direct` says that
    the rail is the source itself.
    """

    empty_v: float
    usual_v: float
    fresh_v: float
    words: str
    source: Source
    direct: bool = False
    limit_ma: float = 500.0


@dataclass(frozen=True)
class Supply:
    """What a source is before any converter: volts empty, usual and fresh, its kind of cell, what
    it holds (mAh, 0 is no store), inner resistance and the most that it can give for long.

    `stays` says that power is there for as long as its plug is in.
    """

    empty_v: float
    usual_v: float
    fresh_v: float
    chemistry: Literal["alkaline", "lithium", "coin", "outside"]
    in_series: int
    capacity_mah: float
    resistance_ohm: float
    most_ma: float
    source: Source

    @property
    def stays(self) -> bool:
        """Whether it is fed from outside and never runs empty."""
        return self.capacity_mah == 0


@dataclass(frozen=True)
class Duty:
    """The share of its highest current that a thing takes while it is played, while it waits and
    while it sleeps, and where that is from.
    """

    play: float = 1.0
    idle: float = 1.0
    sleep: float = 0.0
    origin: str = "taken as steady while on, off in sleep; assumed"


ALWAYS_ON = Duty(1.0, 1.0, 1.0, "as long as its rail is on: nothing else turns it off")
"""Of sensors and the like that have no pin and no command to sleep by."""


@dataclass(frozen=True)
class Fault:
    """Something that a thing's own fields do not make sense of together: the field, what is wrong,
    and the way out.
    """

    field: str
    problem: str
    way_out: str


KitGroup = Literal["power", "leads and cables", "mechanics", "sound and shows", "ports", "making"]


@dataclass(frozen=True)
class KitItem:
    """Something that a device needs and that is not on its boards: what to buy, without asking, how
    many, and what for.
    """

    group: KitGroup
    what: str
    count: int
    why: str


@dataclass(frozen=True)
class Joint:
    """One end of a link between boards: the word that both ends share; `plugged` ends are pushed
    into one another, others are joined by a cable.
    """

    word: str
    plugged: bool


@dataclass(frozen=True)
class Drilled:
    """An unplated hole in the board: its diameter, and how wide the area around it is that must
    stay free of copper and parts (mm).
    """

    d_mm: float
    head_mm: float


@dataclass(frozen=True)
class Opening:
    """An opening that is cut into the board about the middle of a thing: width, height and the
    radius of its inside corners (mm), or a line of its own within that size.
    """

    width_mm: float
    height_mm: float
    corner_mm: float
    line: PolygonOutline | None = None


@dataclass(frozen=True)
class Kept:
    """An area that is kept free about the middle of a thing: width and height (mm); `parts` keeps
    parts off its side that are higher than `up_to_mm` (0: all), `copper` keeps wiring and pour off
    both sides.
    """

    width_mm: float
    height_mm: float
    parts: bool
    copper: bool
    up_to_mm: float = 0.0


@dataclass(frozen=True)
class Printed:
    """Words that are printed on the legend about the middle of a thing: the text, and how high its
    letters are (mm).
    """

    text: str
    high_mm: float


@dataclass(frozen=True)
class Loose:
    """Something that lies in the shell and not on the board: its words, its width and length and
    its height (mm), the share of its height by which it may swell, and whether it is soft and burns
    when it is pierced.
    """

    words: str
    size_mm: Pair
    high_mm: float
    swells: float = 0.0
    soft: bool = False


@dataclass(frozen=True)
class Service:
    """What a thing is reached for, and whether that is needed while the shell is closed."""

    words: str
    closed: bool


@dataclass(frozen=True)
class Lack:
    """Something that usually stands beside a thing: a sentence, what to do, and the edit that adds
    it.
    """

    sentence: str
    way_out: str
    label: str = ""
    edit: Mapping[str, Any] | None = None


class Thing(Counted):
    """Anything on a board: a name of its own, its board, its place (Loquet finds one where there is
    none), its part.

    `rail` is what feeds it and `brain` what reads it: the first one of the device, unless said.
    `READY_MADE` marks a brain that is a module and not a bare chip; `LOWER_FEED` what makes a rail
    out of another one, which is never the first. `BRAIN_FIELDS` are the fields that name a brain;
    `DUTY` says how much it takes when, `DIMMED` that the firmware can hold it below its highest
    current, `SWITCHES` that it stands in the way of the first source, `ASKS_FIRST` that it asks the
    brain before it cuts the power, `HAS_FILES` that a brain runs from files, `GAUGES` that it tells
    a brain how full a cell is, `CORNER` that it is put into a corner where it has no place,
    `PASSES` that it switches a rail on, whose volts its own rail has, `PROGRAMS` that a brain gets
    its program through it, `ONLY_CHARGES` that it is of no use but to charge or to feed. `DRAWS`
    names parts of the catalogue whose current is its own beside those of its bodies, `LEAST_V` is
    the least that what hangs on its plug wants.
    """

    GROUP: ClassVar[Group]
    TITLE: ClassVar[str]
    WORD: ClassVar[str]
    MARK: ClassVar[str] = "box"
    EDGE: ClassVar[bool] = False
    FIXED: ClassVar[bool] = True
    LEFT_OUT_CENTS: ClassVar[float | None] = None
    CAUTION: ClassVar[str] = ""
    DRAWN_BY_BOARD: ClassVar[bool] = False
    BRAIN: ClassVar[bool] = False
    READY_MADE: ClassVar[bool] = False
    LOWER_FEED: ClassVar[bool] = False
    BRAIN_FIELDS: ClassVar[tuple[str, ...]] = ("brain",)
    DUTY: ClassVar[Duty] = Duty()
    DIMMED: ClassVar[bool] = False
    SWITCHES: ClassVar[bool] = False
    ASKS_FIRST: ClassVar[bool] = False
    HAS_FILES: ClassVar[bool] = False
    GAUGES: ClassVar[bool] = False
    CORNER: ClassVar[bool] = False
    PASSES: ClassVar[bool] = False
    PROGRAMS: ClassVar[bool] = False
    ONLY_CHARGES: ClassVar[bool] = False
    DRAWS: ClassVar[tuple[str, ...]] = ()
    LEAST_V: ClassVar[float] = 0.0

    kind: str
    name: Name
    board: Name = "main"
    place: Place | None = None
    part: PartId = ""
    rail: OtherName = ""
    brain: OtherName = ""

    def role(self, piece: str = "", word: str = "") -> str:
        """The text form of a piece of this thing: `button:red`, `pad:left pad:up`, `screen:clock`.

        A thing that has the plain name of its kind is not named twice. This is written here alone,
        and never taken apart again.
        """
        own = [] if self.name == self.WORD else [self.name]
        return ":".join([word or self.WORD, *own, *([piece] if piece else [])])

    @property
    def label(self) -> str:
        """Its name for a person: `button dome`, `left pad`, `screen`."""
        return self.name

    def bodies(self) -> tuple[Body, ...]:
        """The pieces that it puts on the board; nothing where it has none."""
        return ()

    def contacts(self) -> tuple[Contact, ...]:
        """Its keys."""
        return ()

    def axes(self) -> tuple[Axis, ...]:
        """Its analogue voltages."""
        return ()

    def read_by(self) -> tuple[str, ...]:
        """The brains that read it; nothing stands for the first one."""
        return tuple(str(getattr(self, field)) for field in self.BRAIN_FIELDS)

    def compared_with(self) -> str:
        """The drawing that its pins were compared with, where somebody did."""
        return ""

    def turns(self) -> bool:
        """Whether it turns without end."""
        return False

    def on_bus(self) -> OnBus | None:
        """What it brings to the two-wire bus."""
        return None

    def display(self) -> Display | None:
        """How it is written to, where it shows pictures."""
        return None

    def feed(self) -> Feed | None:
        """What it feeds the device with."""
        return None

    def source(self) -> Supply | None:
        """What it is as a source, before any converter."""
        return None

    def makes_rail(self) -> bool:
        """Whether there is a rail of its name."""
        return self.PASSES or self.feed() is not None

    def measured(self) -> bool:
        """Whether a brain measures it on a channel of its own."""
        return False

    def made_by(self) -> str:
        """The converter that a person chose between this source and its rail; `auto` leaves it to
        Loquet, nothing says that there is none.
        """
        return ""

    def programmed_apart(self) -> str:
        """Why a brain needs no port for its program on this board; nothing where it needs one."""
        return ""

    def logic_v(self) -> float:
        """The volts of a brain's lines where they are not those of the rail that it takes; 0 where
        they are.
        """
        return 0.0

    def faults(self) -> tuple[Fault, ...]:
        """What its own fields do not make sense of together."""
        return ()

    def kit(self) -> tuple[KitItem, ...]:
        """What it needs that is not on a board."""
        return ()

    def charging_ma(self) -> float:
        """The current with which it wants to be charged, in mA; 0 for what is not charged here."""
        return 0.0

    def limit_said(self) -> bool:
        """Whether it is known how much its source gives."""
        return True

    def loses_files(self) -> bool:
        """Whether files are lost when it is cut."""
        return self.HAS_FILES

    def five_volts(self) -> bool:
        """Whether it brings 5 V from outside, from which a cell can be charged."""
        return False

    def plug_v(self) -> float:
        """The highest volts at its plug, whether it feeds the device or not."""
        source = self.source()
        return source.fresh_v if source else 0.0

    def port_gives_ma(self) -> float:
        """What it gives at those 5 V at the most, in mA."""
        return 0.0

    def joint(self) -> Joint | None:
        """The link of which it is an end."""
        return None

    def drilled(self) -> Drilled | None:
        """The hole that it is, where it is one."""
        return None

    def opening(self) -> Opening | None:
        """What it cuts out of the board."""
        return None

    def keeps(self) -> Kept | None:
        """The area that it keeps free."""
        return None

    def printed(self) -> Printed | None:
        """The words that it is on the legend, where it is any."""
        return None

    def loose(self) -> Loose | None:
        """What of it lies in the shell and not on the board."""
        return None

    def service(self) -> Service | None:
        """What it is reached for, once the device is built."""
        return None

    def lacks(self, kinds: frozenset[str]) -> tuple[Lack, ...]:
        """What usually stands beside it and is not among the kinds of this device."""
        return ()

    def current_ma(self) -> float:
        """What it draws at the most, in mA, where its part does not say."""
        return 0.0


FilterHz = Annotated[
    float, Field(ge=0, le=5000, description="corner of a low pass for each voltage; 0 fits none")
]


class Worked(Thing):
    """A thing that a finger works."""

    digit: Digit = "auto"


class NoPart(Thing):
    """A thing that is no part: a hole, a mark."""

    part: Annotated[str, Field(max_length=0)] = ""

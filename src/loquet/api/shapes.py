"""What the front end is told, station by station."""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from loquet.core.brief import Brief
from loquet.core.brief.reach import ReachArc
from loquet.core.design import Choices
from loquet.core.ordering.house import House
from loquet.core.provenance import Finding, Working
from loquet.core.redoing.tries import Try

StationState = Literal["empty", "working", "stale", "stop", "look", "clear"]


class ProjectCard(BaseModel):
    """A project in the workshop."""

    id: int
    name: str
    purpose: str
    revision: str
    controls: int
    chip: str
    width_mm: float
    height_mm: float
    quantity: int
    wanted_by: str
    stops: int
    todo: Annotated[int, Field(description="stages that are not made of the present state")]
    next_station: str
    next: Annotated[str, Field(description="where it stands, as the line of the project says it")]
    version: int
    pictured: Annotated[bool, Field(description="whether there is a board to make a picture of")]
    jobs: list["JobCard"]
    demo: bool
    kept: Literal["shelf", "archive", "removed"]
    changed: datetime
    readable: bool = True


class StationCard(BaseModel):
    """A station in the rail."""

    name: str
    state: StationState
    stops: int
    looks: int


class JobCard(BaseModel):
    """A job, running or ended."""

    id: int
    kind: str
    state: str
    doing: str
    share: float
    message: str
    pictures: Annotated[int, Field(description="how often the job has told what it laid")] = 0


class Laid(BaseModel):
    """Tracks as (far side?, from x, y, to x, y, width) and vias as (x, y) of a board, in mm."""

    board: str
    tracks: list[tuple[int, float, float, float, float, float]]
    vias: list[tuple[float, float]]


class LaidOut(Laid):
    """A board with its parts as (far side?, left, bottom, right, top) in mm."""

    parts: list[tuple[int, float, float, float, float]]


class TryCard(BaseModel):
    """An arrangement of a board that was tried: what came of it, what it looks like, and whether
    the board has it now.
    """

    figures: Try
    picture: LaidOut
    taken: bool


class BodyView(BaseModel):
    """A piece of a thing as it is drawn: its middle, size and courtyard in mm, its turn in degrees
    anticlockwise.
    """

    x_mm: float
    y_mm: float
    w_mm: float
    h_mm: float
    yard_w_mm: float
    yard_h_mm: float
    turn_deg: int


class DrawnThing(BaseModel):
    """A thing in the picture, of whatever kind: its place, its pieces, what it asks of its brain,
    which parts it could be.

    `placed` is false where nobody has given it a place; it is then drawn beside its board, or where
    Loquet has put it.
    """

    name: str
    label: str
    kind: str
    title: str
    group: str
    mark: str
    board: str
    far: bool
    edge: bool
    placed: bool
    x_mm: float
    y_mm: float
    turn_deg: int
    bodies: list[BodyView]
    cover_mm: tuple[float, float, float, float] | None
    asks: list[str]
    draws_ma: float
    parts: list[str]
    fed: Literal["", "source", "from a rail", "by a rail"]


class OutlineSide(BaseModel):
    """A side of an outline: where it begins, its length along itself, how far it rises from its
    chord (outwards positive), all in mm.
    """

    x_mm: float
    y_mm: float
    length_mm: float
    rise_mm: float


class BoardOutline(BaseModel):
    """A board with its outline in mm, and its folder in the package of a device with several."""

    name: str
    folder: str
    outline_mm: list[tuple[float, float]]
    openings_mm: list[list[tuple[float, float]]]
    sides: list[OutlineSide]


class KeyView(BaseModel):
    """A key of the device, for chords and schemes, and the thing that it belongs to."""

    id: str
    thing: str
    title: str
    digit: str


class NextStep(BaseModel):
    """Where the design stands in one line, and the one thing to do next: a job to start, or a
    station to go to.
    """

    sentence: str
    action: str
    job: str
    station: str


class RailChoice(BaseModel):
    """A rail that a thing may take: its name, and its volts with what they come from."""

    name: str
    words: str


class DesignHead(BaseModel):
    """A project as it stands: brief, choices, findings, stations, history."""

    project: int
    name: str
    revision: str
    version: int
    label: str
    can_undo: bool
    can_redo: bool
    undo_label: str
    stops: int
    todo: Annotated[int, Field(description="stages that are not made of the present state")]
    brief: Brief
    choices: Choices
    boards: list[BoardOutline]
    rails: list[RailChoice]
    brains: list[str]
    things: list[DrawnThing]
    keys: list[KeyView]
    reach: list[ReachArc]
    reach_source: str
    stations: list[StationCard]
    findings: list[Finding]
    tally: list[Working]
    stale: list[str]
    next: NextStep
    jobs: list[JobCard]


class ChipPinView(BaseModel):
    """A chip pin: where it lies about the chip's middle as it will sit, what it carries and what
    else it could.
    """

    number: str
    name: str
    kind: str
    x_mm: float
    y_mm: float
    signal: str
    title: str
    function: str
    locked: bool
    could: list[str]


class Carried(BaseModel):
    """A signal with its pin, how its link is drawn, and where it goes, seen from the chip's
    middle.
    """

    signal: str
    title: str
    line: str
    toward_mm: tuple[float, float] | None
    pin: str
    port: str
    function: str
    locked: bool
    pins: list[str]


class PinsView(BaseModel):
    """The Pins station."""

    brain: str
    brains: list[str]
    chip: str
    package: str
    pins: list[ChipPinView]
    signals: list[Carried]
    proven: bool
    solved: bool
    free: int
    reserved: int
    crossings: int
    budget: list[Working]
    short_of: list[str]
    placed: bool
    workings: list[Working]
    data_source: str


class ReleaseFile(BaseModel):
    """A file of the package."""

    path: str
    bytes: int
    sha256: str


class ReleaseView(BaseModel):
    """The newest release; `current` where it was made from the design as it stands."""

    id: int
    current: bool
    proof: list[Working]
    files: list[ReleaseFile]


class LayerView(BaseModel):
    """A layer read back from its bytes, in mm: boxes and discs, strokes, filled rings in order."""

    file: str
    function: str
    flashes: list[tuple[str, float, float, float, float, float]]
    strokes: list[tuple[float, float, float, float, float]]
    arcs: list[tuple[float, float, float, float, float, float]]
    regions: list[tuple[bool, list[tuple[float, float]]]]


class QuoteView(BaseModel):
    """What a house asks: a simulated one, or one of one's own, then as it is kept on the shelf."""

    house: str
    house_name: str
    simulated: bool
    within_cents: float
    own: House | None
    changed: bool
    about: str
    quantity: int
    lines: list[Working]
    total: Working
    each: Working
    ready_on: str
    arrives_on: str
    in_time: bool
    next_break: tuple[int, float] | None
    cheaper: tuple[int, int] | None
    complaints: list[str]
    finishes: list[str]
    colours: list[str]
    thickness_um: list[int]
    copper_um: list[int]
    shipping: list[str]


class OrderView(BaseModel):
    """An order: `simulated` ones go on by simulated days, others are noted and sent by hand."""

    id: int
    revision: str = ""
    kind: str
    asks: bool
    answer: str
    release: int
    house_name: str
    quantity: int
    total: Working
    state: str
    sentence: str
    day: int
    date: str
    states: list[str]
    simulated: bool = True


class ChipRow(BaseModel):
    """A chip in the search."""

    name: str
    family: str
    package: str
    ports: int
    analogue: int
    soldering: str
    price: Working
    pieces: int
    supplier: str
    covered: bool
    fits: bool


class FieldView(BaseModel):
    """A field of a kind, as the one form shows it; `when` names other fields with the values with
    which it means something.
    """

    name: str
    title: str
    what: Literal["choice", "number", "whole", "yes or no", "text", "part"]
    choices: list[str]
    numbers: bool
    low: float | None
    high: float | None
    unit: str
    empty: bool
    help: str
    when: dict[str, list[str]]


class KindView(BaseModel):
    """A kind of thing, as tray and form show it."""

    kind: str
    title: str
    group: str
    mark: str
    about: str
    word: str
    edge: bool
    usual: dict[str, Any]
    fields: list[FieldView]

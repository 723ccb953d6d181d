"""The document: the brief, what a person chose, and the slices made from them, each under its name
and subject.
"""

from collections.abc import Mapping
from typing import Annotated, Any, Generic, Literal, TypeVar

from pydantic import Field, model_validator

from loquet.core.board import Placement, Pour, PourChoice, Routing, Wires
from loquet.core.brief import Brief
from loquet.core.brief.making import moved, of_before
from loquet.core.brief.own_checks import OwnCheck
from loquet.core.brief.panel_choice import PanelChoice
from loquet.core.brief.places import Degrees
from loquet.core.brief.stack_choices import StackChoices
from loquet.core.circuit import Circuit
from loquet.core.circuit.by_hand import HandChange
from loquet.core.ordering.house import House
from loquet.core.parts import Part
from loquet.core.parts.mating import Half
from loquet.core.pins import PinPlan
from loquet.core.plain.frozen import Frozen

SliceName = Literal["pins", "circuit", "placement", "routing", "pour"]
SLICES: tuple[SliceName, ...] = ("pins", "circuit", "placement", "routing", "pour")
DEVICE = "device"
T = TypeVar("T")


class Made(Frozen, Generic[T]):
    """A derived slice, with the digest of the inputs it was made from."""

    made_from: str
    value: T


class PartSeat(Frozen):
    """A part that a person put somewhere (mm, whole degrees, near side unless `far`)."""

    role: str
    x_mm: float
    y_mm: float
    turn_deg: Degrees = 0
    far: bool = False


class Confirmed(Frozen):
    """How somebody made sure of a part's pins: read from its drawing, or measured; the drawing with
    page and date, or who measured when.
    """

    how: Literal["drawing", "measured"]
    words: str


class Bought(Frozen):
    """What was really bought for a line: the maker's part as its bag says, from whom, whether it
    takes the place of what was asked for, how many lie there after they were tried (0 says
    nothing).
    """

    maker_part: Annotated[str, Field(min_length=1, max_length=60)]
    supplier: Annotated[str, Field(max_length=60)] = ""
    substitute: bool = False
    pieces: Annotated[int, Field(ge=0, le=1_000_000)] = 0


MOST_ARRANGEMENTS = 8
Arrangement = Annotated[int, Field(ge=1, le=MOST_ARRANGEMENTS)]


class Choices(Frozen):
    """Everything a person decided after the brief; running a stage again never loses any of it.

    `confirmed` says of parts, by their ids, how their pins were made sure of. `by_hand` is what was
    changed in the circuit beside its recipes. `bought` says of lines to buy, by their words, what
    lies in the drawer now. `own_house` is the house of one's own that was chosen, as it was then.
    `shelf` are parts of one's own that this project took, by their ids, as
    they were then; `preferred` says of kinds of parts which one is taken. `halves` says of
    connectors, by role, what somebody has for their other end. `kit` says of things to buy, by
    their words, where they stand. `pin_orders` are orders of pins by part, pad by pad, that
    somebody measured and that differ from the catalogue's. `wires` are what was drawn or kept on
    each board, `pours` what is to be poured there beside ground, `arrangements` say which of
    several tries at placing each board takes, where it is not the first. `stack` says how the
    device is held together, `panel` says whether boards are made several on a plate, `own_checks`
    what must never go wrong again. `pin_targets` are places (nm) of signals as they were placed,
    taken over so that the pins are solved again for them.
    """

    pin_locks: dict[str, str] = {}
    pin_targets: dict[str, tuple[int, int]] = {}
    part_seats: dict[str, PartSeat] = {}
    house: str = "millrace"
    own_house: House | None = None
    shipping: str = "parcel"
    kit: dict[str, Literal["bought", "in the drawer"]] = {}
    confirmed: dict[str, Confirmed] = {}
    by_hand: tuple[HandChange, ...] = ()
    halves: dict[str, Half] = {}
    pin_orders: dict[str, dict[str, str]] = {}
    shelf: dict[str, Part] = {}
    preferred: dict[str, str] = {}
    bought: dict[str, Bought] = {}
    wires: dict[str, Wires] = {}
    pours: dict[str, PourChoice] = {}
    arrangements: dict[str, Arrangement] = {}
    stack: StackChoices = StackChoices()
    panel: PanelChoice | None = None
    own_checks: tuple[OwnCheck, ...] = ()


class Design(Frozen):
    """A whole design at one moment.

    Pins are kept by brain, the circuit for the whole device, and placement, routing and pour by
    board.
    """

    brief: Brief
    choices: Choices = Choices()
    pins: dict[str, Made[PinPlan]] = {}
    circuit: dict[str, Made[Circuit]] = {}
    placement: dict[str, Made[Placement]] = {}
    routing: dict[str, Made[Routing]] = {}
    pour: dict[str, Made[Pour]] = {}

    @model_validator(mode="before")
    @classmethod
    def as_now(cls, data: Any) -> Any:
        """A design that was written before with how its boards are made among the choices."""
        choices = data.get("choices") if isinstance(data, dict) else None
        if not isinstance(choices, dict) or "brief" not in data or not of_before(choices):
            return data
        given = data["brief"]
        brief = given if isinstance(given, dict) else given.model_dump(mode="json")
        return {**data, **dict(zip(("brief", "choices"), moved(brief, choices), strict=True))}

    def with_made(self, name: SliceName, subject: str, made: Made[Any]) -> "Design":
        """The design with one slice kept."""
        return self.model_copy(update={name: {**getattr(self, name), subject: made}})

    def arrangement(self, board: str) -> int:
        """Which of several arrangements of its parts a board takes, from 1."""
        return self.choices.arrangements.get(board, 1)

    def with_arrangement(self, board: str, number: int) -> "Design":
        """The design with another arrangement of a board wanted; nothing is noted for the first."""
        wanted = {b: n for b, n in self.choices.arrangements.items() if b != board}
        if number > 1:
            wanted[board] = number
        choices = self.choices.model_copy(update={"arrangements": wanted})
        return self.model_copy(update={"choices": choices})


def subjects_of(brief: Brief, name: SliceName) -> tuple[str, ...]:
    """What a slice is made for: each brain, the device, or each board."""
    match name:
        case "pins":
            return tuple(brain.name for brain in brief.brains)
        case "circuit":
            return (DEVICE,)
        case _:
            return tuple(board.name for board in brief.boards)


def plans_of(design: Design) -> dict[str, PinPlan]:
    """The pin plan of every brain by its name."""
    return {name: made.value for name, made in design.pins.items()}


def slice_of(made: Mapping[str, Made[T]], subject: str = "") -> T:
    """The value of a slice that has been made: of a subject, or of the first one."""
    found = made.get(subject) if subject else next(iter(made.values()), None)
    if found is None:
        raise AssertionError("a slice was asked for before it was made")
    return found.value

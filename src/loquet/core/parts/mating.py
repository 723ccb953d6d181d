"""What a connector mates with: its family in our own words, pitch, ways, gender, key, side of contact, latch, and how often it may be opened."""

from typing import Annotated, Literal

from pydantic import Field

from loquet.core.frozen import Frozen
from loquet.core.parts.part import Drawn, Part, Rows

Gender = Literal["pins", "sockets", "contacts", "cable end"]
Side = Literal["", "top", "bottom"]
OPPOSITE: dict[Gender, Gender] = {
    "pins": "sockets",
    "sockets": "pins",
    "contacts": "cable end",
    "cable end": "contacts",
}


class End(Frozen):
    """A connector as it mates; `pitch_mm` 0 is a shape of its own. `cycles` is how often it may be opened, `source` where that stands."""

    family: str
    pitch_mm: float
    ways: int
    gender: Gender
    keyed: bool
    latch: bool
    contact: Side
    cycles: int
    source: str

    @property
    def other_half(self) -> str:
        """What must be bought to be put on it, in words."""
        pitch = f" at {self.pitch_mm:g} mm" if self.pitch_mm else ""
        ways = f", {self.ways} ways" if self.pitch_mm else ""
        side = f", contacts to the {self.contact}" if self.contact else ""
        key = ", keyed" if self.keyed else ""
        return f"{self.family}{pitch}{ways}, {OPPOSITE[self.gender]}{side}{key}"


class Half(Frozen):
    """What somebody has for the other end: typed from its drawing or measured. `turned` says that its way 1 lies where the connector has its last way; `opened` how often it will be opened in its life."""

    family: Annotated[str, Field(min_length=2, max_length=30)]
    pitch_mm: Annotated[float, Field(ge=0, le=10)]
    ways: Annotated[int, Field(ge=1, le=80)]
    gender: Gender
    contact: Side = ""
    turned: bool = False
    opened: Annotated[int, Field(ge=0, le=100_000)] = 0


# kind of part: whether it has a pitch, its gender, key, latch, cycles, and where the cycles stand
FAMILIES: dict[str, tuple[str, bool, Gender, bool, bool, int, str]] = {
    "post row": ("square posts", True, "pins", False, False, 100, "common practice, no source"),
    "post rows": (
        "square posts in two rows",
        True,
        "pins",
        False,
        False,
        100,
        "common practice, no source",
    ),
    "header": ("square posts", True, "pins", False, False, 100, "common practice, no source"),
    "wire plug": ("plug for wires", True, "pins", True, True, 30, "usual rating, from memory"),
    "flat-cable connector": (
        "flat cable",
        True,
        "contacts",
        False,
        True,
        20,
        "usual rating, from memory",
    ),
    "USB-C socket": (
        "USB-C",
        False,
        "sockets",
        False,
        False,
        10_000,
        "USB Type-C 3.8.1.3: 10 000 cycles, from memory",
    ),
    "USB socket": (
        "USB-A",
        False,
        "sockets",
        True,
        False,
        1_500,
        "USB 2.0 6.7: 1500 cycles, from memory",
    ),
    "barrel jack": (
        "barrel 5.5 / 2.1",
        False,
        "sockets",
        False,
        False,
        5_000,
        "usual rating, from memory",
    ),
    "headphone socket": (
        "headphones 3.5",
        False,
        "sockets",
        False,
        False,
        5_000,
        "usual rating, from memory",
    ),
    "card socket": (
        "small memory card",
        False,
        "contacts",
        True,
        True,
        10_000,
        "SD physical layer: 10 000 cycles, from memory",
    ),
    "stick port": ("nine-way D", False, "pins", True, False, 500, "usual rating, from memory"),
    "edge contacts": ("board edge", True, "contacts", False, False, 25, "thin gold, from memory"),
}


def end_of(part: Part) -> End | None:
    """How a part mates; nothing for one that is no connector, or into which bare wires go."""
    row = FAMILIES.get(part.kind)
    if row is None:
        return None
    family, pitched, gender, keyed, latch, cycles, source = row
    return End(
        family=family,
        pitch_mm=pitch_of(part) if pitched else 0.0,
        ways=ways_of(part),
        gender=gender,
        keyed=keyed,
        latch=latch,
        contact="top"
        if part.id.endswith("-top")
        else "bottom"
        if part.id.endswith("-bottom")
        else "",
        cycles=cycles,
        source=source,
    )


def ways_of(part: Part) -> int:
    """How many ways a connector has, without what holds it down."""
    if isinstance(part.body, Rows):
        return part.body.pins
    pads = part.body.pads if isinstance(part.body, Drawn) else ()
    if part.kind in ("flat-cable connector", "wire plug") and pads:
        first = next(pad for pad in pads if pad.number == "1")
        return sum((p.w_mm, p.h_mm) == (first.w_mm, first.h_mm) for p in pads)
    return len({pad.number for pad in pads})


def pitch_of(part: Part) -> float:
    """The distance of its first two ways in a row, in mm."""
    pads = {pad.number: pad for pad in part.body.pads} if isinstance(part.body, Drawn) else {}
    one = pads.get("1")
    gaps = [abs(pads[n].x_mm - one.x_mm) for n in ("2", "3") if one and n in pads]
    return round(min((gap for gap in gaps if gap > 0.01), default=0.0), 3)


def faults_between(end: End, half: Half) -> list[str]:
    """Why a half does not mate with a connector, a sentence a reason; nothing where they mate way for way."""
    found = []
    if half.family != end.family:
        found.append(f"{half.family} and {end.family} are two families, whatever their pitch")
    if end.pitch_mm and half.pitch_mm != end.pitch_mm:
        found.append(f"its pitch is {half.pitch_mm:g} mm, and the connector's {end.pitch_mm:g} mm")
    if end.pitch_mm and half.ways != end.ways:
        found.append(f"it has {half.ways} ways, and the connector {end.ways}")
    if half.gender != OPPOSITE[end.gender]:
        found.append(f"it has {half.gender} where {OPPOSITE[end.gender]} are needed")
    if end.contact and half.contact != end.contact:
        faces = (
            f"its contacts face the {half.contact}"
            if half.contact
            else "nobody knows which side its contacts face"
        )
        found.append(f"{faces}, and the connector touches the {end.contact}")
    if half.turned:
        found.append(f"its way 1 meets way {end.ways}: plus and minus, or all lines, change places")
    return found

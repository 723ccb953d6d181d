"""What a connector mates with: its family in our own words, pitch, ways, gender, key, side of
contact, latch, and how often it may be opened.
"""

from typing import Annotated

from pydantic import Field

from loquet.core.parts.in_use import Gender, Mates, Side
from loquet.core.parts.part import Drawn, Part, Rows
from loquet.core.plain.frozen import Frozen

OPPOSITE: dict[Gender, Gender] = {
    "pins": "sockets",
    "sockets": "pins",
    "contacts": "cable end",
    "cable end": "contacts",
}


class End(Frozen):
    """A connector as it mates; `pitch_mm` 0 is a shape of its own.

    `cycles` is how often it may be opened, `source` where that stands.
    """

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
    """What somebody has for the other end: typed from its drawing or measured.

    `turned` says that its way 1 lies where the connector has its last way; `opened` how often it
    will be opened in its life.
    """

    family: Annotated[str, Field(min_length=2, max_length=30)]
    pitch_mm: Annotated[float, Field(ge=0, le=10)]
    ways: Annotated[int, Field(ge=1, le=80)]
    gender: Gender
    contact: Side = ""
    turned: bool = False
    opened: Annotated[int, Field(ge=0, le=100_000)] = 0


def end_of(part: Part, mates: Mates | None) -> End | None:
    """How a part mates; nothing for one that is no connector, or into which bare wires go."""
    if mates is None:
        return None
    return End(
        family=mates.family,
        pitch_mm=0.0 if mates.shape else pitch_of(part),
        ways=ways_of(part),
        gender=mates.gender,
        keyed=mates.keyed,
        latch=mates.latch,
        contact=part.contact,
        cycles=mates.cycles,
        source=mates.source,
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
    """Why a half does not mate with a connector, a sentence a reason; nothing where they mate way
    for way.
    """
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

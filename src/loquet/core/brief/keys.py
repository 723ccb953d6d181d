"""The keys of a device: everything that is open or closed, in the one order that plan, header,
report and button test share.
"""

from dataclasses import dataclass

from loquet.core.brief.model import Brief
from loquet.core.brief.outlines import outline_polygon_mm
from loquet.core.brief.seats import seat_of_thing
from loquet.core.brief.thing import Contact, Thing


@dataclass(frozen=True)
class Key:
    """A key: its id, words, its thing, the role of the part that carries it, its place (nm) and who
    works it.
    """

    id: str
    title: str
    thing: str
    role: str
    x: int
    y: int
    digit: str
    pad: str = ""
    direction: str = ""
    duty: str = "play"
    sends: int | None = None


def keys_of(brief: Brief) -> tuple[Key, ...]:
    """All keys in the order of the brief; a power button is one of them, encoder turns are not."""
    return tuple(key for thing in brief.things for key in keys_of_thing(brief, thing))


def keys_of_thing(brief: Brief, thing: Thing) -> tuple[Key, ...]:
    """The keys that one thing carries."""
    return tuple(key_of(brief, thing, contact) for contact in thing.contacts())


def key_of(brief: Brief, thing: Thing, contact: Contact) -> Key:
    """A contact of a thing as a key of the device."""
    x, y = seat_of_thing(brief, thing).point(contact.dx, contact.dy)
    return Key(
        id=thing.role(contact.piece),
        title=contact.words,
        thing=thing.name,
        role=thing.role(contact.body),
        x=x,
        y=y,
        digit=digit_of(brief, thing),
        pad=thing.name if contact.way else "",
        direction=contact.way,
        duty=contact.duty,
        sends=contact.sends,
    )


def digit_of(brief: Brief, thing: Thing) -> str:
    """Who works a thing: as the brief says, else the thumb of its side."""
    said = str(getattr(thing, "digit", "auto"))
    if said != "auto":
        return said
    left = seat_of_thing(brief, thing).x / 1e6 < middle_of_outline(brief, thing.board)
    return "left thumb" if left else "right thumb"


def middle_of_outline(brief: Brief, board: str = "") -> float:
    """The line between left and right hand, in mm."""
    left, _, right, _ = outline_polygon_mm(brief.board(board).outline).bounds
    return float(left + right) / 2

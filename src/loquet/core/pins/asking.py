"""What a need's function is given: the brief, the thing, and where pieces of it lie."""

from dataclasses import dataclass, field

from loquet.core.brief import Brief, Thing, plain_name
from loquet.core.brief.linked import aim
from loquet.core.brief.seats import seat_of_thing
from loquet.core.geometry import Seat
from loquet.core.pins.model import Load, Need, NeedKind
from loquet.core.quantities.lengths import nm_from_mm

HEADER_PITCH_MM = 2.54
Place = tuple[int, int]


def net_of(signal: str) -> str:
    """`button:all dark` as `BUTTON_ALL_DARK`."""
    return plain_name(signal)


@dataclass(frozen=True)
class Asking:
    """A thing that asks its brain for signals."""

    brief: Brief
    thing: Thing
    seat: Seat | None = field(init=False)

    def __post_init__(self) -> None:
        """Where the thing lies, where that is known."""
        placed = seat_of_thing(self.brief, self.thing) if self.thing.place else None
        object.__setattr__(self, "seat", placed)

    @property
    def middle(self) -> Place | None:
        """The middle of the thing, as the brain's board sees it."""
        return self.seen((self.seat.x, self.seat.y)) if self.seat else None

    def seen(self, at: Place) -> Place | None:
        """A point of the thing, or the end of the link that leads to it where the thing is on
        another board than its brain.
        """
        brain = self.brief.brain
        return aim(self.brief, brain.board, self.thing, at) if brain else at

    def way(self, ways: int, index: int) -> Place | None:
        """The place of one post of a header of so many ways, counted from 0."""
        if self.seat is None:
            return None
        along = round((index - (ways - 1) / 2) * nm_from_mm(HEADER_PITCH_MM))
        return self.seen(self.seat.point(along, 0))

    def need(
        self, piece: str, kind: NeedKind, title: str, at: Place | None = None, **more: object
    ) -> Need:
        """A signal of a piece of this thing; at its middle unless said."""
        signal = self.thing.role(piece)
        found = Need(signal, kind, net_of(signal), title, at or self.middle, thing=self.thing.name)
        return found.but(**more) if more else found

    def lines(self, count: int, kind: NeedKind = "input", words: str = "line") -> list[Need]:
        """Plain lines, numbered from 1."""
        return [
            self.need(str(i + 1), kind, f"{self.thing.name} {words} {i + 1}") for i in range(count)
        ]


__all__ = ["Asking", "Load", "Place", "net_of"]

"""A strand: a wire that leaves a pin or a flag and carries, one after the other, what hangs on it
and what it goes through, up to its end.
"""

from collections import Counter
from dataclasses import dataclass, field

from loquet.core.sheets.drawn import SMALL, Mark, Pen, Point, Turn, text_width
from loquet.core.sheets.faces import Face, Nets
from loquet.core.sheets.symbols import LENGTH, SYMBOLS

HANG, RAIL_HANG = 3, 6
LONGEST = 5
CLEAR = 1.0
FINE = 0.5
LONG_VALUE = 14
TALL = {"light": 1.75, "button": 1.55}


@dataclass
class Pool:
    """Two-ended and one-ended parts of a block that no strand carries yet, and the nets of the
    whole circuit.
    """

    faces: list[Face]
    nets: Nets
    taken: set[str] = field(default_factory=set)

    def at(self, net: str) -> list[Face]:
        """Parts on a net that are not taken."""
        free = [f for f in self.faces if f.ref not in self.taken]
        return [f for f in free if net in {row.net for row in f.ends or f.rows}]

    def other(self, face: Face, net: str) -> str:
        """The net at the other end of a part."""
        first, second = face.ends or (face.rows[0], face.rows[0])
        return second.net if first.net == net else first.net

    def take(self, face: Face) -> Face:
        """A part that a strand carries from now on."""
        self.taken.add(face.ref)
        return face

    def hangs(self, face: Face, net: str) -> bool:
        """Whether a part goes from a net to ground, up to a rail, or ends there."""
        if not face.ends:
            return True
        other = self.other(face, net)
        return other in self.nets.ground or (
            other in self.nets.supply and net not in self.nets.supply
        )

    def hanging(self, net: str) -> list[Face]:
        """What hangs on a net, as many as one strand carries."""
        most = RAIL_HANG if net in self.nets.supply else HANG
        found = [f for f in self.at(net) if self.hangs(f, net)]
        return [self.take(f) for f in found[:most]]

    def through(self, net: str) -> Face | None:
        """The one part that leads on from a net; none where there are several."""
        found = [f for f in self.at(net) if not self.hangs(f, net)]
        return found[0] if len(found) == 1 else None

    def before(self, face: Face, net: str) -> tuple[Face, str]:
        """Where a chain of parts begins that comes to a part at a net: the first part, and the net
        before it.
        """
        for _ in range(LONGEST):
            others = [f for f in self.at(net) if f.ref != face.ref and not self.hangs(f, net)]
            if self.nets.rail(net) or self.nets.pads.get(net, 0) != 2 or len(others) != 1:
                break
            face, net = others[0], self.other(others[0], net)
        return face, net


def label_of(face: Face) -> str:
    """Reference and value of a part."""
    value = face.component.value
    return face.ref if len(value) > LONG_VALUE or not value else f"{face.ref} {value}"


class Strand:
    """Draws one strand from 0, 0 to the right (`ahead` 1) or to the left (-1)."""

    def __init__(self, pool: Pool, ahead: int = 1) -> None:
        self.pen, self.pool, self.ahead = Pen(), pool, ahead
        self.x = 0.0
        self.room = 0.0
        self.began = ""
        self.shown: Counter[str] = Counter()

    def wire(self, units: float, net: str) -> None:
        """Go on by so many units, and by the room that words before them want."""
        units, self.room = units + self.room, 0.0
        self.pen.line((self.x, 0), (self.x + self.ahead * units, 0), net=net)
        self.x += self.ahead * units

    def from_pin(self, net: str, pads: int) -> "Strand":
        """A strand that begins at so many pads of a box; a rail ends at once."""
        self.shown[net] += pads
        self.follow(net, holds=net not in self.pool.nets.supply)
        return self

    def from_part(self, face: Face) -> "Strand":
        """A strand that begins with the name of a net, and carries a part in any case."""
        nets = self.pool.nets
        if not face.ends:
            net = face.rows[0].net
            self.begin(net)
            self.wire(CLEAR, net)
            self.one_end(self.pool.take(face), net)
            return self
        ends = sorted(
            (row.net for row in face.ends),
            key=lambda net: (net in nets.ground, net not in nets.supply, -nets.pads.get(net, 0)),
        )
        face, net = self.pool.before(face, ends[0])
        self.began = net
        self.begin(net)
        leads_on = not self.pool.hangs(face, net) or net not in nets.supply
        self.follow(net, self.pool.take(face) if leads_on else None)
        return self

    def follow(self, net: str, first: Face | None = None, holds: bool = True) -> None:
        """From a net to the end of its strand; `first` is a part that it goes through in any
        case.
        """
        carried = 0
        while net not in self.pool.nets.ground:
            hung = self.pool.hanging(net) if holds else []
            for face in hung:
                self.hang(face, net)
            carried += len(hung)
            ahead = first
            if ahead is None and holds and carried < LONGEST:
                ahead = self.pool.through(net)
            if ahead is None:
                break
            net, first, holds = self.go_through(self.pool.take(ahead), net), None, True
            carried += 1
        self.end(net)

    def hang(self, face: Face, net: str) -> None:
        """A part from the wire to ground, or up to a rail, or at its own end."""
        other = self.pool.other(face, net) if face.ends else ""
        named = text_width(other) / 2 + 0.3 if other in self.pool.nets.supply else 0.0
        words = [face.ref, face.component.value, face.near]
        words = [w for w in words if w and len(w) <= LONG_VALUE]
        beside = max(max(map(text_width, words)) + 2.3, named)
        self.wire(max(CLEAR, named if self.ahead > 0 else beside), net)
        at = (self.x, 0.0)
        self.pen.marks.append(joint(at, net))
        if not face.ends:
            self.one_end(face, net)
            self.room = text_width(face.ref) / 2
            return
        down = 1.0 if other in self.pool.nets.ground else -1.0
        self.pen.line(at, (self.x, down * 0.4), net=net)
        back = face.ends[0].net != net
        self.symbol(face, Turn((self.x, down * 0.4), (0.0, down), back))
        self.stop_at((self.x, down * (LENGTH + 0.4)), other, (0.0, down))
        x, y = self.x + (1.7 if face.symbol == "light" else 1.1), down * (LENGTH / 2 + 0.4) - 0.1
        for index, text in enumerate(words):
            self.pen.words((x, y + 1.1 * index), text, ref=face.ref, quiet=text == face.near)
        self.room = max(0.0, (beside if self.ahead > 0 else named) - CLEAR)

    def one_end(self, face: Face, net: str) -> None:
        """A test point, an electrode: a ring below the wire."""
        self.pen.line((self.x, 0), (self.x, 0.8), net=net)
        ring = [(self.x - 0.4, 1.2), (self.x, 0.8), (self.x + 0.4, 1.2), (self.x, 1.6)]
        self.pen.line(*ring, ring[0], ref=face.ref)
        self.pen.words((self.x, 2.7), face.ref, "middle", ref=face.ref)
        pads = [(face.ref, pad) for row in face.rows for pad in row.pads]
        self.pen.pads += pads
        self.shown[net] += len(pads)

    def go_through(self, face: Face, net: str) -> str:
        """A part in the wire; gives the net behind it.

        A net that goes on elsewhere too has its name before the part.
        """
        ends = face.ends or (face.rows[0], face.rows[0])
        label = label_of(face)
        spare = max(0.6, (text_width(label) - LENGTH) / 2 + 0.4)
        here = sum(len(row.pads) for row in ends if row.net == net)
        if (
            net != self.began
            and self.shown[net]
            and self.pool.nets.pads.get(net, 0) > self.shown[net] + here
        ):
            self.name_on_wire(net)
        self.wire(spare, net)
        turn = Turn((self.x, 0.0), (float(self.ahead), 0.0), back=ends[0].net != net)
        self.symbol(face, turn)
        middle = self.x + self.ahead * LENGTH / 2
        self.pen.words((middle, -TALL.get(face.symbol, 1.15)), label, "middle", ref=face.ref)
        self.x += self.ahead * LENGTH
        behind = self.pool.other(face, net)
        self.wire(spare, behind)
        return behind

    def symbol(self, face: Face, turn: Turn) -> None:
        """The symbol of a part, and what hangs on its body."""
        SYMBOLS[face.symbol](self.pen, turn, face.ref)
        for row in face.ends or ():
            self.pen.pads += [(face.ref, pad) for pad in row.pads]
            self.shown[row.net] += len(row.pads)
        for row in face.beside:
            self.pen.pads += [(face.ref, pad) for pad in row.pads]
            words = f"{row.name} to {'ground' if row.net in self.pool.nets.ground else row.net}"
            self.pen.words(turn(LENGTH / 2, 1.8), words, "middle", size=SMALL, net=row.net)

    def stop_at(self, tip: Point, net: str, along: Point) -> None:
        """The end of a wire at ground (a thick bar) or at a rail (a thin one with its name), across
        its direction.
        """
        (x, y), (dx, dy) = tip, along
        ground = net in self.pool.nets.ground
        half = 0.7 if ground else 0.5
        end = (x + dx * FINE, y + dy * FINE)
        bar = ((end[0] - dy * half, end[1] - dx * half), (end[0] + dy * half, end[1] + dx * half))
        self.pen.line(tip, end, net=net)
        self.pen.line(*bar, net=net, bold=ground)
        if ground:
            return
        if dy:
            at = (end[0], end[1] + (1.2 if dy > 0 else -0.35))
            self.pen.words(at, net, "middle", net=net, bold=True)
        else:
            at = (end[0] + dx * 0.4, end[1] + 0.32)
            self.pen.words(at, net, "start" if dx > 0 else "end", net=net, bold=True)

    def begin(self, net: str) -> None:
        """What a strand without a pin begins with: a rail, or the name of its net."""
        if self.pool.nets.rail(net):
            self.stop_at((self.x, 0.0), net, (-1.0, 0.0))
            return
        self.flag(net)

    def end(self, net: str) -> None:
        """What a strand ends with: ground, a rail, or the name of a net that goes on elsewhere."""
        if net == self.began:
            return
        if self.pool.nets.rail(net):
            self.wire(CLEAR, net)
            self.stop_at((self.x, 0.0), net, (float(self.ahead), 0.0))
        elif self.pool.nets.pads.get(net, 0) > self.shown[net]:
            self.flag(net)

    def name_on_wire(self, net: str) -> None:
        """The name of a net on a stretch of wire."""
        width = text_width(net) + 0.6
        self.pen.words((self.x + self.ahead * width / 2, -0.28), net, "middle", net=net)
        self.wire(width, net)

    def flag(self, net: str) -> None:
        """The name of a net at the end of its wire."""
        self.wire(0.3, net)
        tail = self.x
        self.name_on_wire(net)
        tip = self.x if self.shown[net] else tail - 0.3 * self.ahead
        self.pen.line((tip, -0.3), (tip, 0.3), net=net)


def joint(at: Point, net: str) -> Mark:
    """Wires that meet."""
    x, y, r = *at, 0.22
    corners = ((x - r, y), (x, y - r), (x + r, y), (x, y + r))
    return Mark(points=corners, net=net, filled=True)

"""The pin problem, and the answers it can have."""

from dataclasses import dataclass, field
from math import hypot

from loquet.core.geometry import Seat, middle_of
from loquet.core.parts import Chip, LandPattern
from loquet.core.pins.model import Need
from loquet.core.pins.options import Option, options_of

LENGTH_STEP_NM = 500_000
Places = dict[str, tuple[int, int]]


@dataclass(frozen=True)
class PinProblem:
    """Needs, the chip, where each pin's pad lies on the board (nm), and the pins that a person has
    locked (signal to pin number).
    """

    needs: tuple[Need, ...]
    chip: Chip
    places: Places
    locks: dict[str, str] = field(default_factory=dict)

    def options(self) -> dict[str, tuple[Option, ...]]:
        """Options of each need, within the locks."""
        return {
            need.signal: options_of(need, self.chip, self.locks.get(need.signal))
            for need in self.needs
        }

    def length_nm(self, need: Need, pin: str) -> int:
        """Straight distance from a pin to where its signal goes; 0 where that is not known.

        At the least sum of straight distances no two links that could be swapped cross, so
        crossings are kept low as well.
        """
        place = self.places.get(pin)
        if need.target is None or place is None:
            return 0
        return round(hypot(place[0] - need.target[0], place[1] - need.target[1]))

    def steps(self, need: Need, pin: str) -> int:
        """The length in steps of half a millimetre, as the solver counts it."""
        return round(self.length_nm(need, pin) / LENGTH_STEP_NM)

    def only(self, needs: tuple[Need, ...]) -> "PinProblem":
        """The same problem with fewer needs."""
        return PinProblem(needs, self.chip, self.places, self.locks)


@dataclass(frozen=True)
class Score:
    """What a plan costs, in the order in which it is compared."""

    risk: int
    short: int
    steps: int
    ports: int


@dataclass(frozen=True)
class Solved:
    """The best plan found, its score, and whether no better one exists; `gap` is what a better one
    could save of the weighted cost.
    """

    picks: dict[str, Option]
    score: Score
    proven: bool
    gap: int = 0


@dataclass(frozen=True)
class Infeasible:
    """No plan exists: why, in a sentence, and the way out; `signals` are the needs that cannot
    stand together.
    """

    why: str
    way_out: str
    signals: tuple[str, ...] = ()


@dataclass(frozen=True)
class Stopped:
    """The time limit came before any plan."""

    best: Solved | None


def places_of(pattern: LandPattern, seat: Seat) -> Places:
    """Where each pad of a seated pattern lies; the first of several pads of one number."""
    places: Places = {}
    for pad in pattern.pads:
        places.setdefault(pad.number, middle_of(seat.shape(pad.shape)))
    return places


def port_letter(port: str) -> str:
    """The port a pin is on: `A` of `PA3`, `0` of `P0.03`."""
    return port[1:].split(".")[0].rstrip("0123456789") or port[1:2]

"""Which part of the shelf serves: a recipe says the kind and the figures that it needs, and takes
the cheapest part that has them.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from loquet.core.parts.dielectric import STEADY_TOLERANCE
from loquet.core.parts.part import Part, PartError
from loquet.core.parts.terminal import way_count
from loquet.core.plain.remembering import Remembered
from loquet.core.quantities.shown import read_si

MICRO, SAME, MARGIN = 1e6, 1e-9, 1.5
STEADY_F = 1e-9
"""Capacitors below this set a time or a frequency; common practice, no source."""
LITTLE_V = 0.5
"""A diode that loses at most so much is taken for a Schottky diode."""
SHELVES: Remembered[dict[str, tuple[Part, ...]]] = Remembered(32)


@dataclass(frozen=True)
class Wanted:
    """What a part has to be: its kind, and figures by name that must reach at `least`, or come to
    at `most`, so much.
    """

    kind: str
    least: Mapping[str, float] = field(default_factory=dict)
    most: Mapping[str, float] = field(default_factory=dict)

    def lacks(self, part: Part) -> tuple[str, ...]:
        """What a part of the kind has not, a phrase each; a figure that is not known is missing."""
        found: list[str] = []
        for figures, sign in ((self.least, 1), (self.most, -1)):
            for name, bound in figures.items():
                value = part.values.get(name)
                words = "at least" if sign > 0 else "at most"
                if value is None:
                    found.append(f"does not say its {name}")
                elif sign * (value - bound) < -SAME * abs(bound):
                    found.append(f"has {name} {value:g} where {words} {bound:g} is wanted")
        return tuple(found)


def of_kind(parts: Mapping[str, Part], kind: str) -> tuple[Part, ...]:
    """All parts of a kind: the one that somebody chose, then those of one's own, then those that
    ship with Loquet, the cheapest first; of equal prices those that came first.
    """
    return SHELVES.of((parts,), lambda: by_kind(parts)).get(kind, ())


def by_kind(parts: Mapping[str, Part]) -> dict[str, tuple[Part, ...]]:
    """All parts by kind."""
    found: dict[str, list[Part]] = {}
    preferred: frozenset[str] = getattr(parts, "preferred", frozenset())
    own: frozenset[str] = getattr(parts, "own", frozenset())
    barred: frozenset[str] = getattr(parts, "barred", frozenset())

    def order(part: Part) -> tuple[bool, bool, float]:
        return (part.id not in preferred, part.id not in own, part.price_cents)

    for part in sorted((p for p in parts.values() if p.id not in barred), key=order):
        found.setdefault(part.kind, []).append(part)
    return {kind: tuple(rows) for kind, rows in found.items()}


def serving(parts: Mapping[str, Part], wanted: Wanted) -> tuple[Part, ...]:
    """All parts that can, the cheapest first."""
    return tuple(part for part in of_kind(parts, wanted.kind) if not wanted.lacks(part))


def pick(parts: Mapping[str, Part], wanted: Wanted) -> Part:
    """The cheapest part that can; raises PartError with what each part of the kind lacks."""
    found = serving(parts, wanted)
    if found:
        return found[0]
    raise PartError(wanted.kind, f"is wanted, and {why_none(parts, wanted)}", WAY_OUT)


def strongest(parts: Mapping[str, Part], wanted: Wanted, figure: str, amount: float) -> Part:
    """The cheapest part that can and whose figure reaches an amount; where none does, the one that
    comes nearest, so that the rule of that figure says what is missing. Raises PartError.
    """
    enough = replace(wanted, least={**wanted.least, figure: amount})
    found = serving(parts, enough)
    if found:
        return found[0]
    pick(parts, wanted)
    return max(serving(parts, wanted), key=lambda part: part.values.get(figure, 0.0))


WAY_OUT = "Put one on the shelf that has it."


def why_none(parts: Mapping[str, Part], wanted: Wanted) -> str:
    """Why no part serves."""
    rows = [f"{part.id} {wanted.lacks(part)[0]}" for part in of_kind(parts, wanted.kind)]
    return "; ".join(rows[:4]) if rows else "the shelf has none"


def resistor(parts: Mapping[str, Part]) -> str:
    """The part that is taken for a resistor of any value."""
    return pick(parts, Wanted("resistor")).id


def p_channel(parts: Mapping[str, Part], volts: float, current_ma: float = 0.0) -> Part | None:
    """A P-channel transistor whose gate may lie at ground while its source is at so many volts;
    nothing where the shelf has none.
    """
    wanted = Wanted("P-channel transistor", least={"voltage": volts, "gate_v": volts})
    if not serving(parts, wanted):
        return None
    return strongest(parts, wanted, "current_ma", current_ma)


def npn(parts: Mapping[str, Part]) -> Part:
    """The transistor that pulls loads low; raises PartError."""
    return pick(parts, Wanted("NPN transistor"))


def schottky(parts: Mapping[str, Part], current_ma: float = 0.0) -> Part:
    """A diode that loses little; raises PartError."""
    wanted = Wanted("diode", most={"forward_v": LITTLE_V})
    return strongest(parts, wanted, "current_ma", current_ma)


def fuse_for(parts: Mapping[str, Part], current_ma: float) -> Part:
    """The fuse that holds so much; raises PartError."""
    return strongest(parts, Wanted("fuse"), "hold_ma", current_ma)


def socket(parts: Mapping[str, Part], contacts: int) -> str:
    """The socket for a chip in two rows with so many contacts; raises PartError."""
    found = [p for p in of_kind(parts, "socket") if way_count(p.terminals) == contacts]
    if not found:
        raise PartError("socket", f"for {contacts} contacts is wanted", WAY_OUT)
    return found[0].id


def capacitor(parts: Mapping[str, Part], value: str, volts: float = 0.0) -> str:
    """The part for a capacitor of a value such as `100 nF`, at so many volts: made for half as much
    again, since ceramics lose capacitance near their rating (common practice), or for the most
    there is; one within 5 % where it is small, as those of crystals and filters have to be. Raises
    PartError.
    """
    farads = read_si(value, "F") or 0.0
    most = {"tolerance": STEADY_TOLERANCE} if farads < STEADY_F else {}
    wanted = Wanted("capacitor", {"most_uf": farads * MICRO, "voltage": volts}, most)
    return strongest(parts, wanted, "voltage", MARGIN * volts).id


def inductor(parts: Mapping[str, Part], henry_u: float) -> str:
    """The part for a coil of so many µH; raises PartError."""
    same = {"henry_u": henry_u}
    return pick(parts, Wanted("inductor", least=same, most=same)).id


def plug(parts: Mapping[str, Part], ways: int, pitch_mm: float) -> str:
    """The board half of a plug for wires of so many ways; raises PartError."""
    figures = {"ways": ways, "pitch_mm": pitch_mm}
    return pick(parts, Wanted("wire plug", least=figures, most=figures)).id

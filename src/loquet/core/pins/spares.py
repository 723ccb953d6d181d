"""What is good to keep free for later: the next revision always wants one more thing."""

from dataclasses import dataclass
from functools import lru_cache

from loquet.core.parts import Chip
from loquet.core.pins.model import Need
from loquet.core.pins.options import is_debug, options_of


@dataclass(frozen=True)
class PinSpare:
    """So many of these pins should stay free."""

    title: str
    wanted: int
    pins: tuple[str, ...]


@dataclass(frozen=True)
class PairSpare:
    """Two pins for both signals of one of these groups, on a block that nothing else uses, should
    stay free.
    """

    title: str
    groups: tuple["PairGroup", ...]


@dataclass(frozen=True)
class PairGroup:
    """The pins that carry the first and the second signal of an instance (in one remap group), and
    its block.
    """

    block: str
    firsts: tuple[str, ...]
    seconds: tuple[str, ...]


@lru_cache(maxsize=64)
def spares_of(chip: Chip) -> tuple[tuple[PinSpare, ...], tuple[PairSpare, ...]]:
    """Two plain pins, two analogue channels, a serial port, a two-wire bus: common practice, no
    source.
    """
    plain = tuple(
        p.number for p in chip.pins if p.kind == "port" and not p.is_reset and not is_debug(p)
    )
    analogue = tuple(dict.fromkeys(o.pin for o in options_of(Need("", "analogue", "", ""), chip)))
    pins = (PinSpare("two plain pins", 2, plain), PinSpare("two analogue channels", 2, analogue))
    pairs = (
        PairSpare("a serial port", groups_of(chip, "port transmit", "port receive")),
        PairSpare("a two-wire bus", groups_of(chip, "two-wire clock", "two-wire data")),
    )
    return pins, pairs


def groups_of(chip: Chip, first: str, second: str) -> tuple[PairGroup, ...]:
    """All instances (and remap groups) with the pins that carry both of their signals."""
    firsts = options_of(Need("", first, "", ""), chip)  # type: ignore[arg-type]
    seconds = options_of(Need("", second, "", ""), chip)  # type: ignore[arg-type]
    found = []
    for group, block in sorted({(o.group, o.hardware) for o in firsts}):
        ones, others = (
            tuple(sorted({o.pin for o in options if o.group == group}))
            for options in (firsts, seconds)
        )
        if any(a != b for a in ones for b in others):
            found.append(PairGroup(block, ones, others))
    return tuple(found)


def short_of(chip: Chip, used: set[str], blocks: set[str]) -> tuple[tuple[str, int], ...]:
    """What is missing of the spares when these pins and blocks are used: (title, how many)."""
    pins, pairs = spares_of(chip)
    missing = [(s.title, max(0, s.wanted - sum(p not in used for p in s.pins))) for s in pins]
    missing += [
        (s.title, int(not any(g.block not in blocks and pair_left(g, used) for g in s.groups)))
        for s in pairs
    ]
    return tuple((title, count) for title, count in missing if count)


def pair_left(group: PairGroup, used: set[str]) -> bool:
    """Whether two different free pins carry both signals."""
    firsts, seconds = (
        [p for p in group.firsts if p not in used],
        [p for p in group.seconds if p not in used],
    )
    return (
        bool(firsts)
        and bool(seconds)
        and (len(firsts) > 1 or len(seconds) > 1 or firsts != seconds)
    )

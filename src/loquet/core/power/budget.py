"""What every rail gives in every mode, and what its source has to give for it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from loquet.core.brief import Brief, Supply, Thing
from loquet.core.brief.joining import together
from loquet.core.parts import Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.plain.frozen import Frozen
from loquet.core.power.choosing import taken_of
from loquet.core.power.converting import Conversion, conversions
from loquet.core.power.currents import MODES, Currents
from loquet.core.power.load import draws_of
from loquet.core.power.rails import Rail, rail_of, rails_of
from loquet.core.provenance import Source

GUARD_V = 0.5
"""What a fuse and a Schottky diode behind a port lose; from memory of data sheets."""


class LoadRow(Frozen):
    """What one thing takes from its rail, and where that is from."""

    thing: str
    rail: str
    currents: Currents
    origin: str


@dataclass(frozen=True)
class Made:
    """A rail with what makes it: the thing that feeds it, the source or the rail before it, the way
    between, and its load.

    `found` are all ways that were looked at; `taken` is nothing for a rail that is its source
    itself, and where no way fits.
    """

    rail: Rail
    feeder: Thing | None
    supply: Supply | None
    parent: Rail | None
    load: Currents
    found: tuple[Conversion, ...] = ()
    taken: Conversion | None = None

    def input_ma(self, mode: str, volts: float) -> float:
        """What is drawn from the source or the rail before it, in mA, at so many volts there."""
        load = self.load.of(mode)
        return self.taken.draws_ma(volts, load) if self.taken else load


def loads_of(
    brief: Brief, parts: Mapping[str, Part], modules: Mapping[str, ScreenModule]
) -> tuple[LoadRow, ...]:
    """Every thing that is known to draw something, with its current in each mode."""
    rows = []
    for draw in draws_of(brief, parts, modules):
        thing = brief.thing(draw.name)
        rail, currents = rail_of(brief, thing), draw.by_mode
        feeder = feeder_of(brief, rail)
        if feeder is not None and feeder.PASSES:
            currents = currents.model_copy(update={"sleep": 0.0})
        origin = f"{draw.origin}; {draw.when}"
        rows.append(LoadRow(thing=thing.name, rail=rail.name, currents=currents, origin=origin))
    return tuple(rows)


def rails_made(
    brief: Brief, parts: Mapping[str, Part], loads: tuple[LoadRow, ...]
) -> tuple[Made, ...]:
    """All rails in the order of `rails_of`; those made of other rails are reckoned first, since
    they load what they stand on.
    """
    rails = rails_of(brief)
    own = {rail.name: Currents() for rail in rails}
    for load in loads:
        own[load.rail] = own[load.rail].plus(load.currents)
    made: dict[str, Made] = {}
    for rail in sorted(rails, key=lambda r: -depth_of(brief, rails, r)):
        row = made_rail(brief, parts, rail, own[rail.name])
        made[rail.name] = row
        if row.parent is not None:
            before = row.parent.usual_v
            taken = Currents(**{mode: row.input_ma(mode, before) for mode in MODES})
            own[row.parent.name] = own[row.parent.name].plus(taken)
    return tuple(made[rail.name] for rail in rails)


def feeder_of(brief: Brief, rail: Rail) -> Thing | None:
    """The thing that makes a rail."""
    return next((t for t in brief.things if t.name == rail.fed_by), None)


def parent_of(brief: Brief, rail: Rail) -> Rail | None:
    """The rail that a rail is made of; nothing for one that has a source of its own."""
    feeder = feeder_of(brief, rail)
    if feeder is None or not feeder.LOWER_FEED:
        return None
    parent = rail_of(brief, feeder)
    return None if parent.name == rail.name else parent


def depth_of(brief: Brief, rails: tuple[Rail, ...], rail: Rail) -> int:
    """How many converters stand between a rail and its source; a ring ends after all rails."""
    depth, here = 0, parent_of(brief, rail)
    while here is not None and depth <= len(rails):
        depth, here = depth + 1, parent_of(brief, here)
    return depth


def made_rail(brief: Brief, parts: Mapping[str, Part], rail: Rail, load: Currents) -> Made:
    """A rail with the way that was chosen for it, or that Loquet takes."""
    feeder, parent = feeder_of(brief, rail), parent_of(brief, rail)
    supply = together(brief, feeder) if feeder else None
    wish = feeder.made_by() if feeder else ""
    if feeder is None or not wish:
        return Made(rail, feeder, supply, parent, load)
    before = behind_guard(feeder, supply) if supply else as_supply(parent)
    if before is None:
        return Made(rail, feeder, supply, parent, load)
    found = conversions(parts, before, rail.usual_v, load.peak)
    return Made(rail, feeder, supply, parent, load, found, taken_of(before, found, load, wish))


def behind_guard(feeder: Thing, supply: Supply) -> Supply:
    """What is left of a port behind its fuse and the diode that lets nothing back into its host."""
    if not feeder.five_volts():
        return supply
    return replace(supply, empty_v=supply.empty_v - GUARD_V)


def as_supply(rail: Rail | None) -> Supply | None:
    """A rail as the source of another one."""
    if rail is None:
        return None
    source = Source(kind="computed", text=f"rail {rail.name}")
    volts = rail.empty_v, rail.usual_v, rail.fresh_v
    return Supply(*volts, "outside", 1, 0, 0.0, rail.limit_ma, source)

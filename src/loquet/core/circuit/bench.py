"""What a recipe works with: the brief, the brains with their plans, the parts, and the rails."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from loquet.core.brief import Brief, Thing
from loquet.core.brief.joining import joined_by
from loquet.core.brief.shares import net_mark, readers_of
from loquet.core.circuit.by_hand import HandChange
from loquet.core.circuit.model import RecipeNotPossible
from loquet.core.parts import Chip, LandPattern, Part, choosing
from loquet.core.parts.screen import ScreenModule
from loquet.core.pins import PinPlan
from loquet.core.pins.schemes.comparing import helpers_pf
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.power import Rail, logic_rail_of, rail_of, rails_of
from loquet.core.power.budget import Made, loads_of, rails_made
from loquet.core.power.load import load_working
from loquet.core.provenance import Working


@dataclass(frozen=True)
class Desk:
    """A brain with what it reads: its share of the brief, chip, pattern and plan; `mark` tells
    apart the nets that every brain has.
    """

    share: Brief
    plan: PinPlan
    chip: Chip
    pattern: LandPattern
    mark: str = ""

    @cached_property
    def wiring(self) -> KeyWiring:
        """How its keys are wired."""
        return wiring_of(self.share)

    def net(self, name: str) -> str:
        """A net that every brain has one of, such as RESET or ROW_1."""
        return f"{net_mark(self.mark)}{name}"

    def role(self, words: str) -> str:
        """The role of a part that stands at every brain, such as its reset filter."""
        return f"{net_mark(self.mark).lower()}{words}"


@dataclass(frozen=True)
class Bench:
    """Parts by id, screen modules, a desk for every brain by its name, and what a person changes
    beside the recipes.
    """

    brief: Brief
    desks: Mapping[str, Desk]
    parts: Mapping[str, Part]
    modules: Mapping[str, ScreenModule]
    by_hand: tuple[HandChange, ...] = ()

    @cached_property
    def resistor(self) -> str:
        """The part for a resistor."""
        return choosing.resistor(self.parts)

    def capacitor(self, value: str, volts: float = 0.0) -> str:
        """The part for a capacitor of a value at so many volts; raises PartError."""
        return choosing.capacitor(self.parts, value, volts)

    def pick(self, kind: str) -> Part:
        """The part that serves as this kind; raises PartError."""
        return choosing.pick(self.parts, choosing.Wanted(kind))

    @cached_property
    def npn(self) -> Part:
        """The transistor that pulls loads low; raises PartError."""
        return choosing.npn(self.parts)

    def desk(self, thing: Thing) -> Desk:
        """The desk of a brain, or of the brain that reads a thing."""
        if thing.BRAIN:
            return self.desks[thing.name]
        return self.desks[readers_of(self.brief, thing)[0]]

    @cached_property
    def load(self) -> Working:
        """Everything on at once, in mA."""
        return load_working(self.brief, self.parts, self.modules)

    def helpers_pf(self, thing: Thing) -> float:
        """What helpers bring to the two-wire bus of the brain that reads a thing."""
        desk = self.desk(thing)
        return helpers_pf(desk.share, desk.wiring, dict(self.parts))

    @cached_property
    def rails(self) -> tuple[Rail, ...]:
        """All rails of the brief."""
        return rails_of(self.brief)

    def rail(self, thing: Thing) -> Rail:
        """What feeds a thing."""
        return rail_of(self.brief, thing)

    def logic_rail(self, brain: Thing) -> Rail:
        """The rail on which the lines of a brain live, and what reads for it; raises
        RecipeNotPossible where there is none.
        """
        rail = logic_rail_of(self.brief, brain)
        if rail is None:
            volts = brain.logic_v()
            limit = f"its lines live on {volts:g} V, and no rail has that for what hangs on them"
            raise RecipeNotPossible(brain.name, limit, f"Add a converter to {volts:g} V.")
        return rail

    def reader_rail(self, thing: Thing) -> Rail:
        """The rail on which the lines of the brain that reads a thing live."""
        brain = self.desk(thing).share.brain
        return self.logic_rail(brain) if brain else self.rail(thing)

    @cached_property
    def rails_made(self) -> tuple[Made, ...]:
        """Every rail with what makes it."""
        loads = loads_of(self.brief, self.parts, self.modules)
        return rails_made(self.brief, self.parts, loads)

    def made(self, thing: Thing) -> Made:
        """How the rail that a source feeds is made."""
        return next(made for made in self.rails_made if made.rail.fed_by == thing.name)

    def rail_fed_by(self, thing: Thing) -> Rail:
        """The rail that a source makes, or joins."""
        host = joined_by(self.brief, thing) or thing
        return next(rail for rail in rails_of(self.brief) if rail.fed_by == host.name)

"""What a recipe works with: the brief, the plan, the parts, and the rails."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from loquet.core.brief import Brief, Thing
from loquet.core.parts import Chip, LandPattern, Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.pins import PinPlan
from loquet.core.pins.schemes.comparing import helpers_pf
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.power import Rail, rail_of, rails_of
from loquet.core.power.load import load_working
from loquet.core.provenance import Working


@dataclass(frozen=True)
class Bench:
    """Parts by id, screen modules, the first brain's chip with its pattern and plan."""

    brief: Brief
    plan: PinPlan
    parts: Mapping[str, Part]
    modules: Mapping[str, ScreenModule]
    chip: Chip
    chip_pattern: LandPattern

    @cached_property
    def wiring(self) -> KeyWiring:
        """How the keys are wired."""
        return wiring_of(self.brief)

    @cached_property
    def load(self) -> Working:
        """Everything on at once, in mA."""
        return load_working(self.brief, self.parts, self.modules)

    @cached_property
    def helpers_pf(self) -> float:
        """What helpers bring to the two-wire bus."""
        return helpers_pf(self.brief, self.wiring, dict(self.parts))

    def rail(self, thing: Thing) -> Rail:
        """What feeds a thing."""
        return rail_of(self.brief, thing)

    def rail_fed_by(self, thing: Thing) -> Rail:
        """The rail that a source makes."""
        return next(rail for rail in rails_of(self.brief) if rail.fed_by == thing.name)

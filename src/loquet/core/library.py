"""What the core needs of catalogues and data sets, handed in by whoever runs the chain."""

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from loquet.core.brief import Thing
from loquet.core.brief.thing import ANY_KIND
from loquet.core.circuit.model import Component
from loquet.core.geometry import middle_of
from loquet.core.ordering.house import House
from loquet.core.ordering.supplier import Supplier
from loquet.core.parts import Chip, LandPattern, Part, PartError, pattern_of
from loquet.core.parts.in_use import Plug
from loquet.core.parts.listing import ListedChip, Stock
from loquet.core.parts.part import PACKAGE
from loquet.core.parts.paste import Paste
from loquet.core.parts.screen import BUSES, ScreenModule, screen_of
from loquet.core.plain.remembering import Remembered
from loquet.core.shelf.role import Roles

PATTERNS: Remembered[LandPattern] = Remembered(1024)
SCREENS: Remembered[dict[str, ScreenModule]] = Remembered(32)


def screens_in(parts: Mapping[str, Part]) -> dict[str, ScreenModule]:
    """The screens among parts."""
    found = {}
    for part in parts.values():
        if part.kind in BUSES:
            with suppress(PartError):
                found[part.id] = screen_of(part)
    return found


def marked_pattern(part: Part) -> LandPattern:
    """A part's pattern with the pads of its poles; where it has a cathode, its mark stands beside
    that pad.
    """
    return PATTERNS.of((part,), lambda: with_mark(part))


def with_mark(part: Part) -> LandPattern:
    """A part's pattern, its first pin that of its cathode, with its poles."""
    pattern = pattern_of(part.body)
    if all(pole in part.terminals for pole in part.poles):
        pattern = replace(pattern, poles=(part.pad(part.poles[0]), part.pad(part.poles[1])))
    cathode = part.pad("cathode") if "cathode" in part.terminals else None
    spot = next((middle_of(p.shape) for p in pattern.pads if p.number == cathode), None)
    return pattern if spot is None else replace(pattern, first_pin=spot)


@dataclass(frozen=True, repr=False)
class Library:
    """Parts, houses in euro and suppliers by id; a finder for chips; what each kind of parts asks
    for; solder pastes by id; `known_by` says who changed what ships with Loquet.
    """

    parts: dict[str, Part]
    houses: dict[str, House]
    suppliers: dict[str, Supplier]
    find_chip: Callable[[str], Chip]
    list_chips: Callable[[], Sequence[ListedChip]]
    stock_of: Callable[[ListedChip], Stock]
    roles: Roles
    pastes: dict[str, Paste]
    known_by: str = ""

    @property
    def screens(self) -> dict[str, ScreenModule]:
        """All parts that are screens, by id; one that does not say what it must is left out."""
        return SCREENS.of((self.parts,), lambda: screens_in(self.parts))

    def part(self, part_id: str, *kinds: str) -> Part:
        """The part of that id and of one of these kinds; raises PartError."""
        part = self.parts.get(part_id)
        fitting = sorted(p.id for p in self.parts.values() if p.kind in kinds)
        choose = f"Choose one of: {', '.join(fitting)}."
        if part is None:
            raise PartError(part_id, "is not in the catalogue", choose)
        if part.kind not in kinds and ANY_KIND not in kinds:
            raise PartError(part_id, f"is a {part.kind}, not a {' or '.join(kinds)}", choose)
        return part

    def check_parts(self, thing: Thing) -> None:
        """Look for every part that a thing names; raises PartError saying which fits."""
        for body in thing.bodies():
            if body.part and body.kinds and not body.part.startswith("chip:"):
                self.part(body.part, *body.kinds)
        display = thing.display()
        if display is not None:
            self.screen(display.part)

    def screen(self, screen_id: str) -> ScreenModule:
        """The screen of that id; raises PartError."""
        if screen_id not in self.screens:
            raise PartError(
                screen_id,
                "is not a screen of the catalogue",
                f"Choose one of: {', '.join(sorted(self.screens))}.",
            )
        return self.screens[screen_id]

    def house(self, house_id: str) -> House:
        """The house of that id; raises PartError."""
        if house_id not in self.houses:
            raise PartError(
                house_id,
                "is not a known board house",
                f"Choose one of: {', '.join(sorted(self.houses))}.",
            )
        return self.houses[house_id]

    def body_part(self, part_id: str) -> Part | None:
        """The part that draws what stands on a board: a catalogue part, or the package of
        `chip:NAME`; nothing where none does.
        """
        if part_id.startswith("chip:"):
            return self.parts.get(self.find_chip(part_id[5:]).package)
        return self.parts.get(part_id)

    def package(self, code: str) -> Part:
        """The package of that id; raises PartError."""
        return self.part(code, PACKAGE)

    def plug(self, part_id: str) -> Plug | None:
        """What is put into a catalogue part or a module from outside, where anything is."""
        part = self.body_part(part_id)
        return self.roles.in_use(part).plug if part else None

    def pattern(self, part_id: str) -> LandPattern:
        """The land pattern of a catalogue part, or of `chip:NAME`."""
        if part_id.startswith("chip:"):
            chip = self.find_chip(part_id[5:])
            if chip.uncovered:
                problem, _, way_out = chip.uncovered.partition("; ")
                raise PartError(chip.name, problem, way_out)
            return pattern_of(self.package(chip.package).body)
        return marked_pattern(self.parts[part_id])

    def height_mm(self, component: Component) -> float:
        """Height above the board, with what it is put into."""
        under = sum(self.parts[part].height_mm for part in component.sits_in)
        if component.is_chip:
            return under + self.package(self.find_chip(component.part[5:]).package).height_mm
        return under + self.parts[component.part].height_mm

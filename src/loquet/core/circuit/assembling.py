"""The circuit stage: recipes called in turn, references numbered, nets gathered and checked."""

from dataclasses import dataclass

from loquet.core.brief import Brief
from loquet.core.circuit.model import Circuit, Component, Fragment, Net, NetKind, RecipeNotPossible
from loquet.core.circuit.recipes.buzzer_driver import buzzer_driver
from loquet.core.circuit.recipes.cell_input import cell_input
from loquet.core.circuit.recipes.chip_core import chip_core
from loquet.core.circuit.recipes.controls import controls
from loquet.core.circuit.recipes.indicator import indicator
from loquet.core.circuit.recipes.screen_header import plain_screen_header, screen_header
from loquet.core.circuit.recipes.service import programming_header, test_points
from loquet.core.circuit.supply import TWO_AAA
from loquet.core.parts import Chip, LandPattern, Part
from loquet.core.parts.screen import ScreenModule
from loquet.core.pins import PinPlan

CHIP_MA = 8.0
POWER_WORDS = {
    "lithium-cell": "a lithium cell",
    "coin-cell": "a coin cell",
    "nine-volt": "a nine-volt block",
    "from-host": "power from a host",
}


@dataclass(frozen=True)
class PartShelf:
    """The parts a circuit may use: catalogue parts by id, the chip with its pattern, and the screen module."""

    parts: dict[str, Part]
    chip: Chip
    chip_pattern: LandPattern
    screen: ScreenModule | None


def assemble(brief: Brief, plan: PinPlan, shelf: PartShelf) -> Circuit:
    """All recipes of this brief put together; raises RecipeNotPossible."""
    refuse_without_recipe(brief)
    fragments = [
        chip_core(shelf.chip, shelf.chip_pattern, plan),
        controls(brief, shelf.parts, TWO_AAA),
    ]
    if brief.screen and shelf.screen:
        fragments.append(
            plain_screen_header(brief.screen, shelf.screen)
            if brief.screen.bus != "two-wire"
            else screen_header(
                brief.screen,
                shelf.screen,
                plan.length_um / 1000 / max(1, len(plan.assignments)) * 2,
                TWO_AAA,
            )
        )
    if brief.buzzer:
        fragments.append(
            buzzer_driver(
                brief.buzzer,
                shelf.parts[brief.buzzer.part],
                shelf.parts["transistor-npn-sot23"],
                TWO_AAA,
            )
        )
    if brief.light:
        fragments.append(indicator(brief.light, shelf.parts[brief.light.part], TWO_AAA))
    fragments.append(cell_input(shelf.parts["transistor-pmos-sot23"], load_ma(brief, shelf)))
    fragments += [programming_header(), test_points()]
    return gather(fragments, shelf.parts)


def refuse_without_recipe(brief: Brief) -> None:
    """Things of the brief that can be planned but not drawn yet: said by name, so that nothing is left out silently."""
    waiting = [link.name for link in brief.links] + [s.name for s in brief.sensors]
    waiting += [
        words
        for words, thing in (
            ("speaker", brief.speaker),
            ("headphone socket", brief.headphones),
            ("light chain", brief.light_chain),
            ("light matrix", brief.light_matrix),
            ("crystal", brief.crystal),
            ("clock crystal", brief.clock_crystal),
        )
        if thing
    ]
    if brief.power.kind != "two-aaa-cells":
        waiting.append(POWER_WORDS[brief.power.kind])
    if waiting:
        raise RecipeNotPossible(
            "circuit",
            f"there is no circuit recipe yet for: {', '.join(waiting)}",
            "The pin plan and its files are complete; the board has to wait for them.",
        )


def load_ma(brief: Brief, shelf: PartShelf) -> float:
    """Everything on at once, in mA."""
    total = CHIP_MA + (shelf.screen.current_ma if brief.screen and shelf.screen else 0.0)
    if brief.buzzer:
        total += TWO_AAA.usual_v / shelf.parts[brief.buzzer.part].values["coil_ohm"] * 1000 / 2
    return total + (brief.light.current_ma if brief.light else 0.0)


def gather(fragments: list[Fragment], parts: dict[str, Part]) -> Circuit:
    """One circuit: references numbered by letter in recipe order, nets by name."""
    counts: dict[str, int] = {}
    components: list[Component] = []
    for component in (c for fragment in fragments for c in fragment.components):
        letter = "U" if component.part.startswith("chip:") else parts[component.part].reference
        counts[letter] = counts.get(letter, 0) + 1
        components.append(component.model_copy(update={"ref": f"{letter}{counts[letter]}"}))
    kinds: dict[str, NetKind] = {}
    for fragment in fragments:
        kinds |= fragment.kinds
    pads: dict[str, list[tuple[str, str]]] = {}
    for component in components:
        for pad, net in component.pads.items():
            pads.setdefault(net, []).append((component.ref, pad))
    nets = tuple(
        Net(name=name, kind=kinds.get(name, "signal"), pads=tuple(pads[name]))
        for name in sorted(pads)
    )
    workings = tuple(working for fragment in fragments for working in fragment.workings)
    return Circuit(components=tuple(components), nets=nets, workings=workings)

"""Controls: keys with a pin each or in a matrix, and the axes of sticks, triggers, sliders and encoders."""

from collections.abc import Iterable

from loquet.core.brief import Brief, Control, Key, keys_of
from loquet.core.brief.controls import (
    DIRECTIONS,
    Button,
    DirectionalPad,
    Encoder,
    Potentiometer,
    Stick,
    TouchPad,
    Trigger,
)
from loquet.core.brief.keys import role_of
from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.recipes.key_levels import pull_down_ohm, pull_down_working, pull_up_working
from loquet.core.circuit.supply import SupplyRange
from loquet.core.parts import Part
from loquet.core.pins.needs import net_of
from loquet.core.pins.wiring import KeyWiring, wiring_of
from loquet.core.quantities.shown import show_si

DIODE = "diode-sod123"
BLOCK = "buttons"


def controls(brief: Brief, parts: dict[str, Part], supply: SupplyRange) -> Fragment:
    """All controls. Diagonal legs of a button are used, which are never joined inside whichever way the pairs are remembered.

    Raises RecipeNotPossible for what has no recipe yet: expanders, registers, ladders, outside converters, sticks at 5 V.
    """
    wiring = wiring_of(brief)
    refuse_without_recipe(brief, wiring)
    keys = {key.id: key for key in keys_of(brief)}
    hosts: dict[str, dict[str, str]] = {}
    extras: list[Component] = []
    for key in keys.values():
        extras += wire_key(brief, key, wiring, parts, hosts, supply)
    for control in brief.controls:
        wire_axes(control, parts[control.part], hosts)
    components = [
        host_component(brief, control, role, pads)
        for control in brief.controls
        for role, pads in hosts.items()
        if belongs(role, control)
    ]
    down = brief.button_reading == "pull-down-resistors"
    working = pull_down_working(pull_down_ohm(supply), supply) if down else pull_up_working(supply)
    return Fragment((*components, *extras), workings=(working,) if keys else ())


def refuse_without_recipe(brief: Brief, wiring: KeyWiring) -> None:
    """What cannot be drawn yet is said, not guessed."""
    if wiring.listed:
        raise RecipeNotPossible(
            "keys",
            f"there is no circuit recipe for keys by {wiring.scheme} yet",
            "Take one pin each or a matrix.",
        )
    if brief.analogue_by != "chip":
        raise RecipeNotPossible(
            "axes",
            f"there is no circuit recipe for an outside {brief.analogue_by} yet",
            "Read the axes with the chip.",
        )
    for control in brief.controls:
        if isinstance(control, Stick | Trigger) and control.supply == "5 V":
            raise RecipeNotPossible(
                control.name, "there is no 5 V rail in this circuit yet", "Feed it from the rail."
            )
        if isinstance(control, DirectionalPad) and control.form == "five-way part" and wiring.cells:
            raise RecipeNotPossible(
                control.name,
                "the contacts of a five-way part share one leg, so they cannot sit in a matrix",
                "Take four buttons.",
            )


def wire_key(
    brief: Brief,
    key: Key,
    wiring: KeyWiring,
    parts: dict[str, Part],
    hosts: dict[str, dict[str, str]],
    supply: SupplyRange,
) -> list[Component]:
    """The two ends of a key on their nets, with its diode or pull-down."""
    host = next(c for c in brief.controls if belongs(key.role, c))
    first, second = contacts(host, parts[host.part], key)
    pads = hosts.setdefault(key.role, {})
    cell = wiring.cell(key.id)
    if cell is not None:
        return wire_cell(key, cell, wiring, pads, first, second)
    down = brief.button_reading == "pull-down-resistors" and key.duty != "power"
    pads[first], pads[second] = net_of(key.id), SUPPLY if down else GROUND
    if not down:
        return []
    return [
        Component(
            role=f"pull-down {key.id.removeprefix('button:')}",
            part="resistor-1608",
            block=BLOCK,
            value=show_si(pull_down_ohm(supply), "Ω"),
            purpose=f"Holds {key.title.removeprefix('button ')} low until pressed",
            pads={"1": net_of(key.id), "2": GROUND},
            near_role=key.role,
            near_pad=first,
        )
    ]


def wire_cell(
    key: Key,
    cell: tuple[int, int],
    wiring: KeyWiring,
    pads: dict[str, str],
    first: str,
    second: str,
) -> list[Component]:
    """A key between its column and its row; with a diode, current runs from column to row only."""
    row_name, column_name = (
        ("LINE", "LINE") if wiring.scheme == "charlieplexed" else ("ROW", "COLUMN")
    )
    row, column = f"{row_name}_{cell[0] + 1}", f"{column_name}_{cell[1] + 1}"
    if key.id not in wiring.diodes:
        pads[first], pads[second] = column, row
        return []
    middle = f"KEY_{net_of(key.id)}"
    pads[first], pads[second] = column, middle
    return [
        Component(
            role=f"diode {key.id}",
            part=DIODE,
            block=BLOCK,
            value="matrix diode",
            purpose=f"Lets {key.title.removeprefix('button ')} pull one way only",
            pads={"1": row, "2": middle},
            near_role=key.role,
            near_pad=second,
        )
    ]


def contacts(control: Control, part: Part, key: Key) -> tuple[str, str]:
    """The two pads of a key's contact on its part."""
    match control:
        case Button():
            return "1", "4"
        case DirectionalPad() if control.form == "four buttons":
            return "1", "4"
        case _:
            way = key.direction or "press"
            commons = [pad for pad, name in part.pin_names.items() if name == "common"]
            return next(pad for pad, name in part.pin_names.items() if name == way), commons[-1]


def wire_axes(control: Control, part: Part, hosts: dict[str, dict[str, str]]) -> None:
    """Supply, ground and outputs of a control that is more than a key."""
    if isinstance(control, Button | DirectionalPad):
        return
    pads = hosts.setdefault(role_of(control), {})
    if isinstance(control, TouchPad):
        pads["1"] = net_of(role_of(control))
        return
    for pad, name in part.pin_names.items():
        if name in ("supply", "ground"):
            pads[pad] = SUPPLY if name == "supply" else GROUND
        elif name in outputs(control):
            pads[pad] = net_of(f"{role_of(control)}:{name}")
        elif name == "common" and pad not in pads:
            pads[pad] = GROUND


def outputs(control: Control) -> Iterable[str]:
    """Names of what a control puts out, besides its press."""
    match control:
        case Stick():
            return ("x", "y")
        case Trigger():
            return ("pull",)
        case Potentiometer():
            return ("level",)
        case Encoder():
            return ("a", "b")
        case _:
            return ()


def belongs(role: str, control: Control) -> bool:
    """Whether a role is that of a control or of one of its buttons."""
    own = role_of(control)
    return role == own or (
        isinstance(control, DirectionalPad) and role in {f"{own}:{way}" for way in DIRECTIONS}
    )


def host_component(brief: Brief, control: Control, role: str, pads: dict[str, str]) -> Component:
    """The part of a control."""
    name = " ".join(role.split(":")[1:])
    title = {"button": "Button", "pad": "Pad", "slider": "Slider", "touch": "Touch electrode"}.get(
        control.kind, control.kind.capitalize()
    )
    return Component(
        role=role,
        part=control.part,
        block=BLOCK,
        value=name,
        purpose=f"{title} {name}",
        pads=dict(sorted(pads.items())),
    )

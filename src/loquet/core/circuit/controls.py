"""What all controls share: keys with a pin each or in a matrix, and the outputs of what is more
than a key.
"""

from loquet.core.brief import Contact, Thing, plain_name
from loquet.core.circuit.axis_dividers import divided
from loquet.core.circuit.axis_filters import filters
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.key_levels import pull_down_ohm
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer
from loquet.core.parts import Part
from loquet.core.parts.choosing import Wanted, schottky, serving
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.pins.wiring import KeyWiring
from loquet.core.provenance import Working
from loquet.core.quantities.shown import show_si

LOW_SHARE = 0.3
BLOCK = "buttons"
CHARLIE = "charlieplexed"
Pads = dict[str, str]


def control(thing: Thing, bench: Bench, title: str, outputs: tuple[str, ...] = ()) -> Fragment:
    """The bodies of a control with everything on its nets; raises RecipeNotPossible as
    `refuse_control` does.
    """
    refuse_control(thing, bench.desk(thing).wiring, bench.rail(thing).usual_v)
    hosts: dict[str, Pads] = {body.piece: {} for body in thing.bodies()}
    around: list[Component] = []
    for contact in thing.contacts():
        around += wire_contact(thing, contact, bench, hosts)
    components: list[Component] = []
    workings: list[Working] = []
    rail, drawer = bench.rail(thing).net, Drawer(BLOCK, bench.parts)
    for body in thing.bodies():
        part, role, pads = bench.parts[body.part], thing.role(body.piece), hosts[body.piece]
        wire_outputs(thing, part, pads, rail, outputs)
        around += divided(thing, bench, role, pads)
        low_passes = filters(thing, bench, body.part, role, pads)
        around += low_passes.components
        workings += low_passes.workings
        name = " ".join(filter(None, (thing.name, body.piece)))
        if "supply" in part.terminals and "input_min_v" in part.values:
            around.append(drawer.quiet(role, part.id, rail))
        components.append(
            Component(
                role=role,
                part=body.part,
                block=BLOCK,
                value=name,
                purpose=f"{title} {name}",
                pads=pads,
            )
        )
    return Fragment(tuple(components), workings=tuple(workings), around=tuple(around))


def refuse_control(thing: Thing, wiring: KeyWiring, rail_v: float) -> None:
    """Raise RecipeNotPossible for volts that no rail gives, and for contacts of one leg in a
    matrix.
    """
    if any(axis.supply_v not in (0.0, rail_v) for axis in thing.axes()):
        limit = f"there is no 5 V rail in this circuit yet, which {thing.name} asks for"
        raise RecipeNotPossible(
            thing.name, limit, "Add a converter to 5 V, or feed it from the rail."
        )
    ends = [(c.body, c.ends[1]) for c in thing.contacts()]
    shared = [c for c in thing.contacts() if ends.count((c.body, c.ends[1])) > 1]
    if any(wiring.cell(thing.role(c.piece)) for c in shared):
        limit = f"the contacts of {thing.name} share one leg, so they cannot sit in a matrix"
        raise RecipeNotPossible(thing.name, limit, "Take four buttons.")


def wire_contact(
    thing: Thing, contact: Contact, bench: Bench, hosts: dict[str, Pads]
) -> list[Component]:
    """The two ends of a key on their nets, with its diode or pull-down."""
    first, second = contact.ends
    pads, key = hosts[contact.body], thing.role(contact.piece)
    cell = bench.desk(thing).wiring.cell(key)
    if cell is not None:
        return wire_cell(thing, contact, cell, bench, (pads, first, second))
    down = bench.brief.button_reading == "pull-down-resistors" and contact.duty != "power"
    net = plain_name(key)
    pads[first], pads[second] = net, bench.rail(thing).net if down else GROUND
    return [pull_down(thing, contact, bench, first)] if down else []


def pull_down(thing: Thing, contact: Contact, bench: Bench, pad: str) -> Component:
    """The resistor that holds a key's line low until it is pressed."""
    return Component(
        role=f"pull-down {thing.role(contact.piece) if contact.piece else thing.name}",
        part=bench.resistor,
        block=BLOCK,
        value=show_si(pull_down_ohm(bench.rail(thing)), "Ω"),
        purpose=f"Holds {short(contact)} low until pressed",
        pads={ONE: plain_name(thing.role(contact.piece)), OTHER: GROUND},
        near_role=thing.role(contact.body),
        near_pad=pad,
    )


def short(contact: Contact) -> str:
    """A key's words without the word button."""
    return contact.words.removeprefix("button ")


def wire_cell(
    thing: Thing,
    contact: Contact,
    cell: tuple[int, int],
    bench: Bench,
    on: tuple[Pads, str, str],
) -> list[Component]:
    """A key between its column and its row; with a diode, current runs from column to row only."""
    pads, first, second = on
    desk, key = bench.desk(thing), thing.role(contact.piece)
    wiring = desk.wiring
    names = ("LINE", "LINE") if wiring.scheme == CHARLIE else ("ROW", "COLUMN")
    row, column = desk.net(f"{names[0]}_{cell[0] + 1}"), desk.net(f"{names[1]}_{cell[1] + 1}")
    if key not in wiring.diodes:
        pads[first], pads[second] = column, row
        return []
    middle = f"KEY_{plain_name(key)}"
    pads[first], pads[second] = column, middle
    return [
        Component(
            role=f"diode {key}",
            part=matrix_diode(bench, thing),
            block=BLOCK,
            value="matrix diode",
            purpose=f"Lets {short(contact)} pull one way only",
            pads={"cathode": row, "anode": middle},
            near_role=thing.role(contact.body),
            near_pad=second,
        )
    ]


def matrix_diode(bench: Bench, thing: Thing) -> str:
    """The diode of a key: a line counts as low below 0.3 of the rail (CMOS inputs, JEDEC JESD8), so
    that a plain diode is sure above 2.7 V only; below that a Schottky diode.
    """
    low = LOW_SHARE * bench.reader_rail(thing).empty_v
    wanted = Wanted("diode", most={"forward_v": low})
    return next(iter(serving(bench.parts, wanted)), schottky(bench.parts)).id


def wire_outputs(thing: Thing, part: Part, pads: Pads, rail: str, outputs: tuple[str, ...]) -> None:
    """Supply, ground and outputs of a control that is more than a key."""
    for name in part.terminals:
        if name in ("supply", "ground"):
            pads[name] = rail if name == "supply" else GROUND
        elif name in outputs:
            pads[name] = plain_name(thing.role(name))
        elif name == "common" and name not in pads:
            pads[name] = GROUND

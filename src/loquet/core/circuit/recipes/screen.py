"""A screen: its header in the module's own pin order, its decoupling, and pull-ups worked out from
the bus.
"""

from loquet.core.brief import Thing, plain_name
from loquet.core.brief.kinds.screen import HEADERS, Screen
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import (
    PIN_MA,
    Above,
    base_working,
    gate_current,
    high_side,
)
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.circuit.two_wire import LINES, Begin, pull_ups
from loquet.core.parts.screen import ScreenModule
from loquet.core.parts.terminal import ONE, OTHER, way
from loquet.core.pins.needing import bus_host
from loquet.core.pins.needs.screen import SYNCS

WIDEST = 16


def recipe(thing: Screen, bench: Bench) -> Fragment:
    """The header; pull-ups where it gives the bus its name.

    Raises RecipeNotPossible where lines or pull-ups do not fit.
    """
    module = bench.modules[thing.part]
    header, lit = header_of(thing, module, bench), backlit(thing, module, bench)
    if thing.bus != "two-wire" or host_of(thing, bench) is not thing:
        components = (header, *lit.components, decoupling(thing, module, bench))
        return Fragment(components, workings=lit.workings)
    pads = {line: way(module.pins.index(line) + 1) for line in LINES}
    bus = pull_ups(thing, bench, Begin(thing.role(), pads, "screen", "screen"))
    components = (header, *bus.components, decoupling(thing, module, bench))
    return Fragment(components, workings=bus.workings)


def backlit(thing: Screen, module: ScreenModule, bench: Bench) -> Fragment:
    """What feeds a backlight that takes more than a pin gives."""
    if module.backlight_ma <= PIN_MA:
        return Fragment(())
    role, rail, named = thing.role(), bench.rail(thing), f"the backlight of {thing.label}"
    drive, gate, base = (plain_name(thing.role(w)) for w in ("backlight", "gate", "base"))
    worked = base_working(
        f"{thing.name}.backlight",
        named,
        gate_current(rail.usual_v),
        bench.npn,
        bench.reader_rail(thing),
    )
    above = Above(rail.net, lit_net(thing), drive, gate, base, named, Near(role, way(1)))
    drawer = Drawer("screen", bench.parts)
    return Fragment(tuple(high_side(drawer, role, above, worked.shown)), workings=(worked,))


def lit_net(thing: Screen) -> str:
    """What the backlight is fed from behind its transistor."""
    return plain_name(thing.role("lit"))


def header_of(thing: Screen, module: ScreenModule, bench: Bench) -> Component:
    """The header in the module's own pin order."""
    names = [*module.pins]
    if thing.bus == "parallel colour":
        names += [f"colour {i + 1}" for i in range(thing.colour_bits)] + [*SYNCS]
    if len(names) > WIDEST:
        limit = f"{len(names)} lines do not fit a header of {WIDEST} ways"
        raise RecipeNotPossible("screen header", limit, "Take fewer colour bits.")
    lines = host_of(thing, bench) if thing.bus == "two-wire" else thing
    fixed = {"ground": GROUND, "supply": bench.rail(thing).net}
    if module.backlight_ma > PIN_MA:
        fixed["backlight"] = lit_net(thing)
    return Component(
        role=thing.role(),
        part=HEADERS[thing.bus],
        block="screen",
        value=module.description,
        purpose="Header of the screen module",
        pads={
            way(i + 1): fixed.get(name) or plain_name(lines.role(name))
            for i, name in enumerate(names)
        },
    )


def host_of(thing: Screen, bench: Bench) -> Thing:
    """The thing that gives the bus of its brain its name."""
    host = bus_host(bench.desk(thing).share)
    return bench.brief.thing(host.name) if host else thing


def decoupling(thing: Screen, module: ScreenModule, bench: Bench) -> Component:
    """A capacitor at the supply of the module."""
    return Component(
        role=f"{thing.role()} decoupling",
        part=bench.capacitor("1 µF"),
        block="screen",
        value="1 µF",
        purpose="Decoupling of the screen",
        pads={ONE: bench.rail(thing).net, OTHER: GROUND},
        near_role=thing.role(),
        near_pad=way(module.pins.index("supply") + 1),
    )


RECIPE = (Screen, recipe)

"""A screen: its header in the module's own pin order, its decoupling, and pull-ups worked out from the bus."""

from loquet.core.brief import Thing, plain_name
from loquet.core.brief.kinds.screen import HEADERS, Screen
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.parts.screen import ScreenModule
from loquet.core.pins.buses import bus_load_pf, bus_workings, pull_up_limits_ohm
from loquet.core.pins.needing import bus_host, bus_khz_of
from loquet.core.pins.needs.screen import SYNCS
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

WIDEST = 16


def recipe(thing: Screen, bench: Bench) -> Fragment:
    """The header; pull-ups where it gives the bus its name. Raises RecipeNotPossible where lines or pull-ups do not fit."""
    module = bench.modules[thing.part]
    header = header_of(thing, module, bench)
    if thing.bus != "two-wire" or host_of(thing, bench) is not thing:
        return Fragment((header, decoupling(thing, module, bench)))
    resistance, working = pull_up_value(thing, bench)
    pulls = tuple(
        pull_up(thing, line, resistance, str(module.pins.index(line) + 1), bench)
        for line in ("clock", "data")
    )
    load, _ = workings_of(thing, bench)
    return Fragment((header, *pulls, decoupling(thing, module, bench)), workings=(load, working))


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
    return Component(
        role=thing.role(),
        part=HEADERS[thing.bus],
        block="screen",
        value=module.description,
        purpose="Header of the screen module",
        pads={
            str(i + 1): fixed.get(name) or plain_name(lines.role(name))
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
        part="capacitor-1608",
        block="screen",
        value="1 µF",
        purpose="Decoupling of the screen",
        pads={"1": bench.rail(thing).net, "2": GROUND},
        near_role=thing.role(),
        near_pad=str(module.pins.index("supply") + 1),
    )


def pull_up(thing: Screen, line: str, resistance: float, pad: str, bench: Bench) -> Component:
    """The pull-up of one line, at the header."""
    return Component(
        role=f"{thing.role()} pull-up {line}",
        part="resistor-1608",
        block="screen",
        value=show_si(resistance, "Ω"),
        purpose=f"Pull-up of the screen {line}",
        pads={"1": bench.rail(thing).net, "2": plain_name(thing.role(line))},
        near_role=thing.role(),
        near_pad=pad,
    )


def workings_of(thing: Screen, bench: Bench) -> tuple[Working, Working]:
    """Load of the bus and range of its pull-ups, as the Pins station shows them."""
    share, rail = bench.desk(thing).share, bench.rail(bench.brief.things[0])
    khz, extra = bus_khz_of(share), bench.helpers_pf(thing)
    return bus_workings(share, bench.modules, extra, khz, rail.fresh_v)


def pull_up_value(thing: Screen, bench: Bench) -> tuple[float, Working]:
    """The pull-up in the middle of its range, with its working; raises RecipeNotPossible where there is no range."""
    share, rail = bench.desk(thing).share, bench.rail(thing)
    bus_pf, khz = bus_load_pf(share, bench.modules, bench.helpers_pf(thing)), bus_khz_of(share)
    least, greatest = pull_up_limits_ohm(rail.fresh_v, bus_pf, khz)
    if greatest < least:
        limit = f"the bus carries {bus_pf:.0f} pF, too much for {khz} kHz"
        raise RecipeNotPossible(
            "screen pull-ups", limit, "Use 100 kHz or take something off the bus."
        )
    value = nearest((least * greatest) ** 0.5, "E12")
    range_text = "range of the pull-ups of the two-wire bus, UM10204 section 7.1"
    return value, Working(
        id="screen.pull_up",
        title="Pull-up of the screen bus",
        value=value,
        unit="Ω",
        shown=show_si(value, "Ω"),
        formula="sqrt(Rmin x Rmax), nearest E12",
        inputs=(
            WorkingInput(name="Rmin", value=f"{least:.6g}", unit="Ω", origin=range_text),
            WorkingInput(name="Rmax", value=f"{greatest:.6g}", unit="Ω", origin=range_text),
        ),
        source=Source(kind="common practice", text="the middle of the range; E12 of IEC 60063"),
    )


RECIPE = (Screen, recipe)

"""The two-wire bus of a brain: its nets, and the pull-ups that it has once, wherever it begins."""

from collections.abc import Mapping
from dataclasses import dataclass

from loquet.core.brief import Thing, plain_name
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.circuit.model import Component, Fragment, RecipeNotPossible
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.pins.buses import bus_load_pf, bus_workings, pull_up_limits_ohm
from loquet.core.pins.needing import bus_host, bus_khz_of, on_two_wire
from loquet.core.power import Rail
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

LINES = ("clock", "data")


def bus_net(desk: Desk, line: str) -> str:
    """The net of a line of the bus: of the screen that gives it its name, or the brain's own."""
    host = bus_host(desk.share)
    return plain_name(host.role(line)) if host else desk.net(f"BUS_{line.upper()}")


@dataclass(frozen=True)
class Begin:
    """Where the bus has its pull-ups: at a part by its role, whose terminals carry the lines; what
    the bus is called.
    """

    role: str
    pads: Mapping[str, str]
    word: str
    block: str


def bus_of_brain(brain: Thing, bench: Bench) -> Fragment:
    """The pull-ups of a bus that no screen gives its name, at the brain itself; nothing where there
    is no such bus.
    """
    desk = bench.desk(brain)
    if bus_host(desk.share) or not on_two_wire(desk.share, desk.wiring):
        return Fragment(())
    pins = {row.net: row.pin for row in desk.plan.assignments}
    pads = {line: pins[bus_net(desk, line)] for line in LINES}
    made = pull_ups(brain, bench, Begin(brain.role(), pads, "bus", "bus"))
    components = (
        c.model_copy(update={"role": desk.role(f"bus {line}")})
        for c, line in zip(made.components, LINES, strict=True)
    )
    return Fragment(tuple(components), made.kinds, made.workings)


def bus_rail(thing: Thing, bench: Bench) -> Rail:
    """What pulls a bus up: the rail of the part at which it begins, or that of the brain's
    lines.
    """
    return bench.logic_rail(thing) if thing.BRAIN else bench.rail(thing)


def pull_ups(thing: Thing, bench: Bench, at: Begin) -> Fragment:
    """Both pull-ups close to a part; raises RecipeNotPossible where none fits."""
    desk = bench.desk(thing)
    resistance, working = pull_up_value(thing, bench)
    components = tuple(
        Component(
            role=f"{at.role} pull-up {line}",
            part=bench.resistor,
            block=at.block,
            value=show_si(resistance, "Ω"),
            purpose=f"Pull-up of the {at.word} {line}",
            pads={ONE: bus_rail(thing, bench).net, OTHER: bus_net(desk, line)},
            near_role=at.role,
            near_pad=at.pads[line],
        )
        for line in LINES
    )
    return Fragment(components, workings=(load_of(thing, bench), working))


def load_of(thing: Thing, bench: Bench) -> Working:
    """What the bus carries, as the Pins station shows it."""
    share, rail = bench.desk(thing).share, bench.rail(bench.brief.things[0])
    extra = bench.helpers_pf(thing)
    return bus_workings(share, bench.modules, extra, bus_khz_of(share), rail.fresh_v)[0]


def pull_up_value(thing: Thing, bench: Bench) -> tuple[float, Working]:
    """The pull-up in the middle of its range, with its working; raises RecipeNotPossible where
    there is no range.
    """
    share, rail = bench.desk(thing).share, bus_rail(thing, bench)
    bus_pf, khz = bus_load_pf(share, bench.modules, bench.helpers_pf(thing)), bus_khz_of(share)
    least, greatest = pull_up_limits_ohm(rail.fresh_v, bus_pf, khz)
    named = "screen" if thing.display() else "bus"
    if greatest < least:
        limit = f"the bus carries {bus_pf:.0f} pF, too much for {khz} kHz"
        way = "Use 100 kHz or take something off the bus."
        raise RecipeNotPossible(f"{named} pull-ups", limit, way)
    value = nearest((least * greatest) ** 0.5, "E12")
    range_text = "range of the pull-ups of the two-wire bus, UM10204 section 7.1"
    return value, Working(
        id=f"{named}.pull_up",
        title="Pull-up of the screen bus" if thing.display() else "Pull-up of the two-wire bus",
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

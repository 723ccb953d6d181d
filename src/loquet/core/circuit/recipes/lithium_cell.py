"""A lithium cell: its plug, a charger and a power path where there is 5 V from outside, a guard
where there is none, and its converter.
"""

from dataclasses import replace

from loquet.core.brief.joining import joiners
from loquet.core.brief.kinds.lithium_cell import LithiumCell
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import (
    FeedWay,
    block,
    capacitor,
    converter,
    feed_way,
    net,
    plus_of,
    reverse_guard,
    source_plug,
    supplies,
    taken_ma,
)
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.usb_power import charging_port, five_net
from loquet.core.parts import Part
from loquet.core.parts.choosing import p_channel, plug, schottky
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.power.charging import charge_working, program_ohm, program_working
from loquet.core.power.plugged import PATH_V, charger_of
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

PLUG_MM, FULL_V, STEADY = 2.0, 4.2, "4.7 µF"
SENSE_OHM, TELLS_OHM = "100 kΩ", "1 MΩ"
ALWAYS_OHM = "1 MΩ"
"""Of a divider that lies on the cell whether the device is on or not: 2 µA of it."""
PORT_V, LIT_MA = 5.0, 2.0


def recipe(thing: LithiumCell, bench: Bench) -> Fragment:
    """From the plug to the rail; raises RecipeNotPossible where a source joins a cell that is
    charged, whose path it would feed back through.
    """
    way, port = feed_way(bench, thing), charging_port(bench.brief)
    joined = joiners(bench.brief, thing)
    if port is not None and joined:
        limit = f"{joined[0].name} feeds its rail as well, and {port.name} charges it"
        way_out = (
            f"Give {joined[0].name} a rail of its own, or take {port.name} out: the path feeds the"
            " device from it already."
        )
        raise RecipeNotPossible(thing.name, limit, way_out)
    part = next((body.part for body in thing.bodies() if body.part), plug_part(bench))
    outlet = source_plug(
        thing, bench.parts[part], f"lithium cell {thing.capacity_mah} mAh", way.top
    )
    made = converter(bench, thing, way.behind)
    if port is None:
        guard = reverse_guard(bench, thing, way, FULL_V, (outlet.role, plus_of(outlet)))
        charge = Fragment((guard,))
    else:
        charge = charged(thing, bench, way, five_net(port))
        charge = replace(
            charge,
            components=(*turned_guard(bench, thing, way, plus_of(outlet)), *charge.components),
        )
    kinds = supplies(way.top, way.guarded, cell_side(thing, bench)) | made.kinds
    components = (outlet, *charge.components, *made.components, *sensed(bench, thing, way))
    return Fragment(components, kinds, (*charge.workings, *made.workings))


def plug_part(bench: Bench) -> str:
    """The plug of a pouch; raises PartError."""
    return plug(bench.parts, 2, PLUG_MM)


def path_part(bench: Bench, thing: LithiumCell) -> str:
    """The P-channel transistor in the way of the cell; raises PartError."""
    found = p_channel(bench.parts, PORT_V, taken_ma(bench, thing, PATH_V))
    return found.id if found else bench.pick("P-channel transistor").id


def cell_side(thing: LithiumCell, bench: Bench) -> str:
    """The net of the cell behind what guards it against being put in backwards: where charger and
    gauge stand.
    """
    way = feed_way(bench, thing)
    if charging_port(bench.brief) is None:
        return way.guarded
    return net(thing, "inner") if thing.holder else way.top


def turned_guard(
    bench: Bench, thing: LithiumCell, way: FeedWay, plus: str
) -> tuple[Component, ...]:
    """Keeps a charger from a cell that was put into its holder backwards; nothing for a keyed plug.

    A P-channel transistor carries current both ways while its gate is at ground. Its gate alone
    cannot tell a turned cell where the charger holds the other end up, so a second one does: its
    gate stands between both ends of the first, and as soon as the cell's end lies 2 V and more
    below the charger's it joins gate and source of the first, which opens.
    """
    if not thing.holder:
        return ()
    role, inner, channel = (
        f"{thing.role()} turned guard",
        net(thing, "inner"),
        path_part(bench, thing),
    )
    gate, tells = net(thing, "turned"), net(thing, "tells")
    words, off = "Keeps a cell that is put in backwards off the charger", f"{role} off"
    return (
        block(
            role,
            channel,
            "P-channel",
            words,
            {"gate": gate, "source": inner, "drain": way.top},
            (thing.role(), plus),
        ),
        block(
            f"{role} rest",
            bench.resistor,
            "100 kΩ",
            "Opens the way of a cell that is in right",
            {ONE: gate, OTHER: GROUND},
            (role, "gate"),
        ),
        block(
            off,
            channel,
            "P-channel",
            "Shuts the guard when the cell is in backwards",
            {"gate": tells, "source": inner, "drain": gate},
            (role, "gate"),
        ),
        block(
            f"{off} inner",
            bench.resistor,
            TELLS_OHM,
            "Halves what a turned cell puts on the gate",
            {ONE: inner, OTHER: tells},
            (off, "gate"),
        ),
        block(
            f"{off} cell",
            bench.resistor,
            TELLS_OHM,
            "Halves what a turned cell puts on the gate",
            {ONE: way.top, OTHER: tells},
            (off, "gate"),
        ),
    )


def charged(thing: LithiumCell, bench: Bench, way: FeedWay, five: str) -> Fragment:
    """The charger, and the path that feeds the device from outside while the cell is charged.

    While 5 V are there the transistor is off and the diode feeds the device; the cell only charges.
    Without 5 V its gate is pulled to ground and the cell feeds the device; its body diode points
    from the cell to the device, never back.
    """
    role, part = f"{thing.role()} charger", charger_of(bench.parts)
    channel = path_part(bench, thing)
    program = net(thing, "program")
    cell = cell_side(thing, bench)
    pads = {"ground": GROUND, "cell": cell, "in": five, "program": program}
    if thing.charge_light:
        pads["status"] = net(thing, "status")
    resistance = program_ohm(thing, part)
    main = Component(
        role=role,
        part=part.id,
        block="power",
        value=part.short,
        purpose="Charges the cell",
        pads=pads,
    )
    found = [
        main,
        block(
            f"{role} program",
            bench.resistor,
            show_si(resistance, "Ω"),
            "Sets the charging current",
            {ONE: program, OTHER: GROUND},
            (role, "program"),
        ),
        capacitor(
            bench, f"{role} input", STEADY, "Input capacitor of the charger", five, (role, "in")
        ),
        capacitor(
            bench, f"{role} steady", STEADY, "Keeps the charger steady", cell, (role, "cell")
        ),
        block(
            f"{thing.role()} path",
            channel,
            "P-channel",
            "Feeds the device from the cell while nothing is plugged in",
            {"gate": five, "source": way.guarded, "drain": cell},
            (role, "cell"),
        ),
        block(
            f"{thing.role()} path diode",
            schottky(bench.parts, taken_ma(bench, thing, PATH_V)).id,
            "Schottky",
            "Feeds the device from outside while the cell is charged",
            {"cathode": way.guarded, "anode": five},
            (role, "in"),
        ),
        block(
            f"{thing.role()} path rest",
            bench.resistor,
            "100 kΩ",
            "Opens the path when the plug is pulled",
            {ONE: five, OTHER: GROUND},
            (f"{thing.role()} path", "gate"),
        ),
    ]
    if thing.charge_light:
        anode = net(thing, "lit")
        light = f"{thing.role()} charge light"
        found += [
            block(
                light,
                bench.pick("light").id,
                "amber",
                "Lit while the cell is charged",
                {"cathode": net(thing, "status"), "anode": anode},
                (role, "status"),
            ),
            block(
                f"{light} resistor",
                bench.resistor,
                show_si(lit_ohm(bench.pick("light")), "Ω"),
                "Current of the charge light",
                {ONE: five, OTHER: anode},
                (light, "anode"),
            ),
        ]
    workings: tuple[Working, ...] = (
        program_working(thing, part),
        charge_working(thing, thing.capacity_mah, part),
    )
    if thing.charge_light:
        workings += (lit_working(thing, bench.pick("light")),)
    return Fragment(tuple(found), workings=workings)


def lit_ohm(light: Part) -> float:
    """The resistor of the charge light between the port's 5 V and the charger's open drain, in
    ohm.
    """
    return nearest((PORT_V - light.figure("forward_v")) / (LIT_MA * 1e-3))


def lit_working(thing: LithiumCell, light: Part) -> Working:
    """How that resistor was found."""
    value = lit_ohm(light)
    return Working(
        id=f"{thing.name}.charge_light",
        title=f"Resistor of the charge light of {thing.label}",
        value=value,
        unit="Ω",
        shown=show_si(value, "Ω"),
        formula="(V - Vf) / I, nearest E24",
        inputs=(
            given("V", PORT_V, "V", "5 V of the port"),
            given("Vf", light.figure("forward_v"), "V", light.evidence_text),
            given("I", LIT_MA, "mA", "as an indicator light; common practice"),
        ),
        source=Source(kind="standard", text="Ohm's law; E24 of IEC 60063"),
    )


def sensed(bench: Bench, thing: LithiumCell, way: FeedWay) -> tuple[Component, ...]:
    """Half of the cell's voltage for the brain, taken behind the switch so that a device that is
    off draws nothing through it; of a cell that is charged at the cell itself, since behind its
    path lies the port while one is plugged in.
    """
    if not thing.sense:
        return ()
    line, role = net(thing, "sense"), thing.role("sense")
    charged = charging_port(bench.brief) is not None
    part, ohm = bench.resistor, ALWAYS_OHM if charged else SENSE_OHM
    measured = cell_side(thing, bench) if charged else way.behind
    beside = (f"{thing.role()} charger", "cell") if charged else (f"{thing.role()} converter", "in")
    return (
        block(
            f"{role} upper",
            part,
            ohm,
            "Halves the cell's voltage",
            {ONE: measured, OTHER: line},
            beside,
        ),
        block(
            f"{role} lower",
            part,
            ohm,
            "Halves the cell's voltage",
            {ONE: line, OTHER: GROUND},
            (f"{role} upper", OTHER),
        ),
        capacitor(
            bench,
            f"{role} filter",
            "100 nF",
            "Holds the sample while it is read",
            line,
            (f"{role} lower", ONE),
        ),
    )


RECIPE = (LithiumCell, recipe)

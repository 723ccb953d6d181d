"""A lithium cell: its plug, a charger and a power path where there is 5 V from outside, a guard
where there is none, and its converter.
"""

from dataclasses import replace

from loquet.core.brief import Brief
from loquet.core.brief.joining import joiners
from loquet.core.brief.kinds.lithium_cell import LithiumCell
from loquet.core.brief.regulated import UsbPower
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.feeding import (
    FeedWay,
    block,
    capacitor,
    converter,
    feed_way,
    net,
    reverse_guard,
    source_plug,
    supplies,
)
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.usb_power import five_net
from loquet.core.parts import Part
from loquet.core.power.charging import charge_working, program_ohm, program_working
from loquet.core.provenance import Source, Working, given
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

PLUG, CHARGER, GUARD_P = "wire-plug-2.0-2", "charger-linear", "transistor-pmos-sot23"
STEADY = ("4.7 µF", "capacitor-2012")
SENSE_OHM, TELLS_OHM = "100 kΩ", "1 MΩ"
LIGHT, PORT_V, LIT_MA = "light-2012-amber", 5.0, 2.0


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
    part = next((body.part for body in thing.bodies() if body.part), PLUG)
    plug = source_plug(thing, part, f"lithium cell {thing.capacity_mah} mAh", way.top)
    made = converter(bench, thing, way.behind)
    if port is None:
        guard = reverse_guard(bench, thing, way, 4.2, (plug.role, "1"))
        charge = Fragment((guard,))
    else:
        charge = charged(thing, bench, way, five_net(port))
        charge = replace(charge, components=(*turned_guard(thing, way), *charge.components))
    kinds = supplies(way.top, way.guarded, cell_side(thing, bench)) | made.kinds
    components = (plug, *charge.components, *made.components, *sensed(thing, way))
    return Fragment(components, kinds, (*charge.workings, *made.workings))


def cell_side(thing: LithiumCell, bench: Bench) -> str:
    """The net of the cell behind what guards it against being put in backwards: where charger and
    gauge stand.
    """
    way = feed_way(bench, thing)
    if charging_port(bench.brief) is None:
        return way.guarded
    return net(thing, "inner") if thing.holder else way.top


def turned_guard(thing: LithiumCell, way: FeedWay) -> tuple[Component, ...]:
    """Keeps a charger from a cell that was put into its holder backwards; nothing for a keyed plug.

    A P-channel transistor carries current both ways while its gate is at ground. Its gate alone
    cannot tell a turned cell where the charger holds the other end up, so a second one does: its
    gate stands between both ends of the first, and as soon as the cell's end lies 2 V and more
    below the charger's it joins gate and source of the first, which opens.
    """
    if not thing.holder:
        return ()
    role, inner = f"{thing.role()} turned guard", net(thing, "inner")
    gate, tells = net(thing, "turned"), net(thing, "tells")
    words, off = "Keeps a cell that is put in backwards off the charger", f"{role} off"
    return (
        block(
            role,
            GUARD_P,
            "P-channel",
            words,
            {"1": gate, "2": inner, "3": way.top},
            (thing.role(), "1"),
        ),
        block(
            f"{role} rest",
            "resistor-1608",
            "100 kΩ",
            "Opens the way of a cell that is in right",
            {"1": gate, "2": GROUND},
            (role, "1"),
        ),
        block(
            off,
            GUARD_P,
            "P-channel",
            "Shuts the guard when the cell is in backwards",
            {"1": tells, "2": inner, "3": gate},
            (role, "1"),
        ),
        block(
            f"{off} inner",
            "resistor-1608",
            TELLS_OHM,
            "Halves what a turned cell puts on the gate",
            {"1": inner, "2": tells},
            (off, "1"),
        ),
        block(
            f"{off} cell",
            "resistor-1608",
            TELLS_OHM,
            "Halves what a turned cell puts on the gate",
            {"1": way.top, "2": tells},
            (off, "1"),
        ),
    )


def charging_port(brief: Brief) -> UsbPower | None:
    """The first port that brings 5 V."""
    return next((t for t in brief.things if isinstance(t, UsbPower) and t.five_volts()), None)


def charged(thing: LithiumCell, bench: Bench, way: FeedWay, five: str) -> Fragment:
    """The charger, and the path that feeds the device from outside while the cell is charged.

    While 5 V are there the transistor is off and the diode feeds the device; the cell only charges.
    Without 5 V its gate is pulled to ground and the cell feeds the device; its body diode points
    from the cell to the device, never back.
    """
    role, part = f"{thing.role()} charger", bench.parts[CHARGER]
    program = net(thing, "program")
    cell = cell_side(thing, bench)
    pads = {"2": GROUND, "3": cell, "4": five, "5": program}
    if thing.charge_light:
        pads["1"] = net(thing, "status")
    resistance = program_ohm(thing, part)
    main = Component(
        role=role,
        part=CHARGER,
        block="power",
        value=part.short,
        purpose="Charges the cell",
        pads=dict(sorted(pads.items())),
    )
    found = [
        main,
        block(
            f"{role} program",
            "resistor-1608",
            show_si(resistance, "Ω"),
            "Sets the charging current",
            {"1": program, "2": GROUND},
            (role, "5"),
        ),
        capacitor(f"{role} input", STEADY, "Input capacitor of the charger", five, (role, "4")),
        capacitor(f"{role} steady", STEADY, "Keeps the charger steady", cell, (role, "3")),
        block(
            f"{thing.role()} path",
            GUARD_P,
            "P-channel",
            "Feeds the device from the cell while nothing is plugged in",
            {"1": five, "2": way.guarded, "3": cell},
            (role, "3"),
        ),
        block(
            f"{thing.role()} path diode",
            "diode-schottky-sod123",
            "Schottky",
            "Feeds the device from outside while the cell is charged",
            {"1": way.guarded, "2": five},
            (role, "4"),
        ),
        block(
            f"{thing.role()} path rest",
            "resistor-1608",
            "100 kΩ",
            "Opens the path when the plug is pulled",
            {"1": five, "2": GROUND},
            (f"{thing.role()} path", "1"),
        ),
    ]
    if thing.charge_light:
        anode = net(thing, "lit")
        light = f"{thing.role()} charge light"
        found += [
            block(
                light,
                LIGHT,
                "amber",
                "Lit while the cell is charged",
                {"1": net(thing, "status"), "2": anode},
                (role, "1"),
            ),
            block(
                f"{light} resistor",
                "resistor-1608",
                show_si(lit_ohm(bench.parts[LIGHT]), "Ω"),
                "Current of the charge light",
                {"1": five, "2": anode},
                (light, "2"),
            ),
        ]
    workings: tuple[Working, ...] = (
        program_working(thing, part),
        charge_working(thing, thing.capacity_mah, part),
    )
    if thing.charge_light:
        workings += (lit_working(thing, bench.parts[LIGHT]),)
    return Fragment(tuple(found), workings=workings)


def lit_ohm(light: Part) -> float:
    """The resistor of the charge light between the port's 5 V and the charger's open drain, in
    ohm.
    """
    return nearest((PORT_V - light.values["forward_v"]) / (LIT_MA * 1e-3))


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
            given("Vf", light.values["forward_v"], "V", light.evidence_text),
            given("I", LIT_MA, "mA", "as an indicator light; common practice"),
        ),
        source=Source(kind="standard", text="Ohm's law; E24 of IEC 60063"),
    )


def sensed(thing: LithiumCell, way: FeedWay) -> tuple[Component, ...]:
    """Half of the cell's voltage for the brain, taken behind the switch so that a device that is
    off draws nothing through it.
    """
    if not thing.sense:
        return ()
    line, role = net(thing, "sense"), thing.role("sense")
    part = "resistor-1608"
    return (
        block(
            f"{role} upper",
            part,
            SENSE_OHM,
            "Halves the cell's voltage",
            {"1": way.behind, "2": line},
            (f"{thing.role()} converter", "1"),
        ),
        block(
            f"{role} lower",
            part,
            SENSE_OHM,
            "Halves the cell's voltage",
            {"1": line, "2": GROUND},
            (f"{role} upper", "2"),
        ),
        capacitor(
            f"{role} filter",
            ("100 nF", "capacitor-1608"),
            "Holds the sample while it is read",
            line,
            (f"{role} lower", "1"),
        ),
    )


RECIPE = (LithiumCell, recipe)

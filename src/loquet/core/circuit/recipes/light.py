"""An indicator light with its resistor; a strong one with a transistor that takes its current off
the pin.
"""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.light import Light
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.driving import PIN_MA, Below, base_working, low_side
from loquet.core.circuit.model import GROUND, Fragment, RecipeNotPossible
from loquet.core.circuit.parting import Drawer, Near
from loquet.core.parts import Part
from loquet.core.power import Rail
from loquet.core.provenance import Source, Working, WorkingInput, given
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

LEAST_V = 0.2


def recipe(thing: Light, bench: Bench) -> Fragment:
    """Light from a pin to ground up to 8 mA (the least that usual chips promise at good levels,
    from memory), at the volts of that pin; above that, where the pin is too low for the light, or
    where it shows its rail, from the rail. Raises RecipeNotPossible where the rail is below the
    light's own voltage.
    """
    lamp, rail, role = bench.parts[thing.part], bench.rail(thing), thing.role()
    shows_rail = thing.lit_by == "its rail"
    at_pin = not shows_rail and bench.reader_rail(thing).usual_v - lamp.figure("forward_v")
    strong = not shows_rail and (thing.light_ma > PIN_MA or at_pin < LEAST_V)
    source = rail if strong or shows_rail else bench.reader_rail(thing)
    drop = source.usual_v - lamp.figure("forward_v")
    if drop < LEAST_V:
        limit = f"the rail leaves {drop:.1f} V for the resistor"
        raise RecipeNotPossible("indicator light", limit, "Choose a red or amber light.")
    resistance = nearest(drop / (thing.light_ma * 1e-3))
    drawer = Drawer("light", bench.parts)
    anode, drive = plain_name(thing.role("anode")), plain_name(thing.role("drive"))
    low = plain_name(thing.role("low")) if strong else GROUND
    high = rail.net if strong or shows_rail else drive
    found = [
        drawer.take(
            role,
            thing.part,
            (lamp.description, "Indicator light"),
            {"cathode": low, "anode": anode},
        ),
        drawer.resistor(
            f"{role} resistor",
            show_si(resistance, "Ω"),
            "Current of the indicator light",
            (high, anode),
            Near(role, "anode"),
        ),
    ]
    workings = [current_working(thing, lamp, source, resistance)]
    if strong:
        load = given("I", thing.light_ma * 1e-3, "A", "brief")
        transistor, named = bench.npn, thing.label
        worked = base_working(thing.name, named, load, transistor, bench.reader_rail(thing))
        below = Below(low, drive, plain_name(thing.role("base")), named, Near(role, "anode"))
        found += low_side(drawer, role, below, worked.shown)
        workings.append(worked)
    return Fragment(tuple(found), workings=tuple(workings))


def current_working(thing: Light, lamp: Part, rail: Rail, resistance: float) -> Working:
    """How the resistor was found; `rail` is what lights it, its own or that of the pin."""
    return Working(
        id="light.resistor",
        title="Resistor of the indicator light",
        value=resistance,
        unit="Ω",
        shown=show_si(resistance, "Ω"),
        formula="(V - Vf) / I, nearest E24",
        inputs=(
            WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
            WorkingInput(
                name="Vf",
                value=f"{lamp.values['forward_v']:g}",
                unit="V",
                origin=lamp.evidence_text,
            ),
            WorkingInput(name="I", value=f"{thing.light_ma:g}", unit="mA", origin="brief"),
        ),
        source=Source(kind="standard", text="Ohm's law; E24 of IEC 60063"),
    )


RECIPE = (Light, recipe)

"""A sounder: a transistor to ground, a base resistor that saturates it, one that keeps it off during reset, and a diode across the coil."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.buzzer import Buzzer
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.parts import Part
from loquet.core.power import Rail
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

FORCED_GAIN = 20.0
PIN_DROP_V = 0.4
PIN_LIMIT_A = 8e-3
TRANSISTOR = "transistor-npn-sot23"


def recipe(thing: Buzzer, bench: Bench) -> Fragment:
    """The driver; raises RecipeNotPossible where the coil asks more than transistor or pin can give."""
    sounder, transistor, rail = bench.parts[thing.part], bench.parts[TRANSISTOR], bench.rail(thing)
    resistance = base_ohm(sounder, transistor, rail)
    role = thing.role()
    low, base, drive = (plain_name(thing.role(word)) for word in ("low", "base", "drive"))
    components = (
        Component(
            role=role,
            part=thing.part,
            block="buzzer",
            value=sounder.description,
            purpose="Sounder",
            pads={"1": rail.net, "2": low},
        ),
        Component(
            role=f"{role} transistor",
            part=transistor.id,
            block="buzzer",
            value="NPN",
            purpose="Switches the sounder",
            pads={"1": base, "2": GROUND, "3": low},
            near_role=role,
            near_pad="2",
        ),
        Component(
            role=f"{role} base resistor",
            part="resistor-1608",
            block="buzzer",
            value=show_si(resistance, "Ω"),
            purpose="Base current of the sounder's transistor",
            pads={"1": drive, "2": base},
            near_role=f"{role} transistor",
            near_pad="1",
        ),
        Component(
            role=f"{role} off",
            part="resistor-1608",
            block="buzzer",
            value="100 kΩ",
            purpose="Keeps the sounder quiet during reset",
            pads={"1": base, "2": GROUND},
            near_role=f"{role} transistor",
            near_pad="1",
        ),
        Component(
            role=f"{role} diode",
            part="diode-sod123",
            block="buzzer",
            value="100 V",
            purpose="Takes the coil's current when the transistor opens",
            pads={"1": rail.net, "2": low},
            near_role=role,
            near_pad="1",
        ),
    )
    return Fragment(components, workings=(base_working(sounder, transistor, rail, resistance),))


def base_ohm(sounder: Part, transistor: Part, rail: Rail) -> float:
    """The base resistor in ohm; raises RecipeNotPossible."""
    coil_a = rail.usual_v / sounder.values["coil_ohm"]
    if coil_a * 1e3 > transistor.values["current_ma"]:
        least = rail.usual_v / transistor.values["current_ma"] * 1e3
        raise RecipeNotPossible(
            "buzzer driver",
            f"the coil draws {coil_a * 1e3:.0f} mA",
            f"Choose a coil of at least {least:.0f} ohm.",
        )
    base_a = coil_a / FORCED_GAIN
    if base_a > PIN_LIMIT_A:
        limit = f"the base asks {base_a * 1e3:.1f} mA of a pin"
        way = "Choose a sounder with a higher coil resistance."
        raise RecipeNotPossible("buzzer driver", limit, way)
    return nearest((rail.usual_v - PIN_DROP_V - transistor.values["base_v"]) / base_a)


def base_working(sounder: Part, transistor: Part, rail: Rail, resistance: float) -> Working:
    """How the base resistor was found."""
    return Working(
        id="buzzer.base",
        title="Base resistor of the sounder",
        value=resistance,
        unit="Ω",
        shown=show_si(resistance, "Ω"),
        formula="(V - Vpin - Vbe) / (V / Rcoil / gain), nearest E24",
        inputs=(
            WorkingInput(name="V", value=f"{rail.usual_v:g}", unit="V", origin=rail.source.text),
            WorkingInput(
                name="Vpin",
                value=f"{PIN_DROP_V:g}",
                unit="V",
                origin="drop of a chip's pin under load; from memory",
            ),
            WorkingInput(
                name="Vbe",
                value=f"{transistor.values['base_v']:g}",
                unit="V",
                origin=transistor.evidence_text,
            ),
            WorkingInput(
                name="Rcoil",
                value=f"{sounder.values['coil_ohm']:g}",
                unit="Ω",
                origin=sounder.evidence_text,
            ),
            WorkingInput(
                name="gain",
                value=f"{FORCED_GAIN:g}",
                origin="forced gain of a saturated switch; common practice",
            ),
        ),
        source=Source(
            kind="common practice", text="saturated switch at a forced gain of 20; E24 of IEC 60063"
        ),
    )


RECIPE = (Buzzer, recipe)

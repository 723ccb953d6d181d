"""An indicator light with its resistor."""

from loquet.core.brief import plain_name
from loquet.core.brief.kinds.light import Light
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si


def recipe(thing: Light, bench: Bench) -> Fragment:
    """Light from a pin to ground; raises RecipeNotPossible where the rail is below the light's own voltage."""
    lamp, rail, role = bench.parts[thing.part], bench.rail(thing), thing.role()
    drop = rail.usual_v - lamp.values["forward_v"]
    if drop < 0.2:
        limit = f"the rail leaves {drop:.1f} V for the resistor"
        raise RecipeNotPossible("indicator light", limit, "Choose a red or amber light.")
    resistance = nearest(drop / (thing.light_ma * 1e-3))
    anode, drive = plain_name(thing.role("anode")), plain_name(thing.role("drive"))
    components = (
        Component(
            role=role,
            part=thing.part,
            block="light",
            value=lamp.description,
            purpose="Indicator light",
            pads={"1": GROUND, "2": anode},
        ),
        Component(
            role=f"{role} resistor",
            part="resistor-1608",
            block="light",
            value=show_si(resistance, "Ω"),
            purpose="Current of the indicator light",
            pads={"1": drive, "2": anode},
            near_role=role,
            near_pad="2",
        ),
    )
    working = Working(
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
    return Fragment(components, workings=(working,))


RECIPE = (Light, recipe)

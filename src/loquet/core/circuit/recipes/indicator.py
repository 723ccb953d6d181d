"""Indicator light with its resistor."""

from loquet.core.brief import Light
from loquet.core.circuit.model import GROUND, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.supply import SupplyRange
from loquet.core.parts import Part
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si


def indicator(light: Light, lamp: Part, supply: SupplyRange) -> Fragment:
    """Light from a pin to ground; raises RecipeNotPossible where the rail is below the light's own voltage."""
    drop = supply.usual_v - lamp.values["forward_v"]
    if drop < 0.2:
        raise RecipeNotPossible(
            "indicator light",
            f"the rail leaves {drop:.1f} V for the resistor",
            "Choose a red or amber light.",
        )
    resistance = nearest(drop / (light.current_ma * 1e-3))
    components = (
        Component(
            role="light",
            part=light.part,
            block="light",
            value=lamp.description,
            purpose="Indicator light",
            pads={"1": GROUND, "2": "LIGHT_ANODE"},
        ),
        Component(
            role="light resistor",
            part="resistor-1608",
            block="light",
            value=show_si(resistance, "Ω"),
            purpose="Current of the indicator light",
            pads={"1": "LIGHT_DRIVE", "2": "LIGHT_ANODE"},
            near_role="light",
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
            WorkingInput(
                name="V", value=f"{supply.usual_v:g}", unit="V", origin=supply.source.text
            ),
            WorkingInput(
                name="Vf",
                value=f"{lamp.values['forward_v']:g}",
                unit="V",
                origin=lamp.evidence_text,
            ),
            WorkingInput(name="I", value=f"{light.current_ma:g}", unit="mA", origin="brief"),
        ),
        source=Source(kind="standard", text="Ohm's law; E24 of IEC 60063"),
    )
    return Fragment(components, workings=(working,))

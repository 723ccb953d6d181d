"""Buzzer: a transistor to ground, a base resistor that saturates it, and a diode across the coil."""

from loquet.core.brief import Buzzer
from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.supply import SupplyRange
from loquet.core.parts import Part
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

FORCED_GAIN = 20.0
PIN_DROP_V = 0.4
PIN_LIMIT_A = 8e-3


def buzzer_driver(buzzer: Buzzer, sounder: Part, transistor: Part, supply: SupplyRange) -> Fragment:
    """The driver; raises RecipeNotPossible where the coil asks more than transistor or pin can give."""
    coil_a = supply.usual_v / sounder.values["coil_ohm"]
    if coil_a * 1e3 > transistor.values["current_ma"]:
        raise RecipeNotPossible(
            "buzzer driver",
            f"the coil draws {coil_a * 1e3:.0f} mA",
            f"Choose a coil of at least {supply.usual_v / transistor.values['current_ma'] * 1e3:.0f} ohm.",
        )
    base_a = coil_a / FORCED_GAIN
    if base_a > PIN_LIMIT_A:
        raise RecipeNotPossible(
            "buzzer driver",
            f"the base asks {base_a * 1e3:.1f} mA of a pin",
            "Choose a sounder with a higher coil resistance.",
        )
    resistance = nearest((supply.usual_v - PIN_DROP_V - transistor.values["base_v"]) / base_a)
    components = (
        Component(
            role="buzzer",
            part=buzzer.part,
            block="buzzer",
            value=sounder.description,
            purpose="Sounder",
            pads={"1": SUPPLY, "2": "BUZZER_LOW"},
        ),
        Component(
            role="buzzer transistor",
            part=transistor.id,
            block="buzzer",
            value="NPN",
            purpose="Switches the sounder",
            pads={"1": "BUZZER_BASE", "2": GROUND, "3": "BUZZER_LOW"},
            near_role="buzzer",
            near_pad="2",
        ),
        Component(
            role="buzzer base resistor",
            part="resistor-1608",
            block="buzzer",
            value=show_si(resistance, "Ω"),
            purpose="Base current of the sounder's transistor",
            pads={"1": "BUZZER_DRIVE", "2": "BUZZER_BASE"},
            near_role="buzzer transistor",
            near_pad="1",
        ),
        Component(
            role="buzzer diode",
            part="diode-sod123",
            block="buzzer",
            value="100 V",
            purpose="Takes the coil's current when the transistor opens",
            pads={"1": SUPPLY, "2": "BUZZER_LOW"},
            near_role="buzzer",
            near_pad="1",
        ),
    )
    working = Working(
        id="buzzer.base",
        title="Base resistor of the sounder",
        value=resistance,
        unit="Ω",
        shown=show_si(resistance, "Ω"),
        formula="(V - Vpin - Vbe) / (V / Rcoil / forced gain), nearest E24",
        inputs=(
            WorkingInput(
                name="V", value=f"{supply.usual_v:g}", unit="V", origin=supply.source.text
            ),
            WorkingInput(
                name="Rcoil",
                value=f"{sounder.values['coil_ohm']:g}",
                unit="Ω",
                origin=sounder.evidence_text,
            ),
            WorkingInput(
                name="Vbe",
                value=f"{transistor.values['base_v']:g}",
                unit="V",
                origin=transistor.evidence_text,
            ),
            WorkingInput(
                name="forced gain",
                value=f"{FORCED_GAIN:g}",
                origin="common practice for a saturated switch",
            ),
        ),
        source=Source(
            kind="common practice", text="saturated switch at a forced gain of 20; E24 of IEC 60063"
        ),
    )
    return Fragment(components, workings=(working,))

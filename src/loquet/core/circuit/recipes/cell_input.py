"""Two cells in series, a P-channel transistor against reversed cells, and the power switch."""

from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment
from loquet.core.parts import Part
from loquet.core.provenance import Source, Working, WorkingInput

SCHOTTKY_V = 0.3


def cell_input(transistor: Part, load_ma: float) -> Fragment:
    """Cells to rail. The transistor's body diode points the way of the current; its gate at ground opens it fully."""
    components = (
        Component(
            role="cell:1",
            part="holder-aaa-surface",
            block="power",
            value="AAA cell",
            purpose="Upper cell of the pair",
            pads={"1": "CELLS", "2": "CELLS_MIDDLE"},
        ),
        Component(
            role="cell:2",
            part="holder-aaa-surface",
            block="power",
            value="AAA cell",
            purpose="Lower cell of the pair",
            pads={"1": "CELLS_MIDDLE", "2": GROUND},
        ),
        Component(
            role="reverse guard",
            part=transistor.id,
            block="power",
            value="P-channel",
            purpose="Blocks the cells when they are put in the wrong way",
            pads={"1": GROUND, "2": "GUARDED", "3": "CELLS"},
            near_role="switch",
            near_pad="2",
        ),
        Component(
            role="switch",
            part="switch-slide-surface",
            block="power",
            value="on and off",
            purpose="Power switch",
            pads={"2": "GUARDED", "3": SUPPLY},
        ),
    )
    drop_mv = load_ma * transistor.values["resistance_ohm"]
    working = Working(
        id="power.guard",
        title="Voltage lost in the reverse guard",
        value=drop_mv,
        unit="mV",
        shown=f"{drop_mv:.1f} mV",
        formula="I x R (a Schottky diode would lose about 300 mV)",
        inputs=(
            WorkingInput(
                name="I", value=f"{load_ma:.0f}", unit="mA", origin="sum of the loads of this brief"
            ),
            WorkingInput(
                name="R",
                value=f"{transistor.values['resistance_ohm']:g}",
                unit="Ω",
                origin=transistor.evidence_text,
            ),
        ),
        source=Source(
            kind="common practice",
            text="P-channel transistor in the plus line; Schottky drop from memory",
        ),
    )
    return Fragment(
        components, {"CELLS": "supply", "CELLS_MIDDLE": "supply", "GUARDED": "supply"}, (working,)
    )

"""Buttons: one pin each, with the chip's own pull-up or a pull-down resistor on the board."""

from loquet.core.brief import Brief
from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment
from loquet.core.circuit.supply import SupplyRange
from loquet.core.pins.needs import net_of_button
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

CHIP_PULL_UP_OHM = 40_000.0
PRESSED_CURRENT_A = 0.3e-3


def buttons(brief: Brief, supply: SupplyRange) -> Fragment:
    """All buttons. Diagonal legs are used, which are never joined inside whichever way the pairs are remembered."""
    pull_down = brief.button_reading == "pull-down-resistors"
    resistance = nearest(supply.usual_v / PRESSED_CURRENT_A, "E12")
    components = []
    for control in brief.controls:
        net, role = net_of_button(control.name), f"button:{control.name}"
        other = SUPPLY if pull_down else GROUND
        components.append(
            Component(
                role=role, part=control.part, block="buttons", value=control.name, purpose=f"Button {control.name}", pads={"1": net, "4": other}
            )
        )
        if pull_down:
            components.append(
                Component(
                    role=f"pull-down {control.name}", part="resistor-1608", block="buttons", value=show_si(resistance, "Ω"),
                    purpose=f"Holds {control.name} low until pressed", pads={"1": net, "2": GROUND}, near_role=role, near_pad="1",
                )
            )  # fmt: skip
    working = pull_down_working(resistance, supply) if pull_down else pull_up_working(supply)
    return Fragment(tuple(components), workings=(working,))


def pull_up_working(supply: SupplyRange) -> Working:
    """Current through one pressed button with the chip's own pull-up."""
    current_ua = supply.usual_v / CHIP_PULL_UP_OHM * 1e6
    return Working(
        id="buttons.current", title="Current while one button is held", value=current_ua, unit="µA", shown=f"{current_ua:.0f} µA",
        formula="V / R",
        inputs=(
            WorkingInput(name="V", value=f"{supply.usual_v:g}", unit="V", origin=supply.source.text),
            WorkingInput(name="R", value="40", unit="kΩ", origin="usual pull-up inside a chip; from memory"),
        ),
        source=Source(kind="from memory", text="usual internal pull-up of about 40 kΩ; the maker's data sheet gives limits"),
    )  # fmt: skip


def pull_down_working(resistance: float, supply: SupplyRange) -> Working:
    """The pull-down value for a light contact current."""
    return Working(
        id="buttons.pull_down", title="Pull-down at each button", value=resistance, unit="Ω", shown=show_si(resistance, "Ω"),
        formula="V / I, nearest E12",
        inputs=(
            WorkingInput(name="V", value=f"{supply.usual_v:g}", unit="V", origin=supply.source.text),
            WorkingInput(name="I", value="0.3", unit="mA", origin="common practice: wets the contact, spares the cells"),
        ),
        source=Source(kind="standard", text="IEC 60063 preferred values; contact current: common practice, no source"),
    )  # fmt: skip

"""Chip core: decoupling at every supply pin, a bulk capacitor, reset, boot strap, exposed pad."""

from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment
from loquet.core.parts import Chip, LandPattern
from loquet.core.pins import PinPlan
from loquet.core.provenance import Source, Working, WorkingInput

PRACTICE = Source(
    kind="common practice",
    text="100 nF at each supply pin and one bulk capacitor, as makers' hardware notes ask; no source",
)
CORE_CAPACITOR = {1: ("4.7 µF", "capacitor-2012"), 2: ("2.2 µF", "capacitor-1608")}


def chip_core(chip: Chip, pattern: LandPattern, plan: PinPlan) -> Fragment:
    """The chip itself and everything it needs to run at all."""
    regulators = [pin for pin in chip.pins if pin.kind == "regulator"]
    supplies = [pin for pin in chip.pins if pin.kind == "supply"]
    components = [
        Component(
            role="chip",
            part=f"chip:{chip.name}",
            block="chip",
            value=chip.name,
            purpose="Microcontroller",
            pads=chip_pads(chip, pattern, plan),
        )
    ]
    for pin in supplies:
        components.append(decoupling(pin.number, pin.rail, "100 nF", "capacitor-1608", SUPPLY))
    for index, pin in enumerate(regulators):
        value, part = CORE_CAPACITOR[min(len(regulators), 2)]
        components.append(decoupling(pin.number, pin.rail, value, part, f"CORE_{index + 1}"))
    components.append(
        Component(
            role="chip bulk",
            part="capacitor-2012",
            block="chip",
            value="10 µF",
            purpose="Bulk capacitor of the chip",
            pads={"1": SUPPLY, "2": GROUND},
            near_role="chip",
            near_pad=supplies[0].number,
        )
    )
    components.extend(reset_and_boot(chip))
    return Fragment(
        tuple(components),
        {SUPPLY: "supply", GROUND: "ground"},
        (decoupling_working(chip, len(supplies)),),
    )


def chip_pads(chip: Chip, pattern: LandPattern, plan: PinPlan) -> dict[str, str]:
    """Net of every chip pin; a pin that carries nothing is left out, an exposed pad goes to ground."""
    signals = {row.pin: row.net for row in plan.assignments}
    cores = [pin.number for pin in chip.pins if pin.kind == "regulator"]
    pads: dict[str, str] = {}
    for pin in chip.pins:
        match pin.kind:
            case "supply":
                pads[pin.number] = SUPPLY
            case "ground":
                pads[pin.number] = GROUND
            case "regulator":
                pads[pin.number] = f"CORE_{cores.index(pin.number) + 1}"
            case "reset":
                pads[pin.number] = "RESET"
            case "boot":
                pads[pin.number] = "BOOT"
            case _ if pin.is_reset:
                pads[pin.number] = "RESET"
            case _ if pin.number in signals:
                pads[pin.number] = signals[pin.number]
    exposed = str(len(chip.pins) + 1)
    if any(pad.number == exposed for pad in pattern.pads):
        pads[exposed] = GROUND
    return pads


def decoupling(pin: str, rail: str, value: str, part: str, net: str) -> Component:
    """A capacitor from a supply pin to ground, close to that pin."""
    return Component(
        role=f"decoupling {pin}",
        part=part,
        block="chip",
        value=value,
        purpose=f"Decoupling of {rail} at chip pin {pin}",
        pads={"1": net, "2": GROUND},
        near_role="chip",
        near_pad=pin,
    )


def reset_and_boot(chip: Chip) -> list[Component]:
    """A capacitor at reset (the pull-up is inside the chip), and the strap that makes it start from its own memory."""
    found = []
    for pin in chip.pins:
        if pin.is_reset:
            found.append(
                Component(
                    role="reset filter",
                    part="capacitor-1608",
                    block="chip",
                    value="100 nF",
                    purpose="Keeps reset quiet",
                    pads={"1": "RESET", "2": GROUND},
                    near_role="chip",
                    near_pad=pin.number,
                )
            )
        if pin.kind == "boot":
            found.append(
                Component(
                    role="boot strap",
                    part="resistor-1608",
                    block="chip",
                    value="10 kΩ",
                    purpose="Starts the chip from its own memory",
                    pads={"1": "BOOT", "2": GROUND},
                    near_role="chip",
                    near_pad=pin.number,
                )
            )
    return found


def decoupling_working(chip: Chip, supplies: int) -> Working:
    """How many decoupling capacitors and why."""
    return Working(
        id="chip.decoupling",
        title="Decoupling at the chip",
        value=supplies * 0.1 + 10,
        unit="µF",
        shown=f"{supplies} x 100 nF + 10 µF",
        formula="supply pins x 100 nF + 10 µF bulk",
        inputs=(WorkingInput(name="supply pins", value=str(supplies), origin=chip.data_source),),
        source=PRACTICE,
    )

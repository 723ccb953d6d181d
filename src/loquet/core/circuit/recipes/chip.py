"""A chip: decoupling at every supply pin, a bulk capacitor, reset, boot strap, exposed pad."""

from loquet.core.brief.kinds.chip import Chip as ChipThing
from loquet.core.circuit.bench import Bench, Desk
from loquet.core.circuit.model import (
    CHIP_PART,
    GROUND,
    Component,
    Fragment,
    RecipeNotPossible,
)
from loquet.core.parts import Chip
from loquet.core.parts.choosing import socket
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.provenance import Source, Working, WorkingInput

PRACTICE = Source(
    kind="common practice",
    text=(
        "100 nF at each supply pin and one bulk capacitor, as makers' hardware notes ask; no source"
    ),
)

BULK_UF, CORE_CAPACITOR = 10.0, {1: "4.7 µF", 2: "2.2 µF"}


def recipe(thing: ChipThing, bench: Bench) -> Fragment:
    """The chip itself and everything it needs to run at all; raises RecipeNotPossible for a socket
    that no such package fits.
    """
    desk, rail, role = bench.desk(thing), bench.rail(thing).net, thing.role()
    chip = desk.chip
    if thing.socket and not chip.package.startswith("DIP"):
        raise RecipeNotPossible(
            thing.name,
            f"{chip.name} is in {chip.package}, for which there is no socket",
            "Solder it on, or take one in two rows.",
        )
    regulators = [pin for pin in chip.pins if pin.kind == "regulator"]
    supplies = [pin for pin in chip.pins if pin.kind == "supply"]
    components = [
        Component(
            role=role,
            part=f"{CHIP_PART}{chip.name}",
            block="chip",
            value=chip.name,
            purpose="Microcontroller",
            pads=chip_pads(desk, rail),
            sits_in=(socket(bench.parts, len(chip.pins)),) if thing.socket else (),
        )
    ]
    for pin in supplies:
        components.append(decoupling(bench, desk, role, (pin.number, pin.rail), "100 nF", rail))
    for index, pin in enumerate(regulators):
        value = chip.core_capacitor or CORE_CAPACITOR[min(len(regulators), 2)]
        net = desk.net(f"CORE_{index + 1}")
        components.append(decoupling(bench, desk, role, (pin.number, pin.rail), value, net))
    components.append(
        Component(
            role=f"{role} bulk",
            part=bench.capacitor(f"{BULK_UF:g} µF"),
            block="chip",
            value=f"{BULK_UF:g} µF",
            purpose="Bulk capacitor of the chip",
            pads={ONE: rail, OTHER: GROUND},
            near_role=role,
            near_pad=supplies[0].number,
        )
    )
    components.extend(reset_and_boot(bench, desk, role))
    working = decoupling_working(chip, len(supplies))
    return Fragment(tuple(components), {rail: "supply", GROUND: "ground"}, (working,))


def chip_pads(desk: Desk, rail: str) -> dict[str, str]:
    """Net of every chip pin; a pin that carries nothing is left out, an exposed pad goes to
    ground.
    """
    chip = desk.chip
    signals = {row.pin: row.net for row in desk.plan.assignments}
    cores = [pin.number for pin in chip.pins if pin.kind == "regulator"]
    fixed = {"supply": rail, "ground": GROUND, "reset": desk.net("RESET"), "boot": desk.net("BOOT")}
    pads: dict[str, str] = {}
    for pin in chip.pins:
        if pin.kind in fixed:
            pads[pin.number] = fixed[pin.kind]
        elif pin.kind == "regulator":
            pads[pin.number] = desk.net(f"CORE_{cores.index(pin.number) + 1}")
        elif pin.is_reset:
            pads[pin.number] = desk.net("RESET")
        elif pin.number in signals:
            pads[pin.number] = signals[pin.number]
        elif pin.is_boot:
            pads[pin.number] = desk.net("BOOT")
    exposed = str(len(chip.pins) + 1)
    if any(pad.number == exposed for pad in desk.pattern.pads):
        pads[exposed] = GROUND
    return pads


def decoupling(
    bench: Bench, desk: Desk, role: str, pin: tuple[str, str], value: str, net: str
) -> Component:
    """A capacitor from a supply pin (number and rail) to ground, close to that pin."""
    return Component(
        role=desk.role(f"decoupling {pin[0]}"),
        part=bench.capacitor(value),
        block="chip",
        value=value,
        purpose=f"Decoupling of {pin[1]} at chip pin {pin[0]}",
        pads={ONE: net, OTHER: GROUND},
        near_role=role,
        near_pad=pin[0],
    )


def reset_and_boot(bench: Bench, desk: Desk, role: str) -> list[Component]:
    """A capacitor at reset (the pull-up is inside the chip), and the strap that makes it start from
    its own memory, also where boot shares a port pin that carries nothing else.
    """
    found = []
    taken = {row.pin for row in desk.plan.assignments}
    for pin in desk.chip.pins:
        if pin.is_reset:
            found.append(
                Component(
                    role=desk.role("reset filter"),
                    part=bench.capacitor("100 nF"),
                    block="chip",
                    value="100 nF",
                    purpose="Keeps reset quiet",
                    pads={ONE: desk.net("RESET"), OTHER: GROUND},
                    near_role=role,
                    near_pad=pin.number,
                )
            )
        if pin.kind == "boot" or (pin.is_boot and pin.number not in taken):
            found.append(
                Component(
                    role=desk.role("boot strap"),
                    part=bench.resistor,
                    block="chip",
                    value="10 kΩ",
                    purpose="Starts the chip from its own memory",
                    pads={ONE: desk.net("BOOT"), OTHER: GROUND},
                    near_role=role,
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
        formula="pins x Cpin + Cbulk",
        inputs=(
            WorkingInput(name="pins", value=str(supplies), origin=chip.data_source),
            WorkingInput(name="Cpin", value="0.1", unit="µF", origin=PRACTICE.text),
            WorkingInput(name="Cbulk", value=f"{BULK_UF:g}", unit="µF", origin=PRACTICE.text),
        ),
        source=PRACTICE,
    )


RECIPE = (ChipThing, recipe)

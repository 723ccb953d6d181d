"""Screen on two wires: the header, its decoupling, and pull-ups worked out from the bus."""

from loquet.core.brief import Screen
from loquet.core.circuit.model import GROUND, SUPPLY, Component, Fragment, RecipeNotPossible
from loquet.core.circuit.supply import SupplyRange
from loquet.core.parts.screen import HEADERS, ScreenModule
from loquet.core.pins.buses import BUS_MANUAL, RISE_S, pull_up_limits_ohm
from loquet.core.pins.needs import net_of
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

PIN_PF, TRACK_PF_PER_MM = 10.0, 0.1
NETS = {"ground": GROUND, "supply": SUPPLY, "clock": "SCREEN_CLOCK", "data": "SCREEN_DATA"}


def plain_screen_header(screen: Screen, module: ScreenModule) -> Fragment:
    """Header of a screen on a serial or parallel bus, in the module's own pin order, with its decoupling; no pull-ups are needed.

    Raises RecipeNotPossible where the lines do not fit the header of 16 ways.
    """
    names = [*module.pins]
    if screen.bus == "parallel colour":
        names += [f"colour {i + 1}" for i in range(screen.colour_bits)] + [
            "pixel clock",
            "line sync",
            "frame sync",
            "enable",
        ]
    if len(names) > 16:
        raise RecipeNotPossible(
            "screen header",
            f"{len(names)} lines do not fit a header of 16 ways",
            "Take fewer colour bits.",
        )
    rails = {"ground": GROUND, "supply": SUPPLY}
    pads = {str(i + 1): rails.get(name, net_of(f"screen:{name}")) for i, name in enumerate(names)}
    components = (
        Component(
            role="screen",
            part=HEADERS[screen.bus],
            block="screen",
            value=module.description,
            purpose="Header of the screen module",
            pads=pads,
        ),
        Component(
            role="screen decoupling",
            part="capacitor-1608",
            block="screen",
            value="1 µF",
            purpose="Decoupling of the screen",
            pads={"1": SUPPLY, "2": GROUND},
            near_role="screen",
            near_pad=str(names.index("supply") + 1),
        ),
    )
    return Fragment(components)


def screen_header(
    screen: Screen, module: ScreenModule, track_mm: float, supply: SupplyRange
) -> Fragment:
    """Header in the module's own pin order, with pull-ups between the limits; raises RecipeNotPossible where there is no room."""
    bus_pf = module.bus_pf + PIN_PF + TRACK_PF_PER_MM * track_mm
    least, greatest = pull_up_limits_ohm(supply.fresh_v, bus_pf, screen.bus_khz)
    if greatest < least:
        raise RecipeNotPossible(
            "screen pull-ups",
            f"the bus carries {bus_pf:.0f} pF, too much for {screen.bus_khz} kHz",
            "Use 100 kHz or move the screen nearer.",
        )
    resistance = nearest((least * greatest) ** 0.5, "E12")
    header = Component(
        role="screen",
        part="header-4-way",
        block="screen",
        value=module.description,
        purpose="Header of the screen module",
        pads={str(index + 1): NETS[name] for index, name in enumerate(module.pins)},
    )
    supply_pad = str(module.pins.index("supply") + 1)
    components = (
        header,
        pull_up("clock", resistance, str(module.pins.index("clock") + 1)),
        pull_up("data", resistance, str(module.pins.index("data") + 1)),
        Component(
            role="screen decoupling",
            part="capacitor-1608",
            block="screen",
            value="1 µF",
            purpose="Decoupling of the screen",
            pads={"1": SUPPLY, "2": GROUND},
            near_role="screen",
            near_pad=supply_pad,
        ),
    )
    return Fragment(
        components,
        workings=workings(
            resistance, least, greatest, bus_pf, module, track_mm, supply, screen.bus_khz
        ),
    )


def pull_up(line: str, resistance: float, pad: str) -> Component:
    """The pull-up of one line, at the header."""
    return Component(
        role=f"screen pull-up {line}",
        part="resistor-1608",
        block="screen",
        value=show_si(resistance, "Ω"),
        purpose=f"Pull-up of the screen {line}",
        pads={"1": SUPPLY, "2": NETS[line]},
        near_role="screen",
        near_pad=pad,
    )


def workings(
    resistance: float,
    least: float,
    greatest: float,
    bus_pf: float,
    module: ScreenModule,
    track_mm: float,
    supply: SupplyRange,
    khz: int,
) -> tuple[Working, ...]:
    """The bus load and the pull-up."""
    load = Working(
        id="screen.bus",
        title="Load of the screen bus",
        value=bus_pf,
        unit="pF",
        shown=f"{bus_pf:.0f} pF",
        formula="module + chip pin + track x 0.1 pF/mm",
        inputs=(
            WorkingInput(
                name="module", value=f"{module.bus_pf:g}", unit="pF", origin=module.evidence_text
            ),
            WorkingInput(
                name="chip pin",
                value=f"{PIN_PF:g}",
                unit="pF",
                origin="UM10204: at most 10 pF a pin",
            ),
            WorkingInput(name="track", value=f"{track_mm:.0f}", unit="mm", origin="pin plan"),
        ),
        source=Source(
            kind="common practice", text="0.1 pF/mm for a narrow track on a thin board; no source"
        ),
    )
    value = Working(
        id="screen.pull_up",
        title="Pull-up of the screen bus",
        value=resistance,
        unit="Ω",
        shown=show_si(resistance, "Ω"),
        formula="nearest E12 to sqrt(Rmin Rmax)",
        inputs=(
            WorkingInput(
                name="Rmin",
                value=f"{least:.0f}",
                unit="Ω",
                origin=f"(VDD - 0.4 V) / 3 mA at {supply.fresh_v:g} V",
            ),
            WorkingInput(
                name="Rmax",
                value=f"{greatest:.0f}",
                unit="Ω",
                origin=f"{RISE_S[khz] * 1e9:.0f} ns / (0.8473 x {bus_pf:.0f} pF)",
            ),
        ),
        source=BUS_MANUAL,
    )
    return load, value

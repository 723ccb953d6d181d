"""Charging one lithium cell: the current that is set, by which resistor, and how long it takes."""

from math import inf

from loquet.core.brief import Thing
from loquet.core.parts import Part
from loquet.core.power.converting import AMBIENT_C
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import at_least

SLOWER = 1.3
PORT_V, CELL_V = 5.0, 3.7
RATE = Source(
    kind="common practice",
    text="0.5 C unless the cell's maker says otherwise; the cell maker's limits come first",
)


def program_ohm(thing: Thing, charger: Part) -> float:
    """The next E24 value that does not let the current grow above what is wanted, in ohm."""
    exact = (
        charger.figure("program_v") * charger.figure("program_ratio") / thing.charging_ma() * 1000
    )
    return at_least(exact)


def charge_ma(thing: Thing, charger: Part) -> float:
    """The charging current that the resistor sets, in mA."""
    return (
        charger.figure("program_v")
        * charger.figure("program_ratio")
        / program_ohm(thing, charger)
        * 1000
    )


def held_ma(charger: Part) -> float:
    """The current in mA at which a charger holds itself back for heat, at the usual volts of cell
    and port; infinite for one that never does.
    """
    if "holds_c" not in charger.values:
        return inf
    watts = (charger.figure("holds_c") - AMBIENT_C) / charger.figure("theta_k_w")
    return 1000 * watts / (PORT_V - CELL_V)


def real_ma(thing: Thing, charger: Part) -> float:
    """What really flows into the cell for most of the time, in mA."""
    return min(charge_ma(thing, charger), held_ma(charger))


def program_working(thing: Thing, charger: Part) -> Working:
    """The current that is set."""
    value = charge_ma(thing, charger)
    return Working(
        id=f"{thing.name}.charge",
        title=f"Charging current of {thing.label}",
        value=value,
        unit="mA",
        shown=f"{value:.0f} mA",
        formula="Vprogram x ratio / R",
        inputs=(
            WorkingInput(
                name="Vprogram",
                value=f"{charger.values['program_v']:g}",
                unit="V",
                origin=charger.evidence_text,
            ),
            WorkingInput(
                name="ratio",
                value=f"{charger.values['program_ratio']:g}",
                origin=charger.evidence_text,
            ),
            WorkingInput(
                name="R",
                value=f"{program_ohm(thing, charger):g}",
                unit="Ω",
                origin=f"next E24 for at most {thing.charging_ma():.0f} mA; {RATE.text}",
            ),
        ),
        source=RATE,
    )


def charge_working(thing: Thing, capacity_mah: float, charger: Part) -> Working:
    """How long a charge takes."""
    current = real_ma(thing, charger)
    hours = SLOWER * capacity_mah / current
    held = current < charge_ma(thing, charger)
    return Working(
        id=f"{thing.name}.charge_time",
        title=f"Charging {thing.label} from empty",
        value=hours,
        unit="h",
        shown=f"{hours:.1f} h",
        formula="k x C / I",
        inputs=(
            WorkingInput(
                name="k", value=f"{SLOWER:g}", origin="the last part goes slower; common practice"
            ),
            WorkingInput(name="C", value=f"{capacity_mah / 1000:g}", unit="Ah", origin="brief"),
            WorkingInput(
                name="I",
                value=f"{current / 1000:.6g}",
                unit="A",
                origin=(
                    "charging current, held back by the charger's heat"
                    if held
                    else "charging current"
                ),
            ),
        ),
        source=Source(kind="common practice", text="about 1.3 x C / I"),
    )

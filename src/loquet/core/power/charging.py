"""Charging one lithium cell: the current that is set, by which resistor, and how long it takes."""

from loquet.core.brief import Thing
from loquet.core.parts import Part
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import at_least

SLOWER = 1.3
RATE = Source(
    kind="common practice",
    text="0.5 C unless the cell's maker says otherwise, 500 mA at most from a USB port; the cell maker's limits come first",
)


def program_ohm(thing: Thing, charger: Part) -> float:
    """The next E24 value that does not let the current grow above what is wanted, in ohm."""
    exact = (
        charger.values["program_v"] * charger.values["program_ratio"] / thing.charging_ma() * 1000
    )
    return at_least(exact)


def charge_ma(thing: Thing, charger: Part) -> float:
    """The charging current that the resistor sets, in mA."""
    return (
        charger.values["program_v"]
        * charger.values["program_ratio"]
        / program_ohm(thing, charger)
        * 1000
    )


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
    hours = SLOWER * capacity_mah / charge_ma(thing, charger)
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
                value=f"{charge_ma(thing, charger) / 1000:.6g}",
                unit="A",
                origin="charging current",
            ),
        ),
        source=Source(kind="common practice", text="about 1.3 x C / I"),
    )

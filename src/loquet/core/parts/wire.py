"""Wire: diameters by gauge, and the thinnest that carries a current over a distance."""

from dataclasses import dataclass
from math import pi

from loquet.core.provenance import Source, Working, given

COPPER_OHM_MM2_M = 0.01724  # annealed copper at 20 °C, IEC 60028
GAUGES = (30, 28, 26, 24, 22, 20, 18)
DENSEST_A_MM2 = 5.0
DROP_MV = 50.0
USUAL_MM = 150.0
"""How long a lead is taken to be where its way is not known; assumed."""
RULE = Source(
    kind="standard",
    text=(
        "ASTM B258: d = 0.127 mm x 92^((36 - n) / 39); 5 A/mm² and 50 mV there and back are common"
        " practice"
    ),
)


@dataclass(frozen=True)
class Wire:
    """A gauge (AWG), with its diameter in mm and its resistance in mΩ a metre."""

    gauge: int
    diameter_mm: float
    mohm_m: float


def wire(gauge: int) -> Wire:
    """A gauge by its formula (ASTM B258)."""
    diameter = 0.127 * 92 ** ((36 - gauge) / 39)
    return Wire(gauge, diameter, COPPER_OHM_MM2_M / (pi / 4 * diameter**2) * 1000)


def wire_for(current_ma: float, length_mm: float) -> Wire:
    """The thinnest usual gauge for a current over a length of each of two wires; the thickest where
    none is enough.
    """
    for gauge in GAUGES:
        found = wire(gauge)
        area = pi / 4 * found.diameter_mm**2
        drop_mv = 2 * length_mm / 1000 * found.mohm_m * current_ma / 1000
        if current_ma / 1000 <= DENSEST_A_MM2 * area and drop_mv <= DROP_MV:
            return found
    return wire(GAUGES[-1])


def wire_working(name: str, current_ma: float, length_mm: float) -> Working:
    """What is lost in the wires of a source."""
    found = wire_for(current_ma, length_mm)
    lost = 2 * length_mm / 1000 * found.mohm_m / 1000 * current_ma
    return Working(
        id=f"kit.wire.{name}",
        title=f"Lost in the wires of {name}, {found.gauge} AWG ({found.diameter_mm:.2f} mm)",
        value=lost,
        unit="mV",
        shown=f"{lost:.1f} mV",
        formula="2 x l x r x I",
        inputs=(
            given("l", length_mm / 1000, "m", "length of each wire; assumed 150 mm"),
            given("r", found.mohm_m / 1000, "Ω/m", RULE.text),
            given("I", current_ma / 1000, "A", "everything on at once"),
        ),
        source=RULE,
    )

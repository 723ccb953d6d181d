"""Between a source and its rail: which converters fit, what each costs and wastes, and which one is
taken.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from loquet.core.brief import Supply
from loquet.core.parts import Part

Volts = TypeVar("Volts", float, NDArray[np.float64])
AMBIENT_C, HOTTEST_C = 40.0, 125.0
HEADROOM_V = 1.0


@dataclass(frozen=True)
class Way:
    """A way to make a rail: its name, its main part, and what stands around that."""

    name: str
    title: str
    part: str
    around: tuple[str, ...]


CAPS_LOW = ("capacitor-2012", "capacitor-2012")
CAPS_HIGH = ("capacitor-3216", "capacitor-2012")
COIL = ("inductor-4040", "resistor-1608", "resistor-1608")
WAYS = (
    Way("linear", "Linear regulator", "regulator-linear-low", CAPS_LOW),
    Way("linear", "Linear regulator, high input", "regulator-linear-high", CAPS_HIGH),
    Way("buck", "Step-down converter", "converter-buck", (*CAPS_HIGH, *COIL, "capacitor-1608")),
    Way("boost", "Step-up converter", "converter-boost", (*CAPS_LOW, *COIL)),
    Way("buck-boost", "Step-up and step-down", "converter-buck-boost", (*CAPS_LOW, *COIL)),
)


@dataclass(frozen=True)
class Conversion:
    """A way between a source and a rail of so many volts under a load; `why_not` says why it does
    not fit, `stops_v` where the source is too low for it.
    """

    way: Way
    part: Part
    out_v: float
    load_ma: float
    stops_v: float
    heat_mw: float
    junction_c: float
    price_cents: float
    why_not: str = ""

    @property
    def fits(self) -> bool:
        """Whether it can be taken."""
        return not self.why_not

    def draws_ma(self, source_v: Volts, load_ma: float) -> Volts:
        """What the source gives for a load on the rail, in mA, for one voltage or many; at no load
        what the converter itself takes.

        A linear regulator passes the current on; a switching one passes on the power.
        """
        quiet = self.part.values["quiet_ma"]
        if self.way.name == "linear":
            return source_v * 0 + (load_ma + quiet)
        return self.out_v * load_ma / (self.part.values["efficiency"] * source_v) + quiet


def lost_mw(part: Part, way: Way, source_v: float, out_v: float, load_ma: float) -> float:
    """Heat in the converter in mW at a source voltage."""
    if way.name == "linear":
        return (source_v - out_v) * load_ma + source_v * part.values["quiet_ma"]
    return out_v * load_ma * (1 / part.values["efficiency"] - 1)


def conversion(
    way: Way, parts: Mapping[str, Part], supply: Supply, out_v: float, load_ma: float
) -> Conversion:
    """One way looked at for a source, a rail and its highest load."""
    part = parts[way.part]
    values = part.values
    drop = values.get("dropout_v", 0.0) * load_ma / values["current_ma"]
    stops = max(values["input_min_v"], least_in_v(way, out_v, drop))
    heat = max(
        lost_mw(part, way, volts, out_v, load_ma)
        for volts in (supply.fresh_v, max(stops, supply.empty_v))
    )
    junction = AMBIENT_C + heat / 1000 * values["theta_k_w"]
    price = part.price_cents + sum(parts[name].price_cents for name in way.around)
    found = Conversion(way, part, out_v, load_ma, stops, heat, junction, price)
    return replace(found, why_not=refused(found, supply))


def least_in_v(way: Way, out_v: float, drop_v: float) -> float:
    """The least input at which the rail still stands."""
    if way.name == "linear":
        return out_v + drop_v
    return out_v + HEADROOM_V if way.name == "buck" else 0.0


def refused(found: Conversion, supply: Supply) -> str:
    """Why a conversion cannot be taken, or nothing."""
    values, name = found.part.values, found.way.name
    if supply.fresh_v > values["input_max_v"]:
        return (
            f"takes {values['input_max_v']:g} V at the most, and the source gives"
            f" {supply.fresh_v:.2f} V"
        )
    carried = carried_ma(found, supply)
    if carried > values["current_ma"] and name == "boost":
        return (
            f"carries {values['current_ma']:g} mA in its switch, and would have to carry"
            f" {carried:.0f} mA"
        )
    if carried > values["current_ma"]:
        return f"gives {values['current_ma']:g} mA, and the rail draws {found.load_ma:.0f} mA"
    if name == "boost" and supply.fresh_v > found.out_v:
        return f"only steps up, and the source gives {supply.fresh_v:.2f} V for {found.out_v:g} V"
    if found.stops_v > supply.usual_v:
        return f"needs {found.stops_v:.2f} V, and the source gives {supply.usual_v:.2f} V"
    if supply.stays and found.stops_v > supply.empty_v:
        return f"needs {found.stops_v:.2f} V, and the source may give {supply.empty_v:.2f} V"
    if found.junction_c > HOTTEST_C:
        return f"gets {found.junction_c:.0f} °C hot inside with {found.heat_mw:.0f} mW"
    return ""


def carried_ma(found: Conversion, supply: Supply) -> float:
    """What its limit is compared with: the rail's current, or for a step-up converter the mean
    current of its switch at the lowest input.
    """
    if found.way.name != "boost":
        return found.load_ma
    return found.draws_ma(max(supply.empty_v, found.stops_v), found.load_ma)


def conversions(
    parts: Mapping[str, Part], supply: Supply, out_v: float, load_ma: float
) -> tuple[Conversion, ...]:
    """All ways, those that fit and those that do not."""
    return tuple(conversion(way, parts, supply, out_v, load_ma) for way in WAYS)

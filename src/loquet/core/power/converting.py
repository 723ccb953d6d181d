"""Between a source and its rail: which converters fit, what each costs and wastes, and which one is
taken.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from loquet.core.brief import Supply
from loquet.core.parts import Part, PartError
from loquet.core.parts.choosing import capacitor, inductor, of_kind, resistor
from loquet.core.plain.remembering import Remembered

Volts = TypeVar("Volts", float, NDArray[np.float64])
AMBIENT_C, HOTTEST_C = 40.0, 125.0
UNKNOWN_K_W = 300.0
"""A converter that does not say its thermal resistance is taken for as bad as the smallest packages
are; assumed.
"""
HEADROOM_V = 1.0


@dataclass(frozen=True)
class Way:
    """A way to make a rail: its name, its main part, what stands around that, and what of it the
    shelf has not.
    """

    name: str
    title: str
    part: str
    around: tuple[str, ...]
    lacks: str = ""


ENTRY, PORT_ENTRY, OUT, BOOT, COIL_UH = "10 µF", "4.7 µF", "22 µF", "100 nF", 4.7
LOW_V, WIDE_V = 6.0, 20.0
"""Above so many volts at its input a regulator is said to be for a high input, and a step-down
converter for a wide one.
"""
ROLES = {
    "linear regulator": ("linear", "Linear regulator"),
    "buck converter": ("buck", "Step-down converter"),
    "boost converter": ("boost", "Step-up converter"),
    "buck-boost converter": ("buck-boost", "Step-up and step-down"),
}
UPWARD = ("boost", "buck-boost")
KEPT: Remembered[tuple[Way, ...]] = Remembered(16)


def ways(parts: Mapping[str, Part]) -> tuple[Way, ...]:
    """A way for every converter on the shelf, by role, the cheapest of a role first."""
    return KEPT.of(
        (parts,), lambda: tuple(way_of(p, parts) for role in ROLES for p in of_kind(parts, role))
    )


def way_of(part: Part, parts: Mapping[str, Part]) -> Way:
    """What a converter is for, and what stands around it: capacitors, and where it switches a coil
    with a divider and perhaps the capacitor of its upper switch.
    """
    name, title = ROLES[part.kind]
    if name == "linear" and part.values.get("input_max_v", 0.0) > LOW_V:
        title += ", high input"
    if name == "buck" and part.values.get("input_max_v", 0.0) > WIDE_V:
        title += ", wide input"
    try:
        return Way(name, title, part.id, tuple(around(part, parts)))
    except PartError as error:
        return Way(name, title, part.id, (), str(error))


def around(part: Part, parts: Mapping[str, Part]) -> Iterator[str]:
    """The parts that stand around a converter; raises PartError for one that is on no shelf."""
    yield capacitor(parts, ENTRY, stood_v(part.values.get("input_max_v", 0.0)))
    yield capacitor(parts, OUT)
    if ROLES[part.kind][0] != "linear":
        yield inductor(parts, COIL_UH)
    if "feedback" in part.terminals:
        yield from [resistor(parts)] * 2
    if "boot" in part.terminals:
        yield capacitor(parts, BOOT)


def stood_v(input_max_v: float) -> float:
    """The volts for which a capacitor at an input is chosen: what the converter takes, where that
    is a high input.
    """
    return input_max_v if input_max_v > LOW_V else 0.0


@dataclass(frozen=True)
class Conversion:
    """A way between a source and a rail of so many volts under a load; `why_not` says why it does
    not fit, `stops_v` where the source is too low for it; `chosen` by a person before all others,
    made with a part of one's `own`.
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
    chosen: bool = False
    own: bool = False

    @property
    def fits(self) -> bool:
        """Whether it can be taken."""
        return not self.why_not

    def draws_ma(self, source_v: Volts, load_ma: float) -> Volts:
        """What the source gives for a load on the rail, in mA, for one voltage or many; at no load
        what the converter itself takes.

        A linear regulator passes the current on; a switching one passes on the power.
        """
        quiet = self.part.values.get("quiet_ma", 0.0)
        if self.way.name == "linear":
            return source_v * 0 + (load_ma + quiet)
        return self.out_v * load_ma / (self.part.figure("efficiency") * source_v) + quiet


def lost_mw(part: Part, way: Way, source_v: float, out_v: float, load_ma: float) -> float:
    """Heat in the converter in mW at a source voltage."""
    if way.name == "linear":
        return (source_v - out_v) * load_ma + source_v * part.values.get("quiet_ma", 0.0)
    return out_v * load_ma * (1 / part.figure("efficiency") - 1)


def conversion(
    way: Way, parts: Mapping[str, Part], supply: Supply, out_v: float, load_ma: float
) -> Conversion:
    """One way looked at for a source, a rail and its highest load."""
    part = parts[way.part]
    values = part.values
    if unsaid := next((name for name in needed(way) if name not in values), ""):
        why_not = f"does not say its {unsaid}: type it on the parts shelf"
        return Conversion(way, part, out_v, load_ma, 0.0, 0.0, 0.0, part.price_cents, why_not)
    drop = values.get("dropout_v", 0.0) * load_ma / values["current_ma"]
    stops = max(values["input_min_v"], least_in_v(way, out_v, drop))
    heat = max(
        lost_mw(part, way, volts, out_v, load_ma)
        for volts in (supply.fresh_v, max(stops, supply.empty_v))
    )
    junction = AMBIENT_C + heat / 1000 * values.get("theta_k_w", UNKNOWN_K_W)
    price = part.price_cents + sum(parts[name].price_cents for name in way.around)
    chosen = part.id in getattr(parts, "preferred", ())
    own = part.id in getattr(parts, "own", ())
    found = Conversion(way, part, out_v, load_ma, stops, heat, junction, price, "", chosen, own)
    return replace(found, why_not=refused(found, supply))


def needed(way: Way) -> tuple[str, ...]:
    """Figures without which a converter cannot be judged."""
    own = ("dropout_v",) if way.name == "linear" else ("efficiency", "reference_v")
    return ("input_max_v", "input_min_v", "current_ma", *own)


def least_in_v(way: Way, out_v: float, drop_v: float) -> float:
    """The least input at which the rail still stands."""
    if way.name == "linear":
        return out_v + drop_v
    return out_v + HEADROOM_V if way.name == "buck" else 0.0


def refused(found: Conversion, supply: Supply) -> str:
    """Why a conversion cannot be taken, or nothing."""
    values, name = found.part.values, found.way.name
    if found.way.lacks:
        return f"has not what stands around it: {found.way.lacks}"
    if supply.fresh_v > values["input_max_v"]:
        return (
            f"takes {values['input_max_v']:g} V at the most, and the source gives"
            f" {supply.fresh_v:.2f} V"
        )
    carried = carried_ma(found, supply)
    if carried > values["current_ma"] and name in UPWARD:
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
    """What its limit is compared with: the rail's current, or for one that steps up the mean
    current of its switch at the lowest input.
    """
    if found.way.name not in UPWARD:
        return found.load_ma
    lowest = found.draws_ma(max(supply.empty_v, found.stops_v), found.load_ma)
    return max(found.load_ma, lowest)


def conversions(
    parts: Mapping[str, Part], supply: Supply, out_v: float, load_ma: float
) -> tuple[Conversion, ...]:
    """All ways, those that fit and those that do not."""
    return tuple(conversion(way, parts, supply, out_v, load_ma) for way in ways(parts))
